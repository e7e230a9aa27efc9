// What finishes leave from tick to tick, for all that draw.
#pragma once

#include <cstddef>
#include <list>
#include <optional>
#include <string>
#include <vector>

#include "core/finish/checked.h"
#include "core/finish/play.h"
#include "core/flow/simulation.h"
#include "core/plan/plan.h"
#include "core/render/picture_store.h"

namespace lacquer {

/// All that the pictures of ticks depend on besides the tape: what is the same goes on from the same pictures.
struct FlowKey {
    std::string finish_path;
    StructuralHash passes;  ///< of ticks and of how they start
    int width = 0;          ///< of the frame, pixels
    int height = 0;
    int drawn_width = 0;  ///< of rough ones, pixels; 0 where they are drawn at the frame's size
    int drawn_height = 0;
    Ticks ticks;
    std::vector<Ground> grounds;
    std::vector<Signal> signals;
    std::vector<Response> responses;  ///< those that the passes hear of
    std::vector<Dial> dials;
    HeldDials held;

    friend bool operator==(const FlowKey&, const FlowKey&) = default;
    /// Whether the pictures are of the same steps and sizes, though they may have come about by other values.
    bool is_like(const FlowKey& other) const;
};

/// The key of a finish's ticks.
FlowKey flow_key(const CheckedFinish& checked, const Plan& ticks, const Plan& starts);

/// The first time at which two tapes differ, in seconds; infinite if they are alike.
double first_difference(const Tape& a, const Tape& b);

/// The ticks at which all begins anew, in order.
std::vector<std::int64_t> flow_begins(const Finish& finish, const Tape& tape);

/// The tick that a moment belongs to, and the first one that is not before it.
std::int64_t tick_at(double time, double rate);
std::int64_t tick_from(double time, double rate);

/// Simulations by key, within the memory that pictures leave; one that was not used for longest goes first. To be used
/// from one thread at a time.
class FlowStore {
public:
    explicit FlowStore(PictureStore& pictures) : pictures_(pictures), kept_(pictures, false) {}

    /// The simulation of this key, if there is one. One of another tape is gone on from where the two part, and is
    /// itself kept as long as there is room, as checks play other tapes in passing.
    Simulation* find(const FlowKey& key, const Tape& tape);
    /// The same, made if there is none.
    Simulation& simulation(const FlowKey& key, const Tape& tape, const CheckedFinish& checked);

    /// What was handed out last, of any values, if it is like this.
    const FlowState* present(const FlowKey& key) const;
    void set_present(const FlowKey& key, FlowState state);

    /// What files hold may have changed.
    void forget();
    /// What is kept takes no more than there is room for now, but for the last state of the simulation that was used
    /// last and what it began with. Simulations that are handed out stay where they are.
    void keep_within_memory();
    /// The driver is gone, and what lay there.
    void forget_with_driver();

private:
    struct Entry {
        FlowKey key;
        Tape tape;
        Simulation simulation;
    };
    std::size_t bytes() const;
    void drop_unused(std::size_t most_bytes);

    PictureStore& pictures_;
    MemoryShare kept_;
    std::list<Entry> entries_;  ///< last used first
    std::optional<FlowKey> present_key_;
    FlowState present_;
};

}  // namespace lacquer
