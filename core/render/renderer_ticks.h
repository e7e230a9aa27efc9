// What a renderer finds of ticks for a frame.
#pragma once

#include <cstdint>

#include "core/render/renderer.h"

namespace lacquer {

/// Pictures for a frame, and what it took to get them.
struct Renderer::Ticked {
    TickPictures left;
    std::int64_t drawn = 0;
    double milliseconds = 0;
    bool are_rough = false;
    Faults notices;
};

/// What all ticks of one request have in common.
struct Renderer::TickRun {
    const RenderRequest& request;
    const FlowKey& key;
    const std::vector<std::int64_t>& begins;  ///< ticks at which all begins anew, in order
    const Cancel& cancel;
    bool is_rough = false;  ///< drawn at the request's own size

    /// Small pictures and single points are drawn by this processor, whatever draws the ticks.
    bool wanted_here() const { return request.small_grounds || !request.points.empty(); }
};

/// Whether some pass reads what ticks have left, or says how far they are.
bool reads_ticks(const Plan& plan);

}  // namespace lacquer
