// A small picture in its frame, as it looks everywhere.
#pragma once

#include <QImage>
#include <QRect>

class QPainter;

namespace lacquer {

struct ThumbnailStyle {
    bool clear = false;     ///< it has opacity: a checker lies behind it
    bool stale = false;     ///< grey and faint, for what could not be drawn anew
    bool outlined = false;  ///< with a hairline round the frame
    bool shown = false;     ///< it is what the stage shows
};

/// Fits the picture into the frame and centres it there; an empty frame if there is none yet.
void paint_thumbnail(QPainter& painter, const QRect& frame, const QImage& image, const ThumbnailStyle& style = {});

/// Where a picture of that size stands in the frame.
QRect fitted(const QSize& size, const QRect& frame);

}  // namespace lacquer
