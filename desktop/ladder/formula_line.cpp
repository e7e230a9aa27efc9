#include "desktop/ladder/formula_line.h"

#include <QPainter>
#include <algorithm>

#include "desktop/formulas/formula_text.h"
#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int line_height = 17;
constexpr int single_height = 15;

}  // namespace

FormulaLine::FormulaLine(const std::string& formula, const Finish& finish, const Catalogue* catalogue,
                         const QRect& area, bool wrapped)
    : formula_(formula), area_(area), layout_(QString(), theme::figures()), wrapped_(wrapped) {
    const auto sentence = catalogue != nullptr ? sentence_of(*catalogue, formula) : std::nullopt;
    const Span shown = wrapped ? Span{0, static_cast<std::uint32_t>(formula.size())} : telling_line(formula);
    const std::string text = formula.substr(shown.begin, shown.end - shown.begin);
    cut(sentence ? *sentence : std::vector<SentencePiece>{{text, shown}}, finish);
    layout_.beginLayout();
    int y = wrapped ? 0 : (area.height() - single_height) / 2;
    const int top = y;
    for (QTextLine line = layout_.createLine(); line.isValid(); line = layout_.createLine()) {
        line.setLineWidth(wrapped ? area.width() : 100000);
        line.setPosition(QPointF(0, y));
        y += line_height;
    }
    layout_.endLayout();
    height_ = std::max(line_height, y - top);
}

// What is shown, its colours, and where each run of it stands in the formula.
void FormulaLine::cut(const std::vector<SentencePiece>& pieces, const Finish& finish) {
    QString shown;
    QList<QTextLayout::FormatRange> formats;
    const auto all = formula_formats(formula_, finish);
    for (const SentencePiece& piece : pieces) {
        const QString text = wrapped_ ? lines_of(piece.text)
                                      : QString::fromStdString(piece.text).replace(QLatin1Char('\n'), QLatin1Char(' '));
        const int index = static_cast<int>(shown.size());
        pieces_.push_back({index, static_cast<int>(text.size()), piece.span});
        shown += text;
        if (!piece.span) {
            QTextCharFormat quiet;
            quiet.setForeground(theme::quiet);
            formats.append({index, static_cast<int>(text.size()), quiet});
            continue;
        }
        const int first = text_index(formula_, piece.span->begin);
        for (const QTextLayout::FormatRange& range : all) {
            if (range.start < first || range.start >= first + text.size()) continue;
            formats.append({range.start - first + index, range.length, range.format});
        }
    }
    layout_.setText(shown);
    layout_.setFormats(formats);
}

// Where a byte of the formula is shown, if it is.
std::optional<int> FormulaLine::index_of(std::uint32_t byte) const {
    for (const Piece& piece : pieces_) {
        if (!piece.span || byte < piece.span->begin || byte > piece.span->end) continue;
        return piece.index + text_index(formula_, byte) - text_index(formula_, piece.span->begin);
    }
    return std::nullopt;
}

void FormulaLine::draw(QPainter& painter) const {
    painter.save();
    painter.setClipRect(area_, Qt::IntersectClip);
    painter.setPen(theme::text);
    layout_.draw(&painter, area_.topLeft());
    painter.restore();
}

QRect FormulaLine::area_of(Span span) const {
    // What the sentence does not show word by word is the whole of it.
    const int first = index_of(span.begin).value_or(0);
    const int last = index_of(span.end).value_or(static_cast<int>(layout_.text().size()));
    const QTextLine line = layout_.lineForTextPosition(first);
    if (!line.isValid()) return {};
    const int left = static_cast<int>(line.cursorToX(first));
    const int end = std::min(last, line.textStart() + line.textLength());
    const int right = static_cast<int>(line.cursorToX(end));
    return {area_.left() + left, area_.top() + static_cast<int>(line.y()), std::max(right - left, 4), single_height};
}

std::optional<std::uint32_t> FormulaLine::byte_at(QPoint point) const {
    if (!area_.contains(point)) return std::nullopt;
    const QPointF inside = point - area_.topLeft();
    for (int i = 0; i < layout_.lineCount(); ++i) {
        const QTextLine line = layout_.lineAt(i);
        if (inside.y() < line.y() || inside.y() >= line.y() + line_height) continue;
        if (inside.x() > line.naturalTextWidth()) return std::nullopt;
        const int index = line.xToCursor(inside.x(), QTextLine::CursorOnCharacter);
        for (const Piece& piece : pieces_) {
            if (index < piece.index || index >= piece.index + piece.length) continue;
            // The operation's own words stand for its name.
            if (!piece.span) return 0;
            const QString before = layout_.text().mid(piece.index, index - piece.index);
            return piece.span->begin + static_cast<std::uint32_t>(before.toUtf8().size());
        }
    }
    return std::nullopt;
}

bool FormulaLine::is_cut() const { return !wrapped_ && layout_.lineAt(0).naturalTextWidth() > area_.width(); }

}  // namespace lacquer
