// Pictures of droplets, the last few kept.
#pragma once

#include <list>
#include <map>
#include <memory>
#include <string>

#include "core/base/cancel.h"
#include "core/base/fault.h"
#include "core/base/result.h"
#include "core/droplets/draw.h"
#include "core/finish/grounds/ground_facts.h"
#include "core/finish/play.h"

namespace lacquer {

/// A ground of droplets at a moment.
struct DropMoment {
    std::shared_ptr<const Play> play;
    std::string ground;
    double time = 0;
    int width = 0;  ///< pixels
    int height = 0;
    friend bool operator==(const DropMoment&, const DropMoment&) = default;
};

/// The layer of droplets that a ground's picture is; nothing for those of other grounds.
std::optional<DropLayer> drop_layer(GroundLayer layer);

/// Draws what steps read of droplets, all of a frame's layers in one go. To be used from one thread at a time.
class DropDrawings {
public:
    explicit DropDrawings(WorkerPool& pool) : pool_(pool) {}

    /// A layer at a moment. `wanted` is what else will be asked for, by the grounds' names. Fault `render.cancelled`.
    Result<PicturePtr> picture(const DropMoment& moment, const DropSprite& sprite, GroundLayer layer,
                               const std::map<std::string, DropLayers, std::less<>>& wanted, const Cancel& cancel);

    /// What was noticed since this was last asked: `droplets.many` where more would live than may, `droplets.enlarged`
    /// where a picture is shown larger than it is. Warnings.
    Faults take_notices() { return std::exchange(notices_, {}); }

private:
    struct Drawn {
        DropMoment moment;
        std::array<std::shared_ptr<Picture>, drop_layer_count> layers;
    };
    DropPictures take_oldest();
    void note(const DropMoment& moment, const LiveDrops& live, const Droplets& droplets, const DropSprite& sprite);

    WorkerPool& pool_;
    std::list<Drawn> drawn_;  // last used first
    Faults notices_;
};

}  // namespace lacquer
