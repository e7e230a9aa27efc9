#include "core/ship/set_cost.h"

#include "core/cpu/cost.h"
#include "core/cpu/lower.h"

namespace lacquer {

SetCost set_cost(const ShipMaterial& material, PassMoment when) {
    SetCost cost;
    const Finish& finish = material.finish();
    for (const ShippedPass& shipped : material.passes) {
        if (shipped.when != when) continue;
        const PassCost counted = cost_of(optimised(lower(shipped.pass)));
        const double share = shipped.pass.scale * shipped.pass.scale;
        ++cost.passes;
        cost.reads += counted.reads * share;
        cost.instructions += counted.pixel * share;
        const auto width = static_cast<std::int64_t>(scaled_side(finish.frame_width, shipped.pass.scale));
        const auto height = static_cast<std::int64_t>(scaled_side(finish.frame_height, shipped.pass.scale));
        for (const std::string& name : shipped.pass.outputs)
            cost.bytes += width * height * resource_of(shipped.pass, name).channels * 4;
    }
    return cost;
}

}  // namespace lacquer
