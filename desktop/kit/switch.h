// A switch, as it looks everywhere.
#pragma once

#include <QRect>

class QPainter;

namespace lacquer {

/// Its width and height in pixels.
inline constexpr int switch_width = 24;
inline constexpr int switch_height = 12;

/// Paints it with its top left corner there.
void paint_switch(QPainter& painter, QPoint at, bool on);

}  // namespace lacquer
