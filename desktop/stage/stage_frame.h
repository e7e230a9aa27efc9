// Where a picture's pixels stand on the stage.
#pragma once

#include <QPoint>
#include <QRectF>
#include <QSize>

namespace lacquer {

/// A picture of `frame` pixels in `room`: fitted into it, or with `zoom` device pixels to a picture pixel and the
/// picture's `centre` (0 to 1 each way) in the middle. Places and sizes are in the view's own pixels, each of which is
/// `ratio` device pixels wide; the picture begins and ends on whole device pixels.
struct StageFrame {
    QRect room;
    QSize frame{1, 1};
    double zoom = 0;  ///< 0 fits
    QPointF centre{0.5, 0.5};
    double ratio = 1;

    /// The view's pixels to a picture pixel.
    double scale() const;
    /// Device pixels to a picture pixel.
    double device_scale() const { return scale() * ratio; }
    /// The picture's size in device pixels.
    QSize device_size() const;
    /// Where the whole picture stands; may be larger than the room.
    QRectF area() const;
    /// The place of the picture, in its pixels, at a place of the screen; may lie outside it.
    QPointF to_picture(QPointF screen) const;
    QPointF to_screen(QPointF picture) const;
    /// The same with another zoom, in device pixels to a picture pixel, so that what is at `screen` stays there.
    StageFrame zoomed(double to, QPointF screen) const;
};

/// The next rung of 1/8 ... 64 up or down from a scale.
double next_zoom(double scale, int direction);

}  // namespace lacquer
