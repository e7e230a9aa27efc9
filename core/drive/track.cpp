#include "core/drive/track.h"

#include <algorithm>
#include <iterator>

namespace lacquer {

Track::Track(double from_the_start) : pieces_(1) { lq_track_start(&pieces_[0], from_the_start); }

void Track::change(double at, double value) {
    if (value == pieces_.back().value) return;
    played::lq_track piece = pieces_.back();
    lq_track_change(&piece, at, value);
    if (at <= pieces_.back().at) {
        pieces_.back() = piece;
    } else {
        pieces_.push_back(piece);
        at_.push_back(at);
    }
}

std::size_t Track::piece(double time) const {
    const auto next = std::upper_bound(at_.begin(), at_.end(), time);
    return next == at_.begin() ? 0 : static_cast<std::size_t>(next - at_.begin()) - 1;
}

std::vector<double> moments_of(const Track& a, const Track& b) {
    std::vector<double> all;
    std::set_union(a.moments().begin(), a.moments().end(), b.moments().begin(), b.moments().end(),
                   std::back_inserter(all));
    return all;
}

}  // namespace lacquer
