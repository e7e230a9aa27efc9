// What the lanes look like.
#include <QPainter>
#include <QScrollBar>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "desktop/document/document.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"
#include "desktop/rehearse/lanes_metrics.h"
#include "desktop/rehearse/lanes_view.h"

namespace lacquer {

using namespace lanes;

namespace {

// What is to come is fainter than what was.
QColor faded(QColor colour) {
    colour.setAlphaF(0.5F);
    return colour;
}

bool is_chosen(const TapeEvents& chosen, bool is_cue, std::size_t index) {
    return std::find(chosen.begin(), chosen.end(), TapeEvent{is_cue, index}) != chosen.end();
}

}  // namespace

void LanesView::paintEvent(QPaintEvent*) {
    QPainter painter(viewport());
    painter.fillRect(viewport()->rect(), theme::black);
    painter.setClipRect(viewport()->rect().adjusted(0, rule_height, 0, 0));
    for (const Lane& lane : lanes_) {
        if (area_of(lane).intersects(viewport()->rect())) paint_lane(painter, lane);
    }
    paint_traces(painter);
    if (drag_ == Drag::box) {
        painter.setPen(QPen(theme::gold, 1, Qt::DashLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRect(drag_from_, mouse_).normalized());
    }
    painter.setClipping(false);
    paint_rule(painter);
    paint_now(painter);
    if (hasFocus()) theme::paint_focus_line(painter, viewport()->rect());
}

void LanesView::paint_rule(QPainter& painter) const {
    painter.fillRect(QRect(0, 0, viewport()->width(), rule_height), theme::panel);
    painter.fillRect(QRect(0, rule_height - 1, viewport()->width(), 1), theme::hairline);
    const double end = document_.finish().length;
    if (playing_.loop_from() > 0 || playing_.loop_to() < end) {
        const int from = std::max(x_of(playing_.loop_from()), names_width);
        const int to = std::min(x_of(playing_.loop_to()), names_width + view_.width);
        painter.fillRect(QRect(from, rule_height - 5, std::max(0, to - from), 4), theme::celadon);
        theme::paint_text(painter, QRect(from + 3, 0, 60, 14), tr("loop"), theme::words(theme::tiny), theme::celadon);
    }
    const double step = tick_step(view_.to - view_.from, view_.width);
    for (double at = std::ceil(view_.from / step) * step; at <= view_.to + 1e-9; at += step) {
        const int x = x_of(at);
        painter.fillRect(QRect(x, rule_height - 6, 1, 6), theme::hairline);
        theme::paint_text(painter, QRect(x - 30, 3, 60, 14), qs(plain_number(at, 3)), theme::figures(theme::tiny),
                          theme::quiet, Qt::AlignHCenter);
    }
    const QString words = chosen_.empty() ? tr("seconds") : chosen_words();
    painter.fillRect(QRect(0, 0, chosen_.empty() ? names_width - 30 : 300, rule_height - 1), theme::panel);
    theme::paint_text(painter, QRect(14, 0, chosen_.empty() ? names_width - 44 : 286, rule_height), words,
                      theme::words(theme::small), chosen_.empty() ? theme::quiet : theme::gold);
}

void LanesView::paint_lane(QPainter& painter, const Lane& lane) const {
    const QRect area = area_of(lane);
    painter.fillRect(QRect(0, area.bottom(), viewport()->width(), 1), theme::grid);
    const double step = tick_step(view_.to - view_.from, view_.width);
    for (double at = std::ceil(view_.from / step) * step; at <= view_.to + 1e-9; at += step)
        painter.fillRect(QRect(x_of(at), area.top(), 1, area.height()), theme::faint_grid);
    const bool open = lane.height > closed_height;
    if (lane.kind == Kind::cues) {
        theme::paint_text(painter, QRect(14, area.top(), names_width - 20, area.height()), tr("cues"),
                          theme::words(theme::plain, true), theme::text);
        return paint_cues(painter, area);
    }
    const auto value = value_of(lane);
    const QString figures = value ? qs(plain_number(setting_from(*value)[0], 2)) : QString();
    const int figures_width = QFontMetrics(theme::figures(theme::small)).horizontalAdvance(figures) + 4;
    const QRect name(14, open ? area.center().y() - 17 : area.top(), names_width - 26 - figures_width,
                     open ? 18 : area.height());
    theme::paint_text(painter, name, qs(shown_name(lane.name)), theme::words(theme::plain, true),
                      lane.name == named_ ? theme::gold : theme::text);
    theme::paint_text(painter, QRect(name.right(), name.top(), figures_width, name.height()), figures,
                      theme::figures(theme::small), lane.kind == Kind::signal ? theme::celadon : theme::vermilion_text,
                      Qt::AlignRight);
    if (open)
        theme::paint_text(painter, name.translated(0, 17).adjusted(0, 0, figures_width, 0), words_of(lane),
                          theme::words(theme::small), theme::quiet);
    const auto trace = traces_.find(lane.name);
    if (trace != traces_.end()) {
        if (open && trace->second.moves() && lane.kind != Kind::signal) {
            const auto level = [&](float v, int y) {
                theme::paint_text(painter, QRect(names_width + 2, y, 60, 12),
                                  qs(plain_number(static_cast<double>(v), 3)), theme::figures(theme::tiny),
                                  theme::quiet);
            };
            level(trace->second.most, area.top() + 2);
            level(trace->second.least, area.bottom() - 14);
        }
    }
}

// The lines are drawn once for what was and once for what will be; as time runs, only the border between both moves.
void LanesView::paint_traces(QPainter& painter) {
    const QRect plot(names_width, rule_height, view_.width, viewport()->height() - rule_height);
    if (traces_are_stale_) {
        traces_are_stale_ = false;
        for (QPixmap* drawn : {&was_, &will_be_}) {
            *drawn = QPixmap(viewport()->size() * devicePixelRatioF());
            drawn->setDevicePixelRatio(devicePixelRatioF());
            drawn->fill(Qt::transparent);
            QPainter lines(drawn);
            lines.setClipRect(plot);
            for (const Lane& lane : lanes_) {
                const auto trace = traces_.find(lane.name);
                if (trace != traces_.end() && lane.kind != Kind::cues)
                    paint_trace(lines, lane, trace->second, drawn == &will_be_);
            }
        }
    }
    const int now = static_cast<int>(std::clamp<double>(view_.x_of(playing_.time()), names_width, plot.right() + 1));
    painter.save();
    painter.setClipRect(QRect(names_width, rule_height, now - names_width, plot.height()));
    painter.drawPixmap(0, 0, was_);
    painter.setClipRect(QRect(now, rule_height, plot.right() + 1 - now, plot.height()));
    painter.drawPixmap(0, 0, will_be_);
    painter.setClipRect(plot);
    for (const Lane& lane : lanes_) {
        if (lane.kind == Kind::signal) paint_changes(painter, lane, area_of(lane));
    }
    painter.restore();
}

void LanesView::paint_trace(QPainter& painter, const Lane& lane, const LaneTrace& trace, bool faint) const {
    const QColor colour = lane.kind == Kind::signal ? theme::celadon : theme::vermilion;
    const bool smooth = !is_quick();
    painter.setRenderHint(QPainter::Antialiasing, smooth);
    for (std::size_t part = 0; part < trace.lines.size(); ++part) {
        const std::vector<float>& line = trace.lines[part];
        QPolygonF points;
        for (std::size_t i = 0; i < line.size(); ++i) {
            if (!std::isfinite(line[i])) continue;
            points.append({view_.left + static_cast<double>(i) / static_cast<double>(line.size() - 1) * view_.width,
                           level_y(lane, trace, static_cast<double>(line[i]))});
        }
        painter.setPen(
            QPen(faint ? faded(colour) : colour, smooth ? 1.5 : 1.0, part == 0 ? Qt::SolidLine : Qt::DashLine));
        painter.drawPolyline(points);
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
}

void LanesView::paint_changes(QPainter& painter, const Lane& lane, const QRect& area) const {
    const Changes& changes = document_.finish().tape.changes;
    const auto trace = traces_.find(lane.name);
    if (trace == traces_.end()) return;
    for (std::size_t i = 0; i < changes.size(); ++i) {
        if (changes[i].name != lane.name || changes[i].at < view_.from || changes[i].at > view_.to) continue;
        const bool chosen = is_chosen(chosen_, false, i);
        const int x = x_of(changes[i].at);
        const int y = static_cast<int>(level_y(lane, trace->second, changes[i].value[0]));
        painter.fillRect(QRect(x - 3, std::clamp(y - 3, area.top(), area.bottom() - 6), 7, 7),
                         chosen ? theme::gold : theme::celadon);
    }
}

void LanesView::paint_cues(QPainter& painter, const QRect& area) const {
    painter.save();
    painter.setClipRect(area.adjusted(names_width - 2, 0, -right_margin + 14, 0), Qt::IntersectClip);
    painter.setRenderHint(QPainter::Antialiasing);
    const Cues& live = playing_.played().cues;
    const Cues& tape = document_.finish().tape.cues;
    const double now = playing_.time();
    int free_from = -1000;  // where the next words may begin
    std::size_t on_tape = 0;
    int last_x = -1000;
    for (std::size_t i = 0; i < live.size(); ++i) {
        const Cue& cue = live[i];
        // Those that are only live stand among those of the tape, in the same order.
        const bool taped = on_tape < tape.size() && tape[on_tape] == cue;
        const std::size_t index = on_tape;
        if (taped) ++on_tape;
        if (cue.at < view_.from || cue.at > view_.to) continue;
        const int x = x_of(cue.at);
        const bool chosen = taped && is_chosen(chosen_, true, index);
        // Of thousands, one a pixel is enough.
        if (x == last_x && !chosen) continue;
        last_x = x;
        const double size = 7 + 9 * cue.strength;
        const QPointF foot(x, area.bottom() - 5);
        const QPolygonF flag({foot, foot - QPointF(0, flag_height + 8),
                              foot + QPointF(size, -flag_height - 8 + size / 3),
                              foot + QPointF(0, -flag_height - 8 + 2 * size / 3)});
        painter.setPen(QPen(chosen ? theme::gold : theme::vermilion, chosen ? 2 : 1));
        painter.setBrush(!taped ? Qt::NoBrush : QBrush(cue.at <= now ? theme::vermilion : faded(theme::vermilion)));
        painter.drawPolygon(flag);
        const QString words = qs(shown_name(cue.name) + " " + plain_number(cue.strength, 2));
        const int width = QFontMetrics(theme::words(theme::small)).horizontalAdvance(words) + 6;
        // Words that the next flag would stand on are left out.
        const int end = x + static_cast<int>(size) + 4 + width;
        const bool crowded = i + 1 < live.size() && x_of(live[i + 1].at) < end - 4;
        if (x < free_from || (crowded && !chosen)) continue;
        painter.setRenderHint(QPainter::Antialiasing, false);
        theme::paint_text(painter, QRect(x + static_cast<int>(size) + 4, area.top() + 6, width, 14), words,
                          theme::words(theme::small), chosen ? theme::gold : theme::quiet);
        painter.setRenderHint(QPainter::Antialiasing);
        free_from = x + static_cast<int>(size) + width + 4;
    }
    painter.restore();
}

void LanesView::paint_now(QPainter& painter) const {
    const double time = playing_.time();
    if (time < view_.from - 1e-9 || time > view_.to + 1e-9) return;
    const int x = x_of(time);
    painter.fillRect(QRect(x, 0, 2, viewport()->height()), theme::text);
    const QString words = QString::number(time, 'f', 2) + tr(" s");
    const int width = QFontMetrics(theme::figures(theme::small)).horizontalAdvance(words) + 8;
    const int left = x + 4 + width > viewport()->width() ? x - 2 - width : x + 4;
    painter.fillRect(QRect(left, 2, width, 16), theme::panel);
    theme::paint_text(painter, QRect(left + 3, 2, width, 16), words, theme::figures(theme::small), theme::text);
}

}  // namespace lacquer
