// A value that changes at moments and stays in between.
#pragma once

#include <cstddef>
#include <vector>

#include "core/drive/played.h"

namespace lacquer {

/// Piecewise constant over time, from 0 s on; before 0 it is what it begins with.
class Track {
public:
    explicit Track(double from_the_start = 0);

    /// The value from `at` (seconds, no earlier than the last one) on.
    void change(double at, double value);

    double value(double time) const { return pieces_[piece(time)].value; }
    /// The integral from 0 to `time`, exact but for rounding; negative before 0.
    double integral(double time) const { return lq_track_integral(&pieces_[piece(time)], time); }
    /// The moments at which it changes, the first being 0.
    const std::vector<double>& moments() const { return at_; }

private:
    std::size_t piece(double time) const;
    std::vector<double> at_{0};
    std::vector<played::lq_track> pieces_;
};

/// All moments of both, in order, each once.
std::vector<double> moments_of(const Track& a, const Track& b);

}  // namespace lacquer
