#include "core/render/flow_store.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>
#include <set>
#include <utility>

#include "core/lang/past.h"

namespace lacquer {

namespace {

using Names = std::set<std::string, std::less<>>;

// Moments are sums of parts of a second: what is this near to a tick is at it.
constexpr double slack = 1e-6;

std::string base_of(const std::string& name) { return name.substr(0, name.find('.')); }

void add_used(const Typed& typed, Names& names) {
    for (const std::string& name : names_used(typed)) names.insert(base_of(name));
}

// What the passes name, and what that goes by.
Names names_heard(const CheckedFinish& checked, const Plan& ticks, const Plan& starts) {
    Names names;
    for (const Plan* plan : {&ticks, &starts}) {
        for (const Pass& pass : plan->passes) {
            for (const PassStep& step : pass.steps) add_used(*step.typed, names);
        }
    }
    const Finish& finish = *checked.finish;
    for (const CheckedDroplets& drops : checked.droplets) {
        for (const auto& [key, formula] : drops.formulas) add_used(formula, names);
    }
    for (std::size_t before = 0; before != names.size();) {
        before = names.size();
        for (const CheckedDial& dial : checked.dials) {
            if (dial.formula && names.contains(dial.name)) add_used(*dial.formula, names);
        }
        for (std::size_t i = 0; i < finish.responses.size() && i < checked.responses.size(); ++i) {
            if (!names.contains(finish.responses[i].name)) continue;
            for (const auto& [argument, formula] : checked.responses[i].formulas) add_used(formula, names);
        }
    }
    return names;
}

bool reads_grounds(const Plan& plan) {
    return std::any_of(plan.passes.begin(), plan.passes.end(), [](const Pass& pass) {
        return std::any_of(pass.grounds.begin(), pass.grounds.end(),
                           [](const std::string& name) { return !step_of_tick_picture(name); });
    });
}

template <class Events>
double first_difference(const Events& a, const Events& b) {
    if (a == b) return std::numeric_limits<double>::infinity();
    const std::size_t common = std::min(a.size(), b.size());
    for (std::size_t i = 0; i < common; ++i) {
        if (!(a[i] == b[i])) return std::min(a[i].at, b[i].at);
    }
    return a.size() > common ? a[common].at : b[common].at;
}

}  // namespace

std::int64_t tick_at(double time, double rate) {
    return std::max<std::int64_t>(0, static_cast<std::int64_t>(std::floor(time * rate + slack)));
}

std::int64_t tick_from(double time, double rate) {
    return std::max<std::int64_t>(0, static_cast<std::int64_t>(std::ceil(time * rate - slack)));
}

double first_difference(const Tape& a, const Tape& b) {
    return std::min(first_difference(a.cues, b.cues), first_difference(a.changes, b.changes));
}

std::vector<std::int64_t> flow_begins(const Finish& finish, const Tape& tape) {
    std::vector<std::int64_t> begins{0};
    const std::string& reset = finish.ticks.reset;
    const double rate = finish.ticks.rate;
    if (reset.empty()) return begins;
    for (const Cue& cue : tape.cues) {
        if (cue.name == reset) begins.push_back(tick_from(cue.at, rate));
    }
    constexpr double on = 0.5;
    const Signal* signal = find_signal(finish, reset);
    bool was_on = signal != nullptr && signal->value[0] > on;
    for (const Change& change : tape.changes) {
        if (change.name != reset) continue;
        const bool is_on = change.value[0] > on;
        if (is_on && !was_on) begins.push_back(tick_from(change.at, rate));
        was_on = is_on;
    }
    std::sort(begins.begin(), begins.end());
    return begins;
}

bool FlowKey::is_like(const FlowKey& other) const {
    return passes == other.passes && width == other.width && height == other.height &&
           drawn_width == other.drawn_width && drawn_height == other.drawn_height && ticks == other.ticks &&
           finish_path == other.finish_path;
}

FlowKey flow_key(const CheckedFinish& checked, const Plan& ticks, const Plan& starts) {
    const Finish& finish = *checked.finish;
    FlowKey key;
    for (const Plan* plan : {&ticks, &starts}) {
        key.passes.stir(plan->passes.size());
        for (const Pass& pass : plan->passes) {
            key.passes.stir(key_of(pass));
            key.passes.stir(static_cast<std::uint64_t>(std::llround(pass.scale * 1e9)));
        }
    }
    for (const TickedStep& step : checked.ticked) key.passes.stir(step.name + (step.half ? " half" : ""));
    key.ticks = finish.ticks;
    if (reads_grounds(ticks) || reads_grounds(starts)) key.grounds = finish.grounds;
    const Names names = names_heard(checked, ticks, starts);
    const auto copy = [&](const auto& from, auto& to) {
        for (const auto& thing : from) {
            if (names.contains(thing.name)) to.push_back(thing);
        }
    };
    copy(finish.responses, key.responses);
    copy(finish.dials, key.dials);
    key.signals = finish.signals;
    return key;
}

Simulation* FlowStore::find(const FlowKey& key, const Tape& tape) {
    const auto first = [&](const auto& fits) {
        const auto found = std::find_if(entries_.begin(), entries_.end(),
                                        [&](const Entry& entry) { return entry.key == key && fits(entry); });
        if (found != entries_.end()) entries_.splice(entries_.begin(), entries_, found);
        return found != entries_.end();
    };
    const std::size_t room = pictures_.room_beside();
    drop_unused(room);
    if (first([&](const Entry& entry) { return entry.tape == tape; })) return &entries_.front().simulation;
    if (!first([](const Entry&) { return true; })) return nullptr;
    const double difference = first_difference(entries_.front().tape, tape);
    const std::int64_t same_until = tick_from(difference, key.ticks.rate) - 1;
    if (entries_.front().simulation.knows_after(same_until)) {
        Entry parting = entries_.front();
        parting.simulation.forget_after(same_until);
        entries_.push_front(std::move(parting));
        drop_unused(room / 2);
    }
    entries_.front().tape = tape;
    return &entries_.front().simulation;
}

Simulation& FlowStore::simulation(const FlowKey& key, const Tape& tape, const CheckedFinish& checked) {
    if (Simulation* found = find(key, tape)) return *found;
    std::set<std::string, std::less<>> halves;
    for (const TickedStep& step : checked.ticked) {
        if (step.half) halves.insert(step.name);
    }
    const std::size_t room = pictures_.room_beside();
    entries_.push_front({key, tape, Simulation(room, std::move(halves))});
    // Room for what comes: whoever draws last may fill all of it.
    drop_unused(room / 2);
    return entries_.front().simulation;
}

std::size_t FlowStore::bytes() const {
    return std::accumulate(entries_.begin(), entries_.end(), std::size_t{0}, [](std::size_t sum, const Entry& entry) {
        return sum + entry.simulation.bytes() + entry.simulation.bytes_of_last();
    });
}

void FlowStore::keep_within_memory() {
    if (!entries_.empty()) {
        const std::size_t room = pictures_.room_beside();
        drop_unused(room);
        Simulation& present = entries_.front().simulation;
        present.set_budget(room - std::min(room, bytes() - present.bytes()));
    }
    kept_.set(bytes());
}

void FlowStore::drop_unused(std::size_t most_bytes) {
    constexpr std::size_t most = 8;
    while (entries_.size() > 1 && (entries_.size() > most || bytes() > most_bytes)) entries_.pop_back();
}

const FlowState* FlowStore::present(const FlowKey& key) const {
    return present_key_ && present_key_->is_like(key) && present_.tick >= 0 ? &present_ : nullptr;
}

void FlowStore::set_present(const FlowKey& key, FlowState state) {
    present_key_ = key;
    present_ = std::move(state);
}

void FlowStore::forget() {
    entries_.clear();
    present_key_.reset();
    present_ = {};
}

void FlowStore::forget_with_driver() {
    for (Entry& entry : entries_) entry.simulation.forget_with_driver();
    if (are_here(present_.now) && are_here(present_.before)) return;
    present_key_.reset();
    present_ = {};
}

}  // namespace lacquer
