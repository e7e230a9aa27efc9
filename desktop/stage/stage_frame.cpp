#include "desktop/stage/stage_frame.h"

#include <algorithm>
#include <cmath>

namespace lacquer {

double StageFrame::scale() const {
    if (zoom > 0) return zoom / ratio;
    return std::min(static_cast<double>(room.width()) / frame.width(),
                    static_cast<double>(room.height()) / frame.height());
}

QSize StageFrame::device_size() const {
    const double s = device_scale();
    return {std::max(1, static_cast<int>(std::lround(frame.width() * s))),
            std::max(1, static_cast<int>(std::lround(frame.height() * s)))};
}

QRectF StageFrame::area() const {
    const QSizeF size = QSizeF(device_size()) / ratio;
    const QPointF middle = QRectF(room).center();
    const QPointF at = zoom > 0 ? centre : QPointF(0.5, 0.5);
    // On whole device pixels, so that 1:1 is exactly that.
    const auto whole = [this](double v) { return std::round(v * ratio) / ratio; };
    return {whole(middle.x() - at.x() * size.width()), whole(middle.y() - at.y() * size.height()), size.width(),
            size.height()};
}

QPointF StageFrame::to_picture(QPointF screen) const { return (screen - area().topLeft()) / scale(); }

QPointF StageFrame::to_screen(QPointF picture) const { return area().topLeft() + picture * scale(); }

StageFrame StageFrame::zoomed(double to, QPointF screen) const {
    const QPointF held = to_picture(screen);
    StageFrame next = *this;
    next.zoom = std::clamp(to, 1.0 / 16, 64.0);
    const QPointF middle = held - (screen - QRectF(room).center()) / next.scale();
    next.centre = {middle.x() / frame.width(), middle.y() / frame.height()};
    return next;
}

double next_zoom(double scale, int direction) {
    double rung =
        std::pow(2.0, direction > 0 ? std::floor(std::log2(scale) + 1e-6) + 1 : std::ceil(std::log2(scale) - 1e-6) - 1);
    return std::clamp(rung, 1.0 / 8, 64.0);
}

}  // namespace lacquer
