// Everything that a set is drawn with at a moment, as a host would have it.
#pragma once

#include <map>
#include <memory>
#include <string>

#include "core/finish/play.h"
#include "core/render/renderer.h"
#include "core/ship/material.h"

namespace lacquer {

/// The moment at which a set is drawn, and the frame's size in pixels.
struct ShipMoment {
    double time = 0;
    int width = 0;
    int height = 0;
};

/// Values of uniforms by their sources, and pictures by theirs, before any pass is drawn.
struct MomentInputs {
    std::map<std::string, Value, std::less<>> values;
    std::map<std::string, PicturePtr, std::less<>> pictures;
};

/// What the application itself has at a moment: the finished picture, and what the last tick left.
struct MomentPictures {
    DrawnStep finished;
    FlowState ticks;         ///< all here; its tick is -1 for a finish without
    std::int64_t begin = 0;  ///< the tick at which all last began anew
};

/// Draws moments of a finish as the application does, and hands out what a host would draw them from. To be used from
/// one thread at a time.
class MomentSource {
public:
    MomentSource(const ShipMaterial& material, std::shared_ptr<const Tape> tape, WorkerPool& pool);

    /// Faults: those of `Renderer::render`.
    Result<MomentPictures> pictures(const ShipMoment& moment, const Cancel& cancel);

    /// Values and grounds at a time; `since` is the tick since all began anew, for `tick`. Grounds that cannot be read
    /// are null, which is black; sprites are clear. Faults: `render.cancelled`.
    Result<MomentInputs> inputs(const ShipMoment& moment, double since, double part, const Cancel& cancel);

    /// The picture or table that formulas call so; null for one that cannot be read. Faults: as above.
    Result<PicturePtr> ground(const std::string& name, const ShipMoment& moment, const Cancel& cancel);

private:
    const ShipMaterial& material_;
    std::shared_ptr<const Tape> tape_;
    std::shared_ptr<RenderStores> stores_;
    Renderer renderer_;
    GroundStore grounds_;
    std::shared_ptr<const Play> play_;
};

}  // namespace lacquer
