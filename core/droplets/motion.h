// Where a drop is: closed forms of its age.
#pragma once

#include <cstdint>
#include <vector>

#include "core/drive/track.h"

namespace lacquer {

/// Two numbers, in shorter sides of the frame, or as many a second.
struct Vector2 {
    double x = 0;
    double y = 0;
    friend bool operator==(const Vector2&, const Vector2&) = default;
};

/// What the air does to a drop over an age: `velocity = speed * keeps + fall * gains`, `way = speed * gains + fall *
/// falls`. With drag k: keeps e^(-k a), gains (1 - keeps) / k, falls (a - gains) / k; without it 1, a and a^2 / 2,
/// which are their limits. Source: linear drag, any textbook of mechanics.
struct Drag {
    double keeps = 1;
    double gains = 0;
    double falls = 0;
};

/// `drag` a second, `age` in seconds; both 0 or more.
Drag drag_over(double drag, double age);

/// A wind that changes at moments, in one direction, and what it does to whatever it has blown on since then.
class Wind {
public:
    Wind(Track speed, double drag);

    /// How far it has carried from `birth` to `time`, in seconds; nothing without drag.
    double way(double birth, double time) const;
    /// The speed that it has given.
    double velocity(double birth, double time) const;
    bool is_still() const { return still_; }

private:
    double trailing(double time) const;
    double given(double birth, double time) const;

    Track speed_;
    double drag_;
    bool still_;
    std::vector<double> at_moments_;  // `trailing` at each of the track's moments
};

/// Smooth noise along time, -1..1, another for each `key`; it has the value 0 at whole numbers and is smooth to its
/// second derivative. Source: Perlin 2002, in one dimension.
double gust_noise(std::uint32_t key, double time);

/// Falls under a constant pull onto a line at `floor` and leaps up again with a share of its speed, which its way along
/// the line loses, too. Heights grow downwards; `from` is above the floor.
struct Bounced {
    Vector2 way;       ///< from where it began
    Vector2 velocity;  ///< 0 once it rests
};
Bounced bounced(Vector2 speed, double fall, double height, double share, double age);

}  // namespace lacquer
