// The stage by keyboard: what mouse and wheel do there, arrows, Enter, + and - do, too.
#include <QKeyEvent>
#include <algorithm>
#include <cmath>

#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/transect_view.h"

namespace lacquer {

namespace {

constexpr int far = 10;                // pixels with Shift
constexpr double curtain_step = 0.01;  // share of the picture
constexpr double orbit_degrees = 2;
constexpr double move_share = 0.02;  // of the picture's height
constexpr double nearer = 0.9;
constexpr double pan_share = 0.1;  // of what is in view

QPoint held_to(QPoint pixel, QSize frame) {
    return {std::clamp(pixel.x(), 0, frame.width() - 1), std::clamp(pixel.y(), 0, frame.height() - 1)};
}

}  // namespace

// The pixel that the keys point at.
QPoint StageView::pointed() const {
    const QSize size = frame().frame;
    return core_ ? *core_ : QPoint(size.width() / 2, size.height() / 2);
}

// False if there is nothing here that arrows move.
bool StageView::move_by_key(QPoint by) {
    const StageFrame now = frame();
    if (tool_core_ || tool_pick_ || !marks_.empty()) {
        core_ = held_to(pointed() + by, now.frame);
        core_held_ = tool_core_;
        ask_values();
    } else if (tool_camera_) {
        const bool sideways = std::abs(by.x()) >= far || std::abs(by.y()) >= far;
        const QPointF way(by.x() > 0 ? 1 : by.x() < 0 ? -1 : 0, by.y() > 0 ? 1 : by.y() < 0 ? -1 : 0);
        sideways ? move_camera(way.x() * move_share, -way.y() * move_share)
                 : orbit_camera(way.x() * orbit_degrees, -way.y() * orbit_degrees);
    } else if (transect_->isVisible() && line_) {
        QPointF& end = drags_second_end_ ? line_->second : line_->first;
        end = QPointF(held_to((end + by).toPoint(), now.frame));
        ask_values();
    } else if (drawing_.look().curtain && by.x() != 0) {
        Look look = drawing_.look();
        look.curtain_at = std::clamp(look.curtain_at + by.x() * curtain_step, 0.0, 1.0);
        drawing_.set_look(std::move(look));
    } else if (zoom_ > 0) {
        const QPointF share(now.room.width() / now.area().width(), now.room.height() / now.area().height());
        const double pace = std::max(std::abs(by.x()), std::abs(by.y())) >= far ? 1 : pan_share;
        centre_.rx() = std::clamp(centre_.x() + (by.x() > 0 ? 1 : by.x() < 0 ? -1 : 0) * share.x() * pace, 0.0, 1.0);
        centre_.ry() = std::clamp(centre_.y() + (by.y() > 0 ? 1 : by.y() < 0 ? -1 : 0) * share.y() * pace, 0.0, 1.0);
    } else {
        return false;
    }
    update();
    return true;
}

// What a click would do at the place that the keys point at.
bool StageView::take_by_key() {
    if (tool_pick_) {
        take_colour(pointed());
    } else if (!marks_.empty()) {
        core_ = pick_ = pointed();
        ask_values();
        take_pick();
    } else if (tool_core_) {
        core_held_ = !core_held_;
    } else if (transect_->isVisible()) {
        drags_second_end_ = !drags_second_end_;
        document_.say(drags_second_end_ ? tr("Arrows move the line's end") : tr("Arrows move the line's beginning"));
    } else if (rehearses_) {
        if (document_.finish().cues.empty()) return false;
        touch(pointed());
    } else {
        return false;
    }
    update();
    return true;
}

void StageView::keyPressEvent(QKeyEvent* event) {
    const int step = event->modifiers().testFlag(Qt::ShiftModifier) ? far : 1;
    bool taken = false;
    switch (event->key()) {
        case Qt::Key_Left:
            taken = move_by_key({-step, 0});
            break;
        case Qt::Key_Right:
            taken = move_by_key({step, 0});
            break;
        case Qt::Key_Up:
            taken = move_by_key({0, -step});
            break;
        case Qt::Key_Down:
            taken = move_by_key({0, step});
            break;
        case Qt::Key_Return:
        case Qt::Key_Enter:
            taken = take_by_key();
            break;
        case Qt::Key_Plus:
        case Qt::Key_Equal:
        case Qt::Key_Minus: {
            const bool larger = event->key() != Qt::Key_Minus;
            tool_camera_ ? dolly_camera(larger ? nearer : 1 / nearer) : zoom(larger ? 1 : -1);
            taken = true;
            break;
        }
        default:
            break;
    }
    if (!taken) QWidget::keyPressEvent(event);
}

}  // namespace lacquer
