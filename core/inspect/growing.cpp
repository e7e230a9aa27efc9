// A loop that gets more in each tick than it loses: it never fades.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/step_edits.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"

namespace lacquer {

namespace {

struct Brightest {
    double value = 0;
    int x = 0;
    int y = 0;
};

Brightest brightest_of(const Picture& picture) {
    Brightest most;
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x) {
            for (int c = 0; c < picture.channels; ++c) {
                const double value = std::fabs(static_cast<double>(picture.at(x, y)[c]));
                // What is beyond all numbers is the most that there is.
                if (std::isfinite(most.value) && !(value <= most.value)) most = {value, x, y};
            }
        }
    }
    return most;
}

void find_growing(Inspected& inspected, Warnings& warnings) {
    if (inspected.checked().ticked.empty()) return;
    const double rate = inspected.finish().ticks.rate;
    for_each_formula(inspected.checked(), [&](const Step& step, const Typed&) {
        const bool feeds_itself = step.formula.find("previous") != std::string::npos;
        if (!feeds_itself || find_ticked(inspected.checked(), step.name) == nullptr) return;
        const DrawnStep* soon = inspected.after(step.name, 1, rate);
        const DrawnStep* later = inspected.after(step.name, 4, rate);
        if (soon == nullptr || later == nullptr) return;
        const Brightest before = brightest_of(soon->picture);
        const Brightest after = brightest_of(later->picture);
        // Up to 1 is what masks may do.
        const bool grows = !std::isfinite(after.value) || (after.value > 1.5 && after.value > before.value * 2);
        if (!grows) return;
        const auto place = [](int at, int side) { return plain_number((at + 0.5) / side, 2); };
        Warning warning{
            "inspect.grows",
            step.name,
            {},
            "it gains more than it loses: after 4 s there is " +
                (std::isfinite(after.value) ? plain_number(after.value, 3) : std::string("no number any more")) +
                " at " + place(after.x, later->picture.width) + ", " + place(after.y, later->picture.height) +
                " of the frame, after 1 s " +
                (std::isfinite(before.value) ? plain_number(before.value, 3) : std::string("neither")),
            {}};
        const Span whole{0, static_cast<std::uint32_t>(step.formula.size())};
        warning.mends.push_back({"leave half of it after a second",
                                 [name = step.name, whole, better = "fade_by(" + step.formula + ", 0.5)"](
                                     const Finish& finish) { return replace_words(finish, name, whole, better); }});
        warnings.push_back(std::move(warning));
    });
}

}  // namespace

Inspection growing_inspection() { return {"growing", "loops that never fade", find_growing}; }

}  // namespace lacquer
