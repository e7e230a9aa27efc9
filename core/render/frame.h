// What is asked of a frame, and what it gives.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/cpu/program.h"
#include "core/finish/checked.h"
#include "core/finish/play.h"
#include "core/plan/plan.h"
#include "core/render/view.h"

namespace lacquer {

/// What to draw.
struct RenderRequest {
    std::shared_ptr<const CheckedFinish> checked;
    std::string finish_path;  ///< where the finish lies, for its pictures; may be empty
    double time = 0;
    std::shared_ptr<const Tape> tape = {};  ///< what was played; null for the finish's own tape
    HeldDials held;
    int width = 0;  ///< drawn size in pixels; 0 draws the frame's own
    int height = 0;
    /// The frame's size for this drawing; 0 is the finish's own.
    int frame_width = 0;
    int frame_height = 0;
    /// Steps whose values are wanted; an empty name stands for the finished picture.
    std::vector<std::string> steps;
    bool small_grounds = false;  ///< pictures averaged down to the drawn size first
    /// If not empty, the wanted values at these pixels of the drawn size only: a picture of one row, a pixel a point.
    std::vector<PixelPoint> points;
    /// More such requests will follow soon: what goes on from tick to tick does so from where it is.
    bool in_a_drag = false;
    /// Ticks that are not at hand are drawn at the drawn size, not the frame's: sooner there, and roughly the same.
    bool rough_ticks = false;
    bool line_grid = false;  ///< straight lines in place of every picture, to see what bends them
    /// Only what the eye gets of the wanted values, in this style: images in place of numbers, which are never all in
    /// memory then. Does not go with points.
    std::optional<ViewStyle> seen = {};

    // Compiled once, in renderer.cpp, as those of `Finish` are.
    RenderRequest();
    RenderRequest(const RenderRequest&);
    RenderRequest(RenderRequest&&) noexcept;
    RenderRequest& operator=(const RenderRequest&);
    RenderRequest& operator=(RenderRequest&&) noexcept;
    ~RenderRequest();
};

/// A step's value at each pixel: as many channels as its type has parts.
struct DrawnStep {
    std::string name;
    Type type = Type::number;
    Picture picture;
    Image8 image = {};  ///< in place of the picture, where what is seen was asked for
};

struct Frame {
    std::vector<DrawnStep> steps;  ///< those wanted that have no fault: steps as they were wanted, then pictures
    Faults notices;                ///< missing pictures
    DriveValues values;
    std::size_t passes = 0;
    std::int64_t ticks = 0;        ///< that had to be drawn first
    double tick_milliseconds = 0;  ///< that they took, together
    bool ticks_are_rough = false;  ///< they went on from others than the values of now would have given
    double milliseconds = 0;
    std::vector<double> pass_milliseconds;  ///< of each pass of `plan_for` the same steps
};

/// The plan that drawing these steps follows, for explaining, too.
Plan plan_for(const CheckedFinish& checked, const std::vector<std::string>& steps);

}  // namespace lacquer
