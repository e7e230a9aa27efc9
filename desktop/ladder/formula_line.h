// A row's formula as it stands on the screen: where its words are, and which word is where.
#pragma once

#include <QRect>
#include <QTextLayout>
#include <optional>
#include <string>

#include "core/base/span.h"
#include "core/finish/finish.h"

class QPainter;

namespace lacquer {

class FormulaLine {
public:
    /// Lays the formula out in `area`: on one line that may be too long for it, or wrapped.
    FormulaLine(const std::string& formula, const Finish& finish, const QRect& area, bool wrapped);
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
    std::string formula_;
    QRect area_;
    QTextLayout layout_;
    bool wrapped_;
    int height_ = 0;
};

}  // namespace lacquer
