// What steps leave from tick to tick, and the way to any tick.
#pragma once

#include <cstddef>
#include <cstdint>
#include <functional>
#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/base/cancel.h"
#include "core/base/result.h"
#include "core/flow/kept_pictures.h"

namespace lacquer {

/// What there is after a tick: the pictures then, and those of the tick before, which are empty at the first one.
struct FlowState {
    std::int64_t tick = -1;  ///< -1: nothing was drawn yet
    FlowPictures now;
    FlowPictures before;
};

/// Draws ticks one after another and keeps some states on the way, so that any tick is near one that is kept. Whichever
/// way a tick is reached, its state is the same to the last bit. To be used from one thread at a time.
class Simulation {
public:
    /// Draws the pictures after a tick from those before it; those are empty where all begins anew. Unless they are
    /// `wanted_here`, they may be left with the graphics driver.
    using Draw = std::function<Result<FlowPictures>(std::int64_t tick, const FlowPictures& before, bool wanted_here)>;
    /// Only every so many ticks' pictures are fetched from the driver, as that costs time.
    static constexpr std::int64_t ticks_between_fetches = 8;
    /// How much of a way has been gone, 0..1.
    using Progress = std::function<void(double share)>;

    /// `budget`: bytes that kept states may hold. `halves` names those steps whose pictures hold halves only.
    explicit Simulation(std::size_t budget, std::set<std::string, std::less<>> halves = {});

    /// The state after a tick, from the nearest one before it that is kept. `begins` are the ticks at which all begins
    /// anew, in order; 0 is always one of them. Faults: those of `draw`, `render.cancelled`; what was drawn until then
    /// is kept.
    Result<FlowState> at(std::int64_t tick, const std::vector<std::int64_t>& begins, const Draw& draw,
                         const Cancel& cancel, const Progress& progress = nullptr);

    /// Whether anything after this tick is known.
    bool knows_after(std::int64_t tick) const;
    /// Everything after this tick is no longer true.
    void forget_after(std::int64_t tick);

    /// Takes over a state from elsewhere, or the last one with its pictures here.
    void keep(const FlowState& state);

    /// What lies with the driver alone is lost with it: ticks go on from what is kept.
    void forget_with_driver();

    /// The state that was given last.
    const FlowState& last() const { return last_; }

    /// Ticks whose states are kept, in order; bytes that they hold.
    std::vector<std::int64_t> kept() const;
    std::size_t bytes() const { return bytes_; }
    /// Bytes of the state that was given last, where it is not kept or kept in half the room.
    std::size_t bytes_of_last() const;
    /// Bytes that kept states may hold from here on.
    void set_budget(std::size_t budget);
    /// How many ticks were drawn so far.
    std::int64_t drawn() const { return drawn_; }

private:
    struct Kept {
        KeptFlowPictures now;
        std::size_t bytes = 0;
    };

    std::optional<FlowState> kept_at(std::int64_t tick, std::int64_t begin) const;
    void add(std::int64_t tick, const FlowPictures& now);
    void thin(std::int64_t present);

    std::size_t budget_;
    std::set<std::string, std::less<>> halves_;
    std::map<std::int64_t, Kept> kept_;
    std::size_t bytes_ = 0;
    std::int64_t drawn_ = 0;
    FlowState last_;
};

/// The last of `begins` that is not after `tick`; 0 if there is none.
std::int64_t begin_of(std::int64_t tick, const std::vector<std::int64_t>& begins);

}  // namespace lacquer
