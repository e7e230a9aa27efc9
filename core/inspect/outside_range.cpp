// Masks and opacities that leave 0..1.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/step_edits.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"

namespace lacquer {

namespace {

constexpr float leeway = 0.002F;

double share_outside(const DrawnStep& drawn, int part) {
    std::size_t outside = 0;
    for (int y = 0; y < drawn.picture.height; ++y) {
        for (int x = 0; x < drawn.picture.width; ++x) {
            const float value = drawn.picture.at(x, y)[part];
            outside += value < -leeway || value > 1 + leeway ? 1 : 0;
        }
    }
    return static_cast<double>(outside) / drawn.picture.width / drawn.picture.height;
}

Mend clamp_mend(const std::string& step, Span span, const std::string& words) {
    return {"clamp to 0..1", [step, span, held = "clamp(" + words + ", 0.0, 1.0)"](const Finish& finish) {
                return replace_words(finish, step, span, held);
            }};
}

void find_outside_range(Inspected& inspected, Warnings& warnings) {
    for_each_formula(inspected.checked(), [&](const Step& step, const Typed& typed) {
        for (const HandedOver& argument : handed_over(inspected.checked(), step.formula)) {
            if (argument.role != "mask" && argument.role != "opacity") continue;
            const std::string words = words_of(step.formula, argument.span);
            const DrawnStep* drawn = inspected.drawn(step.name, words);
            if (drawn == nullptr || drawn->type != Type::number) continue;
            const double share = share_outside(*drawn, 0);
            if (share <= 0) continue;
            warnings.push_back({"inspect.outside-range",
                                step.name,
                                argument.span,
                                "this " + argument.role + " leaves 0..1 at " + percent(share) + " of the pixels",
                                {clamp_mend(step.name, argument.span, words)}});
        }
        if (finished_step(inspected.checked()) != step.name || typed.type != Type::vec4) return;
        const DrawnStep* drawn = inspected.drawn(step.name, step.formula);
        const double share = drawn == nullptr ? 0 : share_outside(*drawn, 3);
        if (share <= 0) return;
        const Span whole{0, static_cast<std::uint32_t>(step.formula.size())};
        Mend mend{"clamp the opacity to 0..1", [name = step.name, whole, text = step.formula](const Finish& finish) {
                      const std::string held = "vec4((" + text + ").rgb, clamp((" + text + ").a, 0.0, 1.0))";
                      return replace_words(finish, name, whole, held);
                  }};
        warnings.push_back({"inspect.outside-range",
                            step.name,
                            {},
                            "the opacity leaves 0..1 at " + percent(share) + " of the pixels",
                            {std::move(mend)}});
    });
}

}  // namespace

Inspection outside_range_inspection() {
    return {"outside_range", "masks and opacities outside 0..1", find_outside_range};
}

}  // namespace lacquer
