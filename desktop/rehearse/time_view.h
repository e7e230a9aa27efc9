// The part of time that is in view, between pixels and seconds.
#pragma once

#include <QRect>
#include <algorithm>
#include <cmath>

namespace lacquer {

struct TimeView {
    double from = 0;  ///< seconds at the left border
    double to = 6;
    int left = 0;  ///< pixels
    int width = 1;

    double time_at(double x) const { return from + (x - left) / width * (to - from); }
    double x_of(double time) const { return left + (time - from) / (to - from) * width; }
    double seconds(double pixels) const { return pixels / width * (to - from); }

    /// Another stretch of time about the one under `x`, within 0..length; `factor` below 1 shows less of it, larger.
    void zoom(double factor, double x, double length) {
        constexpr double shortest = 0.02;
        const double about = time_at(x);
        const double span = std::clamp((to - from) * factor, std::min(shortest, length), length);
        from = std::clamp(about - (about - from) / (to - from) * span, 0.0, length - span);
        to = from + span;
    }
    void pan(double seconds_on, double length) {
        const double span = to - from;
        from = std::clamp(from + seconds_on, 0.0, std::max(0.0, length - span));
        to = from + span;
    }
    void show_all(double length) {
        from = 0;
        to = length;
    }
    bool shows_all(double length) const { return from <= 0 && to >= length; }
};

/// Seconds between ticks, so that they stand `least_pixels` apart at least.
inline double tick_step(double seconds, int pixels, double least_pixels = 60) {
    const double least = seconds * least_pixels / std::max(pixels, 1);
    for (const double step :
         {0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 30.0, 60.0, 300.0}) {
        if (step >= least) return step;
    }
    return 600;
}

}  // namespace lacquer
