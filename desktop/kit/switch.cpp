#include "desktop/kit/switch.h"

#include <QPainter>

#include "desktop/kit/theme.h"

namespace lacquer {

void paint_switch(QPainter& painter, QPoint at, bool on) {
    const QRect area(at, QSize(switch_width, switch_height));
    constexpr int knob = 10;
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(on ? theme::faint(theme::celadon) : theme::hairline);
    painter.drawRoundedRect(area, switch_height / 2.0, switch_height / 2.0);
    painter.setBrush(on ? theme::celadon : theme::quiet);
    painter.drawEllipse(QRect(on ? area.right() - knob : area.left() + 1, area.top() + 1, knob, knob));
    painter.restore();
}

}  // namespace lacquer
