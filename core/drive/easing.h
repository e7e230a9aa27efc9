// How a change is spread over its time.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace lacquer {

/// A curve from (0, 0) to (1, 1). Source of all: W3C CSS Easing Functions Level 1, cubic Bezier curves with the inner
/// points (x1, y1) and (x2, y2); x1 and x2 lie in 0..1.
struct Easing {
    double x1 = 0;
    double y1 = 0;
    double x2 = 1;
    double y2 = 1;

    /// The share of the change that is done after the share `t` of the time; `t` is held to 0..1.
    double operator()(double t) const;
};

/// The named curves: linear, ease, ease_in, ease_out, ease_in_out.
std::optional<Easing> easing_named(std::string_view name);

/// All names, in the order in which they are offered.
const std::vector<std::string>& easing_names();

}  // namespace lacquer
