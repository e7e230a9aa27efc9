// Colours that a file hides under zero opacity, and that show where the picture should be clear.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/inspect/inspection.h"

namespace lacquer {

namespace {

// Share of the frame where the picture is clear, hides a colour, and the finished picture shows just that.
double share_shown(const DrawnStep& finished, const DrawnStep& picture) {
    std::size_t shown = 0;
    for (int y = 0; y < picture.picture.height; ++y) {
        for (int x = 0; x < picture.picture.width; ++x) {
            const float* hidden = picture.picture.at(x, y);
            const float* seen = finished.picture.at(x, y);
            const bool coloured = std::max({hidden[0], hidden[1], hidden[2]}) > 0.02F;
            const bool there = finished.picture.channels < 4 || seen[3] > 0.05F;
            if (hidden[3] > 0.0F || !coloured || !there) continue;
            float apart = 0;
            for (int c = 0; c < 3; ++c) apart = std::max(apart, std::fabs(hidden[c] - seen[c]));
            shown += apart < 0.02F ? 1 : 0;
        }
    }
    return static_cast<double>(shown) / picture.picture.width / picture.picture.height;
}

Result<Finish> bled(const Finish& finish, const std::string& ground) {
    Step step;
    step.name = free_name(finish, ground + "_bled");
    step.formula = "bleed(" + ground + ", 64)";
    step.note = "edge colours in place of the hidden ones";
    const std::string name = step.name;
    Finish changed = finish;
    if (changed.coats.empty()) return changed;
    auto& steps = changed.coats.front().steps;
    steps.insert(steps.begin(), std::move(step));
    Result<Finish> used = use_instead(std::move(changed), ground, name);
    return used;
}

void find_hidden_colours(Inspected& inspected, Warnings& warnings) {
    const DrawnStep* finished = inspected.finished({}, 0);
    if (finished == nullptr || finished->picture.channels < 3) return;
    for (const Ground& ground : inspected.finish().grounds) {
        if (ground.as<PictureGround>() == nullptr || is_data(ground)) continue;
        const DrawnStep* picture = inspected.ground(ground.name);
        if (picture == nullptr || share_shown(*finished, *picture) < 0.002) continue;
        Warning warning{
            "inspect.hidden-colours",
            ground.name,
            {},
            "colours hidden under zero opacity in '" + shown_name(ground.name) + "' show where it should be clear",
            {}};
        warning.mends.push_back({"bleed its edge colours outward",
                                 [name = ground.name](const Finish& finish) { return bled(finish, name); }});
        warnings.push_back(std::move(warning));
    }
}

}  // namespace

Inspection hidden_colours_inspection() { return {"hidden_colours", "hidden colours that show", find_hidden_colours}; }

}  // namespace lacquer
