// A finish while one of its dials goes from one end of a range to the other. What has been drawn of it is kept, so that
// measures share their frames.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/render/renderer.h"

namespace lacquer {

/// What is swept, and what is looked at.
struct Sweep {
    std::string dial;
    double from = 0;
    double to = 1;
    std::string step;  ///< that is looked at; empty is the finished picture
};

/// A dial's own range, over which it is swept unless something else is asked for.
Sweep whole_range(const Dial& dial);

/// How far the picture has come from what it is at the sweep's start to what it is at its end: 0..1, the mean over all
/// pixels that differ between the two.
struct WayPoint {
    double value = 0;
    double share = 0;
};

struct Way {
    std::vector<WayPoint> points;  ///< from the start to the end, closer where much changes
    bool ends_differ = false;
    bool is_one_way = false;  ///< it never goes back by more than a fiftieth

    /// Where it has come so far first, between points evenly; the end if it never does.
    double value_at(double share) const;
};

class Swept {
public:
    /// The request tells of the finish, its pictures, the moment, what else is held and the frame; its steps and size
    /// do not matter. The dial must be one of the finish.
    Swept(const RenderRequest& request, Renderer& renderer, const Cancel& cancel, Sweep sweep);

    const CheckedFinish& checked() const { return *request_.checked; }
    const Finish& finish() const { return *request_.checked->finish; }
    const Dial& dial() const { return *find_dial(finish(), sweep_.dial); }
    const Sweep& sweep() const { return sweep_; }
    double from() const { return sweep_.from; }
    double to() const { return sweep_.to; }
    bool called_off() const { return cancel_.requested(); }
    /// True where values between two others mean something: for numbers and colours.
    bool is_smooth() const;
    /// A value as words: "0.42", "12 px".
    std::string words_of(double value) const;
    /// The value that is a share of the way from start to end; whole for dials that have whole values only.
    double value_at(double share) const;

    // Small frames. Null where nothing could be drawn or the work was called off.
    const DrawnStep* at(double value);
    const DrawnStep* step_at(const std::string& step, double value);
    /// A formula in place of a step's own.
    const DrawnStep* formula_at(const std::string& step, const std::string& formula, double value);
    /// The first picture among the grounds, as it comes in; null if there is none.
    const DrawnStep* untouched();

    // Frames of the frame's own size.
    const DrawnStep* whole_at(double value);
    /// The same, not kept: for searches.
    std::optional<DrawnStep> whole_once(double value);
    const DrawnStep* whole_untouched();
    /// With straight lines in place of all pictures.
    const DrawnStep* whole_of_lines(double value);
    const DrawnStep* whole_untouched_lines();
    /// When nothing has been played, at 0 s, nothing held but what the request holds.
    const DrawnStep* whole_at_rest();
    /// How long the frame at a value takes, ms; drawn a second time, so that nothing is compiled or read for it.
    std::optional<double> milliseconds_at(double value);

    /// The value that a driven dial has when nothing has been played, at 0 s; nothing for one that stands still.
    std::optional<double> rest_value();

    const Way& way();

private:
    RenderRequest small(double value) const;
    RenderRequest whole(double value) const;
    RenderRequest untouched_request() const;
    const DrawnStep* draw(const std::string& key, const RenderRequest& request);
    DialValue setting(double value) const;
    void refine(const Picture& start, const Picture& end);

    RenderRequest request_;
    Renderer& renderer_;
    const Cancel& cancel_;
    Sweep sweep_;
    std::map<std::string, std::optional<DrawnStep>, std::less<>> kept_;
    std::map<double, double> milliseconds_;
    std::optional<Way> way_;
};

}  // namespace lacquer
