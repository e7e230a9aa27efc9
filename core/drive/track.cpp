#include "core/drive/track.h"

#include <algorithm>
#include <iterator>

namespace lacquer {

void Track::change(double at, double value) {
    if (value == values_.back()) return;
    if (at <= at_.back()) {
        values_.back() = value;
        return;
    }
    sums_.push_back(sums_.back() + (at - at_.back()) * values_.back());
    at_.push_back(at);
    values_.push_back(value);
}

std::size_t Track::piece(double time) const {
    const auto next = std::upper_bound(at_.begin(), at_.end(), time);
    return next == at_.begin() ? 0 : static_cast<std::size_t>(next - at_.begin()) - 1;
}

double Track::integral(double time) const {
    const std::size_t i = piece(time);
    return sums_[i] + (time - at_[i]) * values_[i];
}

std::vector<double> moments_of(const Track& a, const Track& b) {
    std::vector<double> all;
    std::set_union(a.moments().begin(), a.moments().end(), b.moments().begin(), b.moments().end(),
                   std::back_inserter(all));
    return all;
}

}  // namespace lacquer
