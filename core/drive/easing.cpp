#include "core/drive/easing.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace lacquer {

namespace {

double bezier(double a, double b, double s) {
    const double r = 1 - s;
    return 3 * r * r * s * a + 3 * r * s * s * b + s * s * s;
}

double bezier_slope(double a, double b, double s) {
    const double r = 1 - s;
    return 3 * r * r * a + 6 * r * s * (b - a) + 3 * s * s * (1 - b);
}

double eased(const BezierEasing& curve, double t) {
    if (t <= 0) return 0;
    if (t >= 1) return 1;
    if (curve.x1 == curve.y1 && curve.x2 == curve.y2) return t;
    // x(s) rises all the way, so there is one s with x(s) = t. Newton's steps find it in a few goes; where one would
    // leave the stretch that it must lie in, halving closes in on it all the same.
    double low = 0;
    double high = 1;
    double s = t;
    for (int i = 0; i < 80; ++i) {
        const double away = bezier(curve.x1, curve.x2, s) - t;
        if (std::fabs(away) < 1e-15) break;
        (away < 0 ? low : high) = s;
        const double slope = bezier_slope(curve.x1, curve.x2, s);
        const double next = s - away / slope;
        s = slope > 0 && next > low && next < high ? next : (low + high) / 2;
        if (high - low < 1e-16) break;
    }
    return bezier(curve.y1, curve.y2, s);
}

double eased(const StepsEasing& stair, double t) {
    using Jump = StepsEasing::Jump;
    double step = std::floor(t * stair.count);
    if (stair.jump == Jump::start || stair.jump == Jump::both) step += 1;
    const int jumps = stair.count + (stair.jump == Jump::both ? 1 : stair.jump == Jump::none ? -1 : 0);
    return std::min(step, static_cast<double>(jumps)) / jumps;
}

double eased(const LinearEasing& line, double t) {
    const auto& points = line.points;
    // Of several points at one time, the last counts from there on.
    const auto next = std::upper_bound(points.begin(), points.end(), t,
                                       [](double time, const std::array<double, 2>& point) { return time < point[0]; });
    if (next == points.begin()) return points.front()[1];
    if (next == points.end()) return points.back()[1];
    const auto& from = *(next - 1);
    const double share = (t - from[0]) / ((*next)[0] - from[0]);
    return from[1] + ((*next)[1] - from[1]) * share;
}

double out_bounce(double t) {
    constexpr double steep = 7.5625;
    constexpr double wide = 2.75;
    if (t < 1 / wide) return steep * t * t;
    if (t < 2 / wide) return steep * (t - 1.5 / wide) * (t - 1.5 / wide) + 0.75;
    if (t < 2.5 / wide) return steep * (t - 2.25 / wide) * (t - 2.25 / wide) + 0.9375;
    return steep * (t - 2.625 / wide) * (t - 2.625 / wide) + 0.984375;
}

// Each as it goes in; out and in-and-out follow from it by turning it round.
double eased_in(NamedEasing::Curve curve, double t) {
    using Curve = NamedEasing::Curve;
    constexpr double pi = std::numbers::pi;
    switch (curve) {
        case Curve::sine:
            return 1 - std::cos(t * pi / 2);
        case Curve::quad:
            return t * t;
        case Curve::cubic:
            return t * t * t;
        case Curve::quart:
            return t * t * t * t;
        case Curve::quint:
            return t * t * t * t * t;
        case Curve::expo:
            return t <= 0 ? 0 : std::exp2(10 * (t - 1));
        case Curve::circ:
            return 1 - std::sqrt(1 - t * t);
        case Curve::back: {
            constexpr double beyond = 1.70158;
            return t * t * ((beyond + 1) * t - beyond);
        }
        case Curve::elastic: {
            constexpr double period = 0.3;
            if (t <= 0 || t >= 1) return t <= 0 ? 0 : 1;
            return -std::exp2(10 * (t - 1)) * std::sin((t - 1 - period / 4) * 2 * pi / period);
        }
        case Curve::bounce:
            return 1 - out_bounce(1 - t);
    }
    return t;
}

double eased(const NamedEasing& named, double t) {
    if (t <= 0) return 0;
    if (t >= 1) return 1;
    if (named.end == NamedEasing::End::in) return eased_in(named.curve, t);
    if (named.end == NamedEasing::End::out) return 1 - eased_in(named.curve, 1 - t);
    return t < 0.5 ? eased_in(named.curve, 2 * t) / 2 : 1 - eased_in(named.curve, 2 - 2 * t) / 2;
}

}  // namespace

double Easing::operator()(double t) const {
    const double held = t > 0 ? std::min(t, 1.0) : 0;  // also for what is no number
    return std::visit([held](const auto& of) { return eased(of, held); }, curve);
}

}  // namespace lacquer
