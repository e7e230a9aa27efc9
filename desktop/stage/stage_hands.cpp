// What mouse and wheel do on the stage.
#include <QClipboard>
#include <QContextMenuEvent>
#include <QGuiApplication>
#include <QMenu>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/colour_text.h"
#include "desktop/document/document.h"
#include "desktop/drawing/drawing.h"
#include "desktop/kit/theme.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/transect_view.h"

namespace lacquer {

namespace {

constexpr double near_by = 7;  // screen pixels

bool is_near(QPointF a, QPointF b) { return std::hypot(a.x() - b.x(), a.y() - b.y()) <= near_by; }

}  // namespace

void StageView::take_colour(QPoint pixel) {
    const auto& values = drawing_.stage().values;
    if (values == nullptr) return document_.say(tr("The picture is still being drawn: click once more"));
    tool_pick_ = false;
    unsetCursor();
    const int x = pixel.x() * values->width / frame().frame.width();
    const int y = pixel.y() * values->height / frame().frame.height();
    const float* at = values->at(std::min(x, values->width - 1), std::min(y, values->height - 1));
    const bool grey = values->channels < 3;
    const std::array<double, 3> colour = {at[0], grey ? at[0] : at[1], grey ? at[0] : at[2]};
    const double luminance = 0.2126 * colour[0] + 0.7152 * colour[1] + 0.0722 * colour[2];
    QGuiApplication::clipboard()->setText(qs(colour_text(colour)));
    document_.say(tr("Copied %1 · brightness %2").arg(qs(colour_text(colour)), qs(plain_number(luminance, 3))));
    emit picked(colour[0], colour[1], colour[2]);
}

void StageView::contextMenuEvent(QContextMenuEvent* event) {
    // In the camera's hand the right button moves it.
    if (menu_ != nullptr && !tool_camera_ && !shows_nothing()) menu_->popup(event->globalPos());
}

void StageView::mousePressEvent(QMouseEvent* event) {
    mouse_ = event->position();
    if (event->button() == Qt::RightButton && !tool_camera_) return;
    for (const Pill& pill : std::as_const(pills_)) {
        if (pill.area.contains(event->pos())) return (this->*pill.press)();
    }
    const auto pixel = pixel_at(mouse_);
    if (tool_pick_ && pixel) {
        return take_colour(*pixel);
    }
    drag_from_ = mouse_;
    centre_from_ = centre_;
    if (event->button() == Qt::MiddleButton) {
        dragging_ = Dragging::picture;
        return;
    }
    if (drawing_.look().curtain && std::fabs(mouse_.x() - curtain_x()) <= near_by) {
        dragging_ = Dragging::curtain;
        return;
    }
    if (tool_camera_ && pixel) {
        dragging_ = Dragging::camera;
        document_.set_interacting(true);
        return;
    }
    if (!marks_.empty() && pixel) {
        pick_ = pixel;
        core_ = pixel;
        ask_values();
        return take_pick();
    }
    if (tool_core_ && pixel) {
        core_ = pixel;
        core_held_ = !core_held_;
        document_.say(core_held_ ? tr("Held at %1, %2; click again to let go").arg(pixel->x()).arg(pixel->y())
                                 : tr("The core sample follows the mouse"));
        ask_values();
        return update();
    }
    if (transect_->isVisible() && line_) {
        const StageFrame now = frame();
        const bool first = is_near(now.to_screen(line_->first), mouse_);
        const bool second = is_near(now.to_screen(line_->second), mouse_);
        dragging_ = first || second ? Dragging::line_end : Dragging::line;
        drags_second_end_ = !first;
        if (dragging_ == Dragging::line) line_ = {now.to_picture(mouse_), now.to_picture(mouse_)};
        return;
    }
    if (event->button() == Qt::LeftButton && press_droplets()) return;
    if (rehearses_ && pixel && event->button() == Qt::LeftButton && press_play(*pixel)) return;
    if (zoom_ > 0) dragging_ = Dragging::picture;
}

void StageView::mouseMoveEvent(QMouseEvent* event) {
    mouse_ = event->position();
    const StageFrame now = frame();
    switch (dragging_) {
        case Dragging::picture: {
            if (zoom_ <= 0) break;
            const QPointF moved = (mouse_ - drag_from_) / now.scale();
            centre_ = centre_from_ - QPointF(moved.x() / now.frame.width(), moved.y() / now.frame.height());
            break;
        }
        case Dragging::curtain: {
            Look look = drawing_.look();
            look.curtain_at = std::clamp((mouse_.x() - now.area().left()) / now.area().width(), 0.0, 1.0);
            drawing_.set_look(std::move(look));
            break;
        }
        case Dragging::line:
        case Dragging::line_end: {
            QPointF at = now.to_picture(mouse_);
            at = {std::clamp(at.x(), 0.0, now.frame.width() - 1.0), std::clamp(at.y(), 0.0, now.frame.height() - 1.0)};
            const bool straight = (event->modifiers() & Qt::ShiftModifier) != 0;
            const QPointF other = drags_second_end_ || dragging_ == Dragging::line ? line_->first : line_->second;
            if (straight && std::fabs(at.x() - other.x()) > std::fabs(at.y() - other.y())) at.setY(other.y());
            if (straight && std::fabs(at.x() - other.x()) <= std::fabs(at.y() - other.y())) at.setX(other.x());
            (drags_second_end_ || dragging_ == Dragging::line ? line_->second : line_->first) = at;
            ask_values();
            break;
        }
        case Dragging::camera:
            drag_camera(event);
            break;
        case Dragging::place:
            drag_place();
            break;
        case Dragging::droplets:
            drag_droplets();
            break;
        case Dragging::nothing: {
            const bool curtain = drawing_.look().curtain && std::fabs(mouse_.x() - curtain_x()) <= near_by;
            if (!tool_pick_)
                setCursor(curtain                                                     ? Qt::SplitHCursor
                          : tool_core_ || !marks_.empty()                             ? Qt::CrossCursor
                          : tool_camera_                                              ? Qt::SizeAllCursor
                          : !place_near(mouse_).empty() || droplets_hand_near(mouse_) ? Qt::OpenHandCursor
                                                                                      : Qt::ArrowCursor);
            const auto pixel = pixel_at(mouse_);
            if ((tool_core_ || !marks_.empty()) && !core_held_ && pixel && pixel != core_) {
                core_ = pixel;
                ask_values();
            }
            break;
        }
    }
    update();
}

void StageView::mouseReleaseEvent(QMouseEvent*) {
    if (dragging_ == Dragging::line && line_ && is_near(line_->first, line_->second)) {
        // A click is no line: back to one across the picture.
        const QSize size = frame().frame;
        line_ = {QPointF(0, line_->first.y()), QPointF(size.width() - 1.0, line_->first.y())};
        ask_values();
    }
    if (dragging_ == Dragging::camera || dragging_ == Dragging::place) document_.set_interacting(false);
    if (dragging_ == Dragging::droplets) {
        document_.set_interacting(false);
        document_.seal_edit();
    }
    dragging_ = Dragging::nothing;
    update();
}

void StageView::wheelEvent(QWheelEvent* event) {
    if (shows_nothing() || event->angleDelta().y() == 0) return;
    mouse_ = event->position();
    event->accept();
    if (tool_camera_) return dolly_camera(std::pow(2.0, -event->angleDelta().y() / 960.0));
    const StageFrame now = frame();
    const StageFrame next = now.zoomed(now.device_scale() * std::pow(2.0, event->angleDelta().y() / 480.0), mouse_);
    zoom_ = next.zoom;
    centre_ = next.centre;
    update();
}

void StageView::leaveEvent(QEvent*) { update(); }

}  // namespace lacquer
