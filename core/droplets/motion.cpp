#include "core/droplets/motion.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/base/hash.h"

namespace lacquer {

namespace {

// Below this nothing is left of a drag in the time that anybody looks at.
constexpr double least_drag = 1e-6;

double slope_at(std::uint32_t key, std::int64_t whole) {
    const auto low = static_cast<std::uint32_t>(whole & 0xFFFFFFFF);
    const auto high = static_cast<std::uint32_t>(static_cast<std::uint64_t>(whole) >> 32U);
    return static_cast<double>(unit_from_hash(pcg3d({key, low, high})[0])) * 2 - 1;
}

}  // namespace

Drag drag_over(double drag, double age) {
    if (drag < least_drag) return {1, age, age * age / 2};
    const double much = drag * age;
    Drag over;
    over.keeps = std::exp(-much);
    over.gains = -std::expm1(-much) / drag;
    // For little ages the difference would be all rounding.
    over.falls = much < 1e-4 ? age * age * (0.5 - much / 6 + much * much / 24) : (age - over.gains) / drag;
    return over;
}

Wind::Wind(Track speed, double drag) : speed_(std::move(speed)), drag_(drag < least_drag ? 0 : drag), still_(true) {
    for (const double at : speed_.moments()) still_ = still_ && speed_.value(at) == 0;
    if (drag_ == 0) still_ = true;
    if (still_) return;
    // What has blown for ever before 0 s has given its whole speed; any beginning would do, as only differences count.
    double trailing = speed_.value(0) / drag_;
    const std::vector<double>& moments = speed_.moments();
    for (std::size_t i = 0; i < moments.size(); ++i) {
        if (i > 0) {
            const Drag over = drag_over(drag_, moments[i] - moments[i - 1]);
            trailing = trailing * over.keeps + speed_.value(moments[i - 1]) * over.gains;
        }
        at_moments_.push_back(trailing);
    }
}

// The wind up to a time, each moment of it weighed by what the drag has left of its push.
double Wind::trailing(double time) const {
    const std::vector<double>& moments = speed_.moments();
    if (time <= moments.front()) return at_moments_.front();
    const auto next = std::upper_bound(moments.begin(), moments.end(), time);
    const auto i = static_cast<std::size_t>(next - moments.begin()) - 1;
    const Drag over = drag_over(drag_, time - moments[i]);
    return at_moments_[i] * over.keeps + speed_.value(moments[i]) * over.gains;
}

double Wind::given(double birth, double time) const {
    return trailing(time) - std::exp(-drag_ * (time - birth)) * trailing(birth);
}

double Wind::way(double birth, double time) const {
    return still_ ? 0 : speed_.integral(time) - speed_.integral(birth) - given(birth, time);
}

double Wind::velocity(double birth, double time) const { return still_ ? 0 : drag_ * given(birth, time); }

double gust_noise(std::uint32_t key, double time) {
    const double whole = std::floor(time);
    const double t = time - whole;
    const auto index = static_cast<std::int64_t>(std::clamp(whole, -9e15, 9e15));
    const double fade = t * t * t * (t * (t * 6 - 15) + 10);
    const double before = slope_at(key, index) * t;
    const double after = slope_at(key, index + 1) * (t - 1);
    return (before + (after - before) * fade) * 2;
}

Bounced bounced(Vector2 speed, double fall, double height, double share, double age) {
    Bounced done;
    double left = age;
    double above = height;
    constexpr int most_leaps = 64;
    constexpr double shortest_leap = 1e-3;  // seconds
    for (int leap = 0; leap < most_leaps; ++leap) {
        const double until = (-speed.y + std::sqrt(speed.y * speed.y + 2 * fall * above)) / fall;
        if (left < until) {
            done.way.x += speed.x * left;
            done.way.y += speed.y * left + fall * left * left / 2;
            done.velocity = {speed.x, speed.y + fall * left};
            return done;
        }
        done.way.x += speed.x * until;
        done.way.y += above;
        left -= until;
        above = 0;
        speed = {speed.x * share, -(speed.y + fall * until) * share};
        if (-2 * speed.y / fall < shortest_leap) break;
    }
    return done;
}

}  // namespace lacquer
