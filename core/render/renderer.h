// Draws finishes.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>

#include "core/base/cancel.h"
#include "core/base/worker_pool.h"
#include "core/cpu/kernels.h"
#include "core/flow/checkpoint.h"
#include "core/render/flow_store.h"
#include "core/render/frame.h"
#include "core/render/frame_run.h"
#include "core/render/grounds.h"
#include "core/render/stores.h"

namespace lacquer {

/// What draws: this processor, or the graphics processor by GL; `automatic` takes the latter if it is a real one.
enum class Backend { cpu, gpu, automatic };

/// The backend called "cpu", "gpu" or "auto".
std::optional<Backend> backend_named(std::string_view name);

/// Draws frames one after another; what it keeps between them lies in the stores. To be used from one thread at a time.
class Renderer {
public:
    /// With `kernels`, those instead of the fastest; with `stores`, those that others have, too.
    explicit Renderer(WorkerPool& pool, std::optional<KernelSet> kernels = std::nullopt,
                      std::shared_ptr<RenderStores> stores = nullptr);
    ~Renderer();

    /// Chooses what draws from here on. The fault, a warning, says why it is this processor after all.
    std::optional<Fault> use(Backend backend);
    /// What draws, in a few words: an instruction set, or the driver's name.
    std::string drawn_by() const;
    /// What has passed between the program and the graphics driver; nothing where this processor draws.
    DriverTraffic driver_traffic() const;

    /// Is told of picture files that are read; see `GroundStore`.
    void watch_reading(GroundStore::Watch watch) { grounds_.watch_reading(std::move(watch)); }

    /// Is told how far ticks have come that have to be drawn before a frame, 0..1; 1 at the end.
    void watch_ticks(Simulation::Progress watch) { watch_ticks_ = std::move(watch); }

    /// Files may have changed that ticks were drawn from: they begin anew.
    void forget_ticks() { flows_.forget(); }

    /// What ticks have left at the request's moment, to go on from elsewhere. Faults: `flow.none` for a finish that has
    /// no ticks, those of `render`.
    Result<Checkpoint> checkpoint(const RenderRequest& request, const Cancel& cancel);
    /// Goes on from such a state. Faults: `flow.none`, `flow.other` if it is that of another finish, tape or size.
    Result<Done> take_checkpoint(const RenderRequest& request, const Checkpoint& checkpoint);

    /// The frame, or nothing if it was called off. Faults: `render.size`, `render.point`, `render.memory`,
    /// `render.cancelled`.
    /// Faults besides: `base.memory`, `base.unexpected`.
    Result<Frame> render(const RenderRequest& request, const Cancel& cancel);

    /// Whether this frame, where it may have rough ticks, would: no ticks of its steps, size and values have been
    /// drawn, and they look much the same at other sizes.
    bool would_be_rough(const RenderRequest& request);

    /// Width and height of a ground that has a size of its own: a picture or a sprite; nothing if it cannot be read.
    std::optional<std::pair<int, int>> size_of(const Ground& ground, const std::string& finish_path);

private:
    DriveValues values_of(const RenderRequest& request);
    // What goes on from tick to tick, see renderer_ticks.cpp.
    struct Ticked;
    Result<Frame> drawn(const RenderRequest& request, const Cancel& cancel);
    Result<Ticked> ticked(const RenderRequest& request, const FrameSize& size, const Cancel& cancel);
    struct TickRun;
    Result<FlowPictures> tick(const TickRun& run, std::int64_t tick, const FlowPictures& before, bool wanted_here,
                              Faults& notices);
    Simulation::Draw drawn_by(const TickRun& run, Ticked& given);
    /// What the ticks have left, by one of the three ways below.
    Result<FlowState> state_after(const TickRun& run, std::int64_t tick, const Tape& tape, Ticked& given);
    /// To the last pixel, from what is kept.
    Result<FlowState> exact_state(const TickRun& run, std::int64_t tick, const Tape& tape, Ticked& given);
    /// The same ticks on fewer pixels, until there is time for all of them.
    Result<FlowState> rough_state(const TickRun& run, std::int64_t tick, const Tape& tape, Ticked& given);
    /// During a drag: on from `state`, which other values have left.
    Result<FlowState> dragged_state(const TickRun& run, std::int64_t tick, FlowState state, Ticked& given);
    bool bring_here(FlowPicture& left);
    bool bring_here(FlowState& state);
    /// What ticks of a finish are drawn by is worked out once.
    struct KeptPlans {
        std::shared_ptr<const CheckedFinish> checked;
        Plan ticks;
        Plan starts;
        FlowKey key;
        bool go_by_pixels = false;
    };
    FlowKey key_of_ticks(const RenderRequest& request, const FrameSize& size);
    const KeptPlans& plans_of(const std::shared_ptr<const CheckedFinish>& checked);

    /// What responses need of the tape is worked out once for many frames.
    struct KeptPlay {
        std::shared_ptr<const CheckedFinish> checked;
        std::shared_ptr<const Tape> tape;
        std::shared_ptr<const Play> play;
    };

    WorkerPool& pool_;
    KernelSet kernels_;
    std::shared_ptr<RenderStores> stores_;
    GroundStore grounds_;
    ShaderDrawing shaders_;
    FlowStore flows_;
    KeptPlay play_;
    KeptPlans plans_;
    Simulation::Progress watch_ticks_;
};

}  // namespace lacquer
