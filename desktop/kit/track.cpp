#include "desktop/kit/track.h"

#include <QPainter>
#include <algorithm>

#include "desktop/kit/theme.h"

namespace lacquer {

namespace {

constexpr int groove_height = 4;
constexpr int handle_width = 5;

}  // namespace

QRect groove_of(const QRect& track) { return {track.left(), track.center().y() - 1, track.width(), groove_height}; }

void paint_track(QPainter& painter, const QRect& track, double share, const std::optional<QColor>& filled,
                 bool handle) {
    const QRect groove = groove_of(track);
    painter.fillRect(groove, theme::black);
    const int x = place_of_share(track, share);
    if (filled) painter.fillRect(QRect(groove.left(), groove.top(), x - groove.left(), groove_height), *filled);
    if (handle) painter.fillRect(QRect(x - handle_width / 2, track.top(), handle_width, track.height()), theme::text);
}

double share_at(const QRect& track, int x) {
    return std::clamp(static_cast<double>(x - track.left()) / std::max(1, track.width() - 1), 0.0, 1.0);
}

int place_of_share(const QRect& track, double share) {
    return track.left() + static_cast<int>(std::clamp(share, 0.0, 1.0) * (track.width() - 1));
}

double pace_of(Qt::KeyboardModifiers modifiers) {
    if (modifiers.testFlag(Qt::ShiftModifier)) return 0.1;
    return modifiers.testFlag(Qt::ControlModifier) ? 10 : 1;
}

}  // namespace lacquer
