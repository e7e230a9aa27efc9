// A row's formula as it stands on the screen: where its words are, and which word is where.
#pragma once

#include <QRect>
#include <QTextLayout>
#include <optional>
#include <string>
#include <vector>

#include "core/base/span.h"
#include "core/finish/finish.h"
#include "core/finish/sentence.h"

class QPainter;

namespace lacquer {

class FormulaLine {
public:
    /// Lays the formula out in `area`: on one line that may be too long for it, or wrapped. With `catalogue`, a call of
    /// an operation reads as the operation says it.
    FormulaLine(const std::string& formula, const Finish& finish, const Catalogue* catalogue, const QRect& area,
                bool wrapped);
    /// Puts it elsewhere, as it was laid out.
    void move_to(QPoint top_left) { area_.moveTopLeft(top_left); }
    void draw(QPainter& painter) const;
    /// Where the characters of a span stand; if they wrap, those on their first line.
    QRect area_of(Span span) const;
    /// The byte of the formula at a point, if one is there.
    std::optional<std::uint32_t> byte_at(QPoint point) const;
    /// True if the line is longer than its area.
    bool is_cut() const;
    int height() const { return height_; }

private:
    /// A run of what is shown, and where it stands in the formula; none for words that do not.
    struct Piece {
        int index = 0;
        int length = 0;
        std::optional<Span> span;
    };
    void cut(const std::vector<SentencePiece>& pieces, const Finish& finish);
    std::optional<int> index_of(std::uint32_t byte) const;
    std::string formula_;
    std::vector<Piece> pieces_;
    QRect area_;
    QTextLayout layout_;
    bool wrapped_;
    int height_ = 0;
};

}  // namespace lacquer
