// How a change is spread over its time.
#pragma once

#include <array>
#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/base/result.h"
#include "core/drive/played.h"

namespace lacquer {

/// A cubic Bezier curve from (0, 0) to (1, 1) with the inner points (x1, y1) and (x2, y2); x1 and x2 lie in 0..1.
/// Source: W3C CSS Easing Functions Level 1.
struct BezierEasing {
    double x1 = 0;
    double y1 = 0;
    double x2 = 1;
    double y2 = 1;
    friend bool operator==(const BezierEasing&, const BezierEasing&) = default;
};

/// A stair of `count` steps, which jumps at the start, at the end, at both or at neither. Source: as above.
struct StepsEasing {
    enum class Jump { start, end, none, both };
    int count = 1;
    Jump jump = Jump::end;
    friend bool operator==(const StepsEasing&, const StepsEasing&) = default;
};

/// Straight pieces through points of (share of the time, share of the change), in order of time. Source: W3C CSS Easing
/// Functions Level 2, `linear()`.
struct LinearEasing {
    std::vector<std::array<double, 2>> points;
    friend bool operator==(const LinearEasing&, const LinearEasing&) = default;
};

/// One of the usual curves by name. Source: R. Penner, "Programming Macromedia Flash MX", 2002, chapter 7 ("Motion,
/// tweening, and easing"), formulas from memory.
struct NamedEasing {
    enum class Curve { sine, quad, cubic, quart, quint, expo, circ, back, elastic, bounce };
    enum class End { in, out, in_out };
    Curve curve = Curve::quad;
    End end = End::in;
    friend bool operator==(const NamedEasing&, const NamedEasing&) = default;
};

/// A curve that is 0 at 0 and 1 at 1 (but for `linear()` and stairs that say otherwise); the default is straight.
struct Easing {
    std::variant<BezierEasing, StepsEasing, LinearEasing, NamedEasing> curve = BezierEasing();

    /// The share of the change that is done after the share `t` of the time; `t` is held to 0..1.
    double operator()(double t) const;
    friend bool operator==(const Easing&, const Easing&) = default;
};

/// The easing as the texts of play/ know it; the points of a LinearEasing must outlive it.
played::lq_easing played_easing(const Easing& easing);

/// The curve of a name ("ease_out", "out_bounce"), or of a function of CSS Easing: `cubic-bezier(0.2, 0, 0.6, 1)`,
/// `steps(4, jump-none)`, `linear(0, 0.3 25%, 1)`. Faults: `drive.easing`.
Result<Easing> easing_from(std::string_view text);

/// The curve of a text, if it is one.
std::optional<Easing> easing_named(std::string_view text);

/// The names of CSS Easing: linear, ease, ease_in, ease_out, ease_in_out.
const std::vector<std::string>& css_easing_names();

/// All names, in the order in which they are offered.
const std::vector<std::string>& easing_names();

}  // namespace lacquer
