// How the dials look.
#include <QPainter>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/variants.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/document.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/dial_text.h"
#include "desktop/kit/switch.h"
#include "desktop/kit/theme.h"
#include "desktop/kit/track.h"
#include "desktop/playing/playing.h"

namespace lacquer {

namespace {

using theme::margin;

}  // namespace

QString DialsView::source_words(const Dial& dial) const {
    if (playing_.held().contains(dial.name)) return document_.keyed(tr("held · {let_go} lets go"));
    return dial.formula.empty() ? QString() : qs(dial.formula) + tr(" · drag to hold it still");
}

void DialsView::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::panel);
    if (cells_.empty()) {
        painter.setPen(theme::quiet);
        painter.setFont(theme::words());
        painter.drawText(
            viewport()->rect().adjusted(margin, 8, -margin, 0), Qt::TextWordWrap,
            document_.keyed(
                tr("No dials yet. A dial is a number with a name and a range: add one ({add_dial}), then use its name "
                   "in a formula.")));
        return;
    }
    if (hasFocus()) theme::paint_focus_line(painter, viewport()->rect());
    painter.translate(-scrolled());
    for (const Heading& heading : headings_)
        theme::paint_text(painter, heading.area, heading.words, theme::words(theme::small, true), theme::quiet);
    for (const Cell& cell : cells_) paint_cell(painter, cell);
}

void DialsView::paint_cell(QPainter& painter, const Cell& cell) const {
    const Dial& dial = document_.finish().dials[cell.dial];
    const bool held = playing_.held().contains(dial.name);
    const bool is_chosen = chosen_.holds(dial.name);
    if (cell.card) {
        painter.setPen(held ? theme::gold : theme::hairline);
        painter.setBrush(theme::raised);
        painter.drawRoundedRect(cell.area.adjusted(0, 0, -1, -1), 4, 4);
    } else {
        painter.fillRect(QRect(cell.area.left(), cell.area.bottom(), cell.area.width(), 1), theme::raised);
    }
    if (is_chosen && (hasFocus() || chosen_.several()))
        painter.fillRect(QRect(cell.area.left() - (cell.card ? 0 : 6), cell.area.top() + 6, 3, 16), theme::gold);
    const bool reaches = reaching_.contains(dial.name);
    theme::paint_text(painter, cell.name, qs(shown_name(dial.name)), theme::words(theme::plain, true),
                      reaches ? theme::text : theme::quiet);
    const int after_name =
        cell.name.left() +
        std::min(cell.name.width() - 10,
                 QFontMetrics(theme::words(theme::plain, true)).horizontalAdvance(qs(shown_name(dial.name))) + 10);
    if (differs_from_base(document_.finish(), dial.name))
        theme::paint_own_mark(painter, QPoint(after_name, cell.name.center().y() + 1));
    if (!dial.promises.empty()) theme::paint_promise_mark(painter, QPoint(after_name + 12, cell.name.center().y() + 1));
    const DialValue value = present_value(dial);
    const CheckedDial& checked = document_.checked().dials[cell.dial];
    QRect value_area = cell.value;
    if (dial.kind == DialKind::colour) {
        const QRect box(value_area.left(), value_area.center().y() - 5, 11, 11);
        painter.fillRect(box, theme::swatch(value));
        value_area.adjust(14, 0, 0, 0);
    }
    const bool differs = dial.formula.empty() && dial.value != dial.default_value;
    theme::paint_text(painter, value_area, dial_value_text(dial, value),
                      theme::figures(dial.kind == DialKind::colour ? theme::small : theme::plain),
                      !dial.formula.empty() && !held ? theme::vermilion_text : theme::text, Qt::AlignRight);
    paint_track(painter, cell, dial);
    if (differs && dial.kind != DialKind::toggle) {
        const int x =
            cell.track.left() + static_cast<int>(dial_share(dial, dial.default_value) * (cell.track.width() - 1));
        painter.fillRect(QRect(x, cell.track.bottom() + 1, 1, 3), theme::quiet);
    }
    const Warning* warning = warning_of(dial);
    if (warning != nullptr && !cell.card)
        theme::paint_notched_bar(painter, cell.name.left(), cell.name.left() + 24, cell.area.bottom() - 4);
    if (!cell.card) return;
    if (warning != nullptr && !checked.fault) {
        const QRect line(cell.area.left() + 10, cell.area.top() + 46, cell.area.width() - 20, 16);
        theme::paint_notched_bar(painter, line.left(), line.left() + 24, line.bottom() + 1);
        theme::paint_text(painter, line, qs(warning->message), theme::words(theme::small), theme::vermilion_text);
        if (!warning->mends.empty())
            theme::paint_text(painter, line.translated(0, 18),
                              tr("M: %1").arg(core_words(warning->mends.front().words)), theme::words(theme::small),
                              theme::celadon);
    } else if (checked.fault) {
        const QRect line(cell.area.left() + 10, cell.area.top() + 48, cell.area.width() - 20, 18);
        theme::paint_notched_bar(painter, line.left(), line.left() + 24, line.bottom() + 1);
        theme::paint_text(painter, line, core_words(checked.fault->message), theme::words(theme::small),
                          theme::vermilion_text);
        theme::paint_text(painter, line.translated(0, 20), qs(checked.fault->mend), theme::words(theme::small),
                          theme::quiet);
    } else {
        paint_card_trace(painter, cell, dial);
    }
    const QRect line(cell.area.left() + 10, cell.area.bottom() - 18, cell.area.width() - 20, 16);
    theme::paint_text(painter, line, source_words(dial), theme::figures(theme::tiny),
                      held ? theme::gold : theme::quiet);
}

void DialsView::paint_track(QPainter& painter, const Cell& cell, const Dial& dial) const {
    const QRect track = cell.track;
    const double share = dial_share(dial, present_value(dial));
    if (dial.kind == DialKind::toggle) return paint_switch(painter, track.topLeft() - QPoint(0, 1), share > 0);
    const bool driven = !dial.formula.empty() && !playing_.held().contains(dial.name);
    lacquer::paint_track(painter, track, share, driven ? std::optional<QColor>(theme::vermilion) : std::nullopt);
}

void DialsView::paint_card_trace(QPainter& painter, const Cell& cell, const Dial& dial) const {
    const auto found = traces_.find(dial.name);
    if (found == traces_.end() || found->second.size() < 2) return;
    const QRect area(cell.area.left() + 10, cell.area.top() + 47, cell.area.width() - 20, 30);
    const auto x_of = [&](double share) { return area.left() + share * (area.width() - 1); };
    QPolygonF line;
    for (std::size_t i = 0; i < found->second.size(); ++i) {
        const double share = static_cast<double>(i) / static_cast<double>(found->second.size() - 1);
        const double up = dial_share(dial, {static_cast<double>(found->second[i]), 0, 0});
        line.append(QPointF(x_of(share), area.bottom() - up * (area.height() - 1)));
    }
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::vermilion, 1.5));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(line);
    painter.setRenderHint(QPainter::Antialiasing, false);
    const int now = static_cast<int>(x_of(playing_.time() / document_.finish().length));
    painter.fillRect(QRect(now, area.top() - 2, 1, area.height() + 4), theme::text);
}

}  // namespace lacquer
