// What ticks have left at a moment, given away and taken back.
#include <algorithm>
#include <bit>

#include "core/base/guarded.h"
#include "core/finish/file.h"
#include "core/lang/structural_hash.h"
#include "core/render/renderer_ticks.h"

namespace lacquer {

namespace {

Fault no_ticks() {
    return {"flow.none",
            "nothing in this finish goes on from tick to tick",
            "leave the checkpoint out",
            {},
            Severity::fault};
}

// Of all that may make a difference but the place where the finish lies.
StructuralHash stamp_of(const RenderRequest& request, const FrameSize& size) {
    Finish whole = *request.checked->finish;
    if (request.tape != nullptr) whole.tape = *request.tape;
    StructuralHash stamp;
    stamp.stir(finish_to_text(whole));
    stamp.stir(static_cast<std::uint64_t>(size.frame_width));
    stamp.stir(static_cast<std::uint64_t>(size.frame_height));
    for (const auto& [name, value] : request.held) {
        stamp.stir(name);
        for (const double part : value) stamp.stir(std::bit_cast<std::uint64_t>(part));
    }
    return stamp;
}

}  // namespace

Result<Checkpoint> Renderer::checkpoint(const RenderRequest& request, const Cancel& cancel) {
    return guarded([&]() -> Result<Checkpoint> {
        const FrameSize size = frame_size(request);
        if (const auto fault = fault_of_size(request, size)) return *fault;
        if (request.checked->ticked.empty()) return no_ticks();
        if (const Result<Ticked> drawn = ticked(request, size, cancel); !drawn) return drawn.fault();
        const Tape& tape = request.tape != nullptr ? *request.tape : request.checked->finish->tape;
        FlowState state = flows_.simulation(key_of_ticks(request, size), tape, *request.checked).last();
        if (!bring_here(state)) return lost_with_driver();
        const StructuralHash stamp = stamp_of(request, size);
        return Checkpoint{{stamp.low, stamp.high}, std::move(state)};
    });
}

Result<Done> Renderer::take_checkpoint(const RenderRequest& request, const Checkpoint& checkpoint) {
    if (request.checked->ticked.empty()) return no_ticks();
    const FrameSize size = frame_size(request);
    const StructuralHash stamp = stamp_of(request, size);
    // A stamp is easily copied: what doesn't have the very shape of what a tick leaves is not read.
    const auto fits = [&](const FlowPictures& pictures, const TickedStep& step) {
        const auto found = pictures.find(step.name);
        if (found == pictures.end() || found->second.here == nullptr) return false;
        const Picture& picture = *found->second.here;
        return picture.width == scaled_side(size.frame_width, step.scale) &&
               picture.height == scaled_side(size.frame_height, step.scale) &&
               picture.channels == stored_channels(step.type);
    };
    const auto is_whole = [&](const FlowPictures& pictures) {
        const auto& steps = request.checked->ticked;
        return pictures.size() == steps.size() &&
               std::all_of(steps.begin(), steps.end(), [&](const TickedStep& step) { return fits(pictures, step); });
    };
    const FlowState& state = checkpoint.state;
    if (checkpoint.stamp[0] != stamp.low || checkpoint.stamp[1] != stamp.high || !is_whole(state.now) ||
        !(state.before.empty() || is_whole(state.before))) {
        return Fault{"flow.other",
                     "the checkpoint is that of another finish, tape or size",
                     "write it again by --to-checkpoint",
                     {},
                     Severity::fault};
    }
    const Tape& tape = request.tape != nullptr ? *request.tape : request.checked->finish->tape;
    flows_.simulation(key_of_ticks(request, size), tape, *request.checked).keep(checkpoint.state);
    return Done{};
}

}  // namespace lacquer
