// Measures of how a finish behaves over the range of a dial. Each is a file of its own in `measures`.
#pragma once

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/inspect/swept.h"
#include "core/inspect/warning.h"

namespace lacquer {

enum class Verdict {
    passes,
    falls_short,
    says_nothing,  ///< it can't be told for such a dial, or there is nothing to hold it to
};

/// A curve of a measure along the sweep.
struct MeasureCurve {
    std::string words;
    std::vector<std::pair<double, double>> points;  ///< the dial's value, and what was measured there
};

/// What a measure found.
struct Measured {
    std::string id;
    std::string title;
    Verdict verdict = Verdict::says_nothing;
    std::string words;  ///< in plain words, with numbers and units
    std::vector<std::pair<std::string, double>> numbers;
    std::vector<MeasureCurve> curves;
    std::vector<Mend> mends;
    std::string shape;  ///< of the frame in which it falls short, where several were looked at: "21:9"
};

struct Measure {
    std::string_view id;     ///< as it stands in files
    std::string_view title;  ///< as it is shown
    std::string_view about;  ///< what it holds a dial to
    void (*run)(Swept&, Measured&) = nullptr;
};

/// All of them, in the order in which they are shown.
std::span<const Measure> measures();
/// Null if there is none of the id.
const Measure* find_measure(std::string_view id);

/// A frame's shape that is looked at besides the finish's own: its words and its sides' ratio.
struct FrameShape {
    std::string_view words;
    double aspect = 1;
};
/// 16:9, 21:9, 4:3, 1:1 and 9:16.
std::span<const FrameShape> frame_shapes();
/// The size of such a frame with as many pixels as another, about; both sides even.
std::pair<int, int> size_of_shape(const FrameShape& shape, int width, int height);

struct MeasureOptions {
    bool all_shapes = false;            ///< in all shapes of the frame, too; what is told is the worst
    std::vector<std::string> ids = {};  ///< which measures; empty is all
    /// Is told of each as soon as it is done in the finish's own frame; may be empty.
    std::function<void(const Measured&)> told = {};
};

/// Measures a sweep. Called off, it gives those that were done before. Nothing if there is no such dial.
std::vector<Measured> measure(const RenderRequest& request, Renderer& renderer, const Cancel& cancel,
                              const Sweep& sweep, const MeasureOptions& options = {});

// One file each.
Measure rest_measure();
Measure end_measure();
Measure pace_measure();
Measure dead_travel_measure();
Measure jump_measure();
Measure range_measure();
Measure rest_value_measure();
Measure seen_measure();
Measure cost_measure();

}  // namespace lacquer
