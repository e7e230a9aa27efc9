#include "desktop/kit/thumbnail.h"

#include <QPainter>

#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr double stale_opacity = 0.35;

}  // namespace

QRect fitted(const QSize& size, const QRect& frame) {
    const QSize within = size.scaled(frame.size(), Qt::KeepAspectRatio);
    return {frame.left() + (frame.width() - within.width()) / 2, frame.top() + (frame.height() - within.height()) / 2,
            within.width(), within.height()};
}

void paint_thumbnail(QPainter& painter, const QRect& frame, const QImage& image, const ThumbnailStyle& style) {
    painter.save();
    if (style.outlined) painter.fillRect(frame.adjusted(-1, -1, 1, 1), theme::hairline);
    painter.fillRect(frame, theme::black);
    if (!image.isNull()) {
        const QRect area = fitted(image.size(), frame);
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        if (style.clear && !style.stale) theme::paint_checker(painter, area);
        if (style.stale) painter.setOpacity(stale_opacity);
        painter.drawImage(area, style.stale ? image.convertToFormat(QImage::Format_Grayscale8) : image);
        painter.setOpacity(1);
        if (style.shown) {
            painter.setPen(QPen(theme::text, 1));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(frame.adjusted(-2, -2, 1, 1));
        }
    }
    painter.restore();
}

}  // namespace lacquer
