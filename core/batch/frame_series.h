// Many frames of a finish as files: drawn, encoded and written at once.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/base/cancel.h"
#include "core/batch/write_frame.h"
#include "core/cpu/kernels.h"
#include "core/render/renderer.h"

namespace lacquer {

/// A frame of a series: which moment, and where it goes.
struct SeriesFrame {
    int number = 0;
    double time = 0;  ///< seconds
    std::string path;
};

struct SeriesOptions {
    FrameWriting writing;
    Backend backend = Backend::cpu;
    std::optional<KernelSet> kernels;
    int threads = 0;                                           ///< 0 is one for each processor
    std::size_t memory = std::size_t{2} * 1024 * 1024 * 1024;  ///< bytes that frames under way may hold, about
    std::shared_ptr<RenderStores> stores = {};                 ///< to share with others; null for its own
    /// Called before and after a frame is written, by the thread that writes it; by several at once.
    std::function<void(const SeriesFrame&)> before_writing = nullptr;
    std::function<void(const SeriesFrame&)> after_writing = nullptr;
    /// Of a series that is drawn in order: called before its first frame and after its last with what draws them, to
    /// bring in what ticks had left, and to keep it.
    std::function<void(Renderer&, const RenderRequest& first)> before_first = nullptr;
    std::function<void(Renderer&, const RenderRequest& last)> after_last = nullptr;
};

/// Is told of each frame that is written, in any order, one at a time. `drawn_by` is what drew it.
using SeriesWatch = std::function<void(const SeriesFrame& frame, const Frame& drawn, const std::string& drawn_by)>;

/// Draws all of these as the request says, but at their own moments. Frames that don't go on from ticks are drawn whole
/// by each thread for itself; what ticks, and what a driver draws, is drawn in order, while other threads encode and
/// write. Called off, no file is left half. Every frame has the bits that it would have alone. Faults: the first of
/// those of drawing and writing; `render.cancelled`.
Result<Done> draw_series(const RenderRequest& request, const std::vector<SeriesFrame>& frames,
                         const SeriesOptions& options, const SeriesWatch& watch, const Cancel& cancel);

/// "storm.png" as "storm-0007.png".
std::string numbered_path(const std::string& path, int number);
/// "storm.png" as "storm-night.png".
std::string labelled_path(const std::string& path, const std::string& label);

}  // namespace lacquer
