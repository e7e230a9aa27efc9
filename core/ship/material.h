// What is shipped of a finish, whatever it is written as: its passes in order, with names that are safe everywhere.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/finish/checked.h"
#include "core/gpu/glsl.h"
#include "core/plan/plan.h"

namespace lacquer {

/// Most pictures that one pass may read: what every GLSL ES 3.00 and Direct3D 11 device takes (GLSL ES 3.00
/// specification, section 7.3, gl_MaxTextureImageUnits).
inline constexpr std::size_t most_shipped_pictures = 16;

/// When a pass is drawn: once before the first tick, at each tick, or for each frame.
enum class PassMoment { start, tick, frame };

/// "start", "tick" or "frame".
std::string_view pass_moment_name(PassMoment moment);

struct ShippedPass {
    Pass pass;
    PassMoment when = PassMoment::frame;
    std::string stem;  ///< of its files' names, such as "02_blur_rows"
};

/// What is asked of shipping.
struct ShipRequest {
    std::shared_ptr<const CheckedFinish> checked;
    std::string finish_path;  ///< where the finish lies, for its pictures; may be empty
    PictureAccess access = PictureAccess::exact;
    std::optional<double> at = {};  ///< the moment of a still, seconds; else where most of the effect is seen
    double frame_rate = 12;         ///< of frames that are drawn, a second
};

/// What somebody who draws a finish elsewhere has to know.
struct ShipLimit {
    Fault fault;                    ///< a warning with a mend
    std::string_view instead = {};  ///< id of an output that does without; empty if there is none
    friend bool operator==(const ShipLimit&, const ShipLimit&) = default;
};

struct ShipMaterial {
    ShipRequest request;
    std::string stem;                 ///< of file names and code, from the finish's name: "squall_strike"
    std::vector<ShippedPass> passes;  ///< those before the first tick, those of a tick, those of a frame; in order
    std::map<std::string, std::string, std::less<>> notes;  ///< the artist's, by steps
    std::string finished;                                   ///< the step or ground that is the finished picture
    std::vector<ShipLimit> limits;

    const Finish& finish() const { return *request.checked->finish; }
};

/// All of it. A finish with faults is not shipped. Faults: `ship.faults` with the first of them, `ship.pictures` for a
/// pass that reads more than `most_shipped_pictures`.
Result<ShipMaterial> ship_material(const ShipRequest& request);

/// The shader of a pass in a dialect, with the artist's notes.
Shader shipped_shader(const ShipMaterial& material, const ShippedPass& pass, Dialect dialect);

/// Letters, digits and single underscores of `text` in lower case, at most 48, beginning with a letter; `instead` where
/// nothing is left.
std::string safe_stem(std::string_view text, std::string_view instead);

}  // namespace lacquer
