// Whether a set draws what the application draws.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "core/base/cancel.h"
#include "core/ship/moment.h"
#include "core/ship/output.h"

namespace lacquer {

/// One pass of a set to be drawn: its values by the sources of uniforms, its pictures by theirs.
struct PassDrawing {
    const ShippedPass& pass;
    int width = 1;
    int height = 1;
    const std::map<std::string, Value, std::less<>>& values;
    const std::map<std::string, PictureView, std::less<>>& pictures;
};

/// Draws a pass by what was shipped: 4 channels.
using DrawShipped = std::function<Result<Picture>(const PassDrawing&)>;

/// A way to draw a target's shaders on this machine.
struct ShippedDrawer {
    std::string name;  ///< the driver, in its own words
    DrawShipped draw;
};

/// What was found of a target.
struct Verified {
    bool was_run = false;
    std::string drawn_by;    ///< the driver; or why it could not be run
    double largest = 0;      ///< difference of any number that is not counted as turned over, relative beyond 1
    double turned_over = 0;  ///< share of pixels that lie further off than `verified_within`: thresholds and places
                             ///< that round the other way
    /// What drawing a moment took, its ticks and reading its passes back included, at the moment where it took least.
    double milliseconds = 0;
    std::vector<double> moments;  ///< seconds
    int width = 0;                ///< of the frame in which it was drawn, pixels
    int height = 0;

    /// Drawn, within `verified_within` but for `most_turned_over` of the pixels.
    bool holds() const;
};

inline constexpr double verified_within = 1e-3;
inline constexpr double most_turned_over = 2e-3;

/// How and where to verify.
struct VerifyRequest {
    std::shared_ptr<const Tape> tape = {};  ///< null for the finish's own
    std::vector<double> moments;
    int width = 0;
    int height = 0;
};

/// Five moments over the tape in a frame whose longer side is at most 480 pixels.
VerifyRequest usual_verification(const ShipMaterial& material);

/// Draws every pass at every moment by `drawer`, from what the application has before it, and compares with what the
/// application has after it. Faults: those of drawing, `ship.stopped`.
Result<Verified> verify_by(const ShipMaterial& material, const ShippedDrawer& drawer, const VerifyRequest& request,
                           WorkerPool& pool, const Cancel& cancel);

/// What draws a target's files on this machine. Faults: `gpu.none`, `gpu.no-vulkan`, `ship.unrun` for a target that no
/// driver here runs.
Result<ShippedDrawer> drawer_of(const ShipMaterial& material, const ShipOutput& output, const ShippedFiles& files);

/// The bytes of a shader's block of uniforms, by the rules of std140.
std::vector<std::uint8_t> block_bytes(const Shader& shader, const PassDrawing& drawing);

}  // namespace lacquer
