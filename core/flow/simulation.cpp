#include "core/flow/simulation.h"

#include <algorithm>
#include <iterator>
#include <utility>

namespace lacquer {

namespace {

// Ticks of this age still lie as close together as those of now; older ones lie further apart the older they are.
constexpr double young = 600;

}  // namespace

std::int64_t begin_of(std::int64_t tick, const std::vector<std::int64_t>& begins) {
    const auto after = std::upper_bound(begins.begin(), begins.end(), tick);
    return after == begins.begin() ? 0 : std::max<std::int64_t>(0, *std::prev(after));
}

Simulation::Simulation(std::size_t budget, std::set<std::string, std::less<>> halves)
    : budget_(budget), halves_(std::move(halves)) {}

Result<FlowState> Simulation::at(std::int64_t tick, const std::vector<std::int64_t>& begins, const Draw& draw,
                                 const Cancel& cancel, const Progress& progress) {
    const std::int64_t begin = begin_of(tick, begins);
    if (last_.tick == tick) return last_;
    if (std::optional<FlowState> kept = kept_at(tick, begin)) return last_ = std::move(*kept);
    FlowState state{begin - 1, {}, {}};
    if (last_.tick >= begin && last_.tick < tick) state = last_;
    if (const auto after = kept_.lower_bound(tick); after != kept_.begin()) {
        const auto near = std::prev(after);
        if (near->first > state.tick) state = {near->first, used_pictures(near->second.now), {}};
    }
    const std::int64_t from = state.tick;
    while (state.tick < tick) {
        if (cancel.requested()) return cancelled_fault();
        FlowPictures before = state.tick >= begin ? std::move(state.now) : FlowPictures();
        const std::int64_t next = state.tick + 1;
        Result<FlowPictures> drawn = draw(next, before, next == begin || next % ticks_between_fetches == 0);
        if (!drawn) return drawn.fault();
        ++drawn_;
        state = {next, std::move(*drawn), std::move(before)};
        if (are_here(state.now)) add(next, state.now);
        last_ = state;
        if (progress) progress(static_cast<double>(state.tick - from) / static_cast<double>(tick - from));
    }
    return state;
}

// A state that is kept together with the one before it.
std::optional<FlowState> Simulation::kept_at(std::int64_t tick, std::int64_t begin) const {
    const auto now = kept_.find(tick);
    if (now == kept_.end()) return std::nullopt;
    if (tick == begin) return FlowState{tick, used_pictures(now->second.now), {}};
    const auto before = kept_.find(tick - 1);
    if (before == kept_.end()) return std::nullopt;
    return FlowState{tick, used_pictures(now->second.now), used_pictures(before->second.now)};
}

bool Simulation::knows_after(std::int64_t tick) const {
    return last_.tick > tick || (!kept_.empty() && kept_.rbegin()->first > tick);
}

void Simulation::forget_after(std::int64_t tick) {
    for (auto kept = kept_.upper_bound(tick); kept != kept_.end();) {
        bytes_ -= kept->second.bytes;
        kept = kept_.erase(kept);
    }
    if (last_.tick > tick) last_ = {};
}

void Simulation::keep(const FlowState& state) {
    add(state.tick, state.now);
    last_ = state;
}

void Simulation::forget_with_driver() {
    if (!are_here(last_.now) || !are_here(last_.before)) last_ = {};
}

std::vector<std::int64_t> Simulation::kept() const {
    std::vector<std::int64_t> ticks;
    for (const auto& [tick, state] : kept_) ticks.push_back(tick);
    return ticks;
}

std::size_t Simulation::bytes_of_last() const {
    const auto bytes = [&](std::int64_t tick, const FlowPictures& pictures) {
        std::size_t sum = 0;
        for (const auto& [name, left] : pictures) {
            const auto state = kept_.find(tick);
            const bool is_kept = state != kept_.end() && state->second.now.at(name).whole == left.here;
            if (left.here != nullptr && !is_kept) sum += left.here->data.size() * sizeof(float);
        }
        return sum;
    };
    return bytes(last_.tick, last_.now) + bytes(last_.tick - 1, last_.before);
}

void Simulation::set_budget(std::size_t budget) {
    budget_ = budget;
    if (!kept_.empty()) thin(kept_.rbegin()->first);
}

void Simulation::add(std::int64_t tick, const FlowPictures& now) {
    Kept kept{kept_pictures(now, halves_), 0};
    kept.bytes = bytes_of(kept.now);
    if (const auto old = kept_.find(tick); old != kept_.end()) bytes_ -= old->second.bytes;
    bytes_ += kept.bytes;
    kept_[tick] = std::move(kept);
    thin(tick);
}

// What goes first is what leaves the smallest gap behind, measured by how long ago it is. The first and the newest
// stay.
void Simulation::thin(std::int64_t present) {
    while (bytes_ > budget_ && kept_.size() > 2) {
        auto least = kept_.end();
        double least_loss = 0;
        for (auto at = std::next(kept_.begin()); std::next(at) != kept_.end(); ++at) {
            const auto gap = static_cast<double>(std::next(at)->first - std::prev(at)->first);
            const auto age = static_cast<double>(std::max<std::int64_t>(0, present - at->first));
            const double loss = gap / (age + young);
            if (least != kept_.end() && loss >= least_loss) continue;
            least = at;
            least_loss = loss;
        }
        bytes_ -= least->second.bytes;
        kept_.erase(least);
    }
}

}  // namespace lacquer
