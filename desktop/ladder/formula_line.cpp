#include "desktop/ladder/formula_line.h"

#include <QPainter>

#include "desktop/ladder/formula_text.h"
#include "desktop/theme/theme.h"

namespace lacquer {

namespace {

constexpr int line_height = 17;
constexpr int single_height = 15;

}  // namespace

FormulaLine::FormulaLine(const std::string& formula, const Finish& finish, const QRect& area, bool wrapped)
    : formula_(formula),
      area_(area),
      layout_(
          wrapped ? lines_of(formula) : QString::fromStdString(formula).replace(QLatin1Char('\n'), QLatin1Char(' ')),
          theme::figures()),
      wrapped_(wrapped) {
    layout_.setFormats(formula_formats(formula, finish));
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

void FormulaLine::draw(QPainter& painter) const {
    painter.save();
    painter.setClipRect(area_, Qt::IntersectClip);
    painter.setPen(theme::text);
    layout_.draw(&painter, area_.topLeft());
    painter.restore();
}

QRect FormulaLine::area_of(Span span) const {
    const int first = text_index(formula_, span.begin);
    const int last = text_index(formula_, span.end);
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
        return static_cast<std::uint32_t>(layout_.text().left(index).toUtf8().size());
    }
    return std::nullopt;
}

bool FormulaLine::is_cut() const { return !wrapped_ && layout_.lineAt(0).naturalTextWidth() > area_.width(); }

}  // namespace lacquer
