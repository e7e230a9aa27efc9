// A track with a handle on it, as it looks everywhere, and how a hand moves along it.
#pragma once

#include <QRect>
#include <optional>

class QColor;
class QPainter;

namespace lacquer {

/// The groove of a track, in its middle.
QRect groove_of(const QRect& track);

/// Paints the groove, filled up to `share` (0..1) where there is a colour, with a handle there if it has one.
void paint_track(QPainter& painter, const QRect& track, double share, const std::optional<QColor>& filled,
                 bool handle = true);

/// The share of a track at a place across it, in pixels; within 0..1.
double share_at(const QRect& track, int x);

/// Where a share stands, in pixels.
int place_of_share(const QRect& track, double share);

/// How far a hand or a key goes: a tenth with Shift, ten times with Ctrl, else 1.
double pace_of(Qt::KeyboardModifiers modifiers);

}  // namespace lacquer
