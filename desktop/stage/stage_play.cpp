// The stage in rehearsal: clicks that play cues, places that are dragged, zones, and the path of a jolt.
#include <QPainter>
#include <algorithm>
#include <cmath>
#include <utility>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "desktop/document/document.h"
#include "desktop/document/ground_adding.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/theme.h"
#include "desktop/playing/playing.h"
#include "desktop/stage/stage_view.h"

namespace lacquer {

namespace {

constexpr double place_reach = 14;    // screen pixels about a place
constexpr double jolt_behind = 0.35;  // seconds of its path that are seen
constexpr int jolt_points = 40;

}  // namespace

void StageView::set_rehearses(bool rehearses) {
    rehearses_ = rehearses;
    touch_.reset();
    unsetCursor();
    update();
}

QPoint StageView::place_point(const std::string& signal) const {
    const Signal* found = find_signal(document_.finish(), signal);
    if (found == nullptr) return {};
    const auto at = playing_.signal_now(*found);
    const QRectF area = frame().area();
    return QPointF(area.left() + at[0] * area.width(), area.top() + at[1] * area.height()).toPoint();
}

std::string StageView::place_near(QPointF screen) const {
    if (!rehearses_) return {};
    for (const Signal& signal : document_.finish().signals) {
        if (signal.kind != SignalKind::place) continue;
        const QPointF away = QPointF(place_point(signal.name)) - screen;
        if (std::hypot(away.x(), away.y()) <= place_reach) return signal.name;
    }
    return {};
}

// A place is taken hold of, else the chosen cue is played here. False if there is neither.
bool StageView::press_play(QPoint pixel) {
    dragged_place_ = place_near(mouse_);
    if (!dragged_place_.empty()) {
        dragging_ = Dragging::place;
        document_.set_interacting(true);
        return true;
    }
    if (document_.finish().cues.empty()) return false;
    touch(pixel);
    return true;
}

void StageView::touch(QPoint pixel) {
    touch_ = Touch{pixel, playing_.time()};
    core_ = pixel;
    ask_values();
    take_touch();
}

// A cue in a scene waits for the object that was touched; it comes when it was pressed all the same.
void StageView::take_touch() {
    if (!touch_) return;
    const Ground* scene = first_scene(document_.finish());
    int object = 0;
    if (scene != nullptr) {
        const Probe& probe = drawing_.probe();
        const DrawnStep* ids = probe.find(scene->name + "_id");
        if (ids == nullptr || ids->picture.width < 1 || probe.points.empty()) return;
        if (probe.points.front().x != touch_->pixel.x() || probe.points.front().y != touch_->pixel.y()) return;
        object = static_cast<int>(std::lround(ids->picture.at(0, 0)[0]));
    }
    const Touch touch = *std::exchange(touch_, std::nullopt);
    if (!tool_core_ && marks_.empty()) {
        core_.reset();
        ask_values();
    }
    const Finish& finish = document_.finish();
    const CueKind* cue = find_cue(finish, playing_.chosen_cues().one());
    if (cue == nullptr && !finish.cues.empty()) cue = &finish.cues.front();
    if (cue == nullptr) return;
    const QSize size = drawing_.looked_frame();
    playing_.press_pad(CueKind(*cue), touch.at, (touch.pixel.x() + 0.5) / size.width(),
                       (touch.pixel.y() + 0.5) / size.height(), object);
}

void StageView::drag_place() {
    const QRectF area = frame().area();
    playing_.set_signal(dragged_place_,
                        {(mouse_.x() - area.left()) / area.width(), (mouse_.y() - area.top()) / area.height(), 0});
}

void StageView::paint_play(QPainter& painter) const {
    const Finish& finish = document_.finish();
    const QRectF area = frame().area();
    painter.save();
    painter.setClipRect(area, Qt::IntersectClip);
    painter.setRenderHint(QPainter::Antialiasing);
    const double shorter = std::min(area.width(), area.height());
    for (const Signal& signal : finish.signals) {
        if (signal.zone.of.empty()) continue;
        const bool on = playing_.signal_now(signal)[0] != 0;
        const QPointF middle(area.left() + signal.zone.x * area.width(), area.top() + signal.zone.y * area.height());
        const double radius = signal.zone.radius * shorter;
        painter.setBrush(on ? theme::faint(theme::celadon) : Qt::NoBrush);
        painter.setPen(QPen(on ? theme::celadon : theme::quiet, 1, Qt::DashLine));
        painter.drawEllipse(middle, radius, radius);
        theme::paint_text(painter, QRectF(middle.x() - 60, middle.y() - radius + 2, 120, 16).toRect(),
                          qs(shown_name(signal.name)) + (on ? tr(" · on") : QString()), theme::words(theme::small),
                          on ? theme::celadon : theme::text, Qt::AlignHCenter);
    }
    for (const Signal& signal : finish.signals) {
        if (signal.kind != SignalKind::place) continue;
        const QPointF at(place_point(signal.name));
        painter.setPen(QPen(theme::black, 3));
        painter.setBrush(theme::gold);
        painter.drawEllipse(at, 6, 6);
        painter.setPen(QPen(theme::gold, 1));
        painter.drawLine(at - QPointF(12, 0), at + QPointF(12, 0));
        painter.drawLine(at - QPointF(0, 12), at + QPointF(0, 12));
        theme::paint_text(painter, QRectF(at.x() + 12, at.y() - 18, 120, 16).toRect(), qs(shown_name(signal.name)),
                          theme::words(theme::small), theme::text);
    }
    for (const Response& response : finish.responses) {
        if (response.kind == "jolt") paint_jolt(painter, response.name);
    }
    painter.restore();
}

// Where the view goes, in pixels of the frame about its middle: behind it what was.
void StageView::paint_jolt(QPainter& painter, const std::string& response) const {
    const double now = playing_.time();
    if (playing_.play().answer(response, now).presence <= 0) return;
    const QRectF area = frame().area();
    const double scale = frame().scale();
    QPointF before;
    for (int i = 0; i <= jolt_points; ++i) {
        const double at = now - jolt_behind * (jolt_points - i) / jolt_points;
        const Answer answer = playing_.play().answer(response, std::max(at, 0.0));
        const QPointF place = area.center() + QPointF(answer.value[0], answer.value[1]) * scale;
        if (i > 0) {
            QColor colour = theme::vermilion_text;
            colour.setAlphaF(static_cast<float>(i) / jolt_points);
            painter.setPen(QPen(colour, 1.5));
            painter.drawLine(before, place);
        }
        before = place;
    }
    painter.setPen(QPen(theme::black, 1));
    painter.setBrush(theme::vermilion_text);
    painter.drawEllipse(before, 4, 4);
}

}  // namespace lacquer
