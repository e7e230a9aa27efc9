// A picture read at places that were corrected for the frame's shape, which serve distance only.
#include <algorithm>
#include <cmath>

#include "core/finish/step_edits.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"
#include "core/lang/rename.h"

namespace lacquer {

namespace {

// True if the places reach well beyond the picture, or leave much of it out.
bool crops_or_squeezes(const DrawnStep& where) {
    float left = HUGE_VALF;
    float right = -HUGE_VALF;
    float top = HUGE_VALF;
    float bottom = -HUGE_VALF;
    for (int y = 0; y < where.picture.height; ++y) {
        for (int x = 0; x < where.picture.width; ++x) {
            const float* at = where.picture.at(x, y);
            left = std::min(left, at[0]);
            right = std::max(right, at[0]);
            top = std::min(top, at[1]);
            bottom = std::max(bottom, at[1]);
        }
    }
    const auto off = [](float from, float to) { return from < -0.15F || to > 1.15F || from > 0.15F || to < 0.85F; };
    return off(left, right) || off(top, bottom);
}

void find_corrected_reading(Inspected& inspected, Warnings& warnings) {
    const CheckedFinish& checked = inspected.checked();
    for_each_formula(checked, [&](const Step& step, const Typed&) {
        for (const Reading& reading : readings(step.formula)) {
            const auto& grounds = inspected.finish().grounds;
            const bool repeats = std::any_of(grounds.begin(), grounds.end(), [&](const Ground& ground) {
                const Sampling* sampling = sampling_of(ground);
                return ground.name == reading.picture && sampling != nullptr && sampling->wrap != Wrap::clamp;
            });
            const std::string where = words_of(step.formula, reading.where);
            std::string plain = where;
            for (const std::string& name : names_in(inspected.finish(), where)) {
                const CheckedStep* found = find_step(checked, name);
                const bool places = found != nullptr && found->typed && found->typed->type == Type::vec2;
                if (places && goes_by_shape(checked, name)) plain = rename_in_formula(plain, name, "uv");
            }
            if (repeats || plain == where) continue;
            const DrawnStep* drawn = inspected.drawn(step.name, where);
            if (drawn == nullptr || drawn->type != Type::vec2 || !crops_or_squeezes(*drawn)) continue;
            Warning warning{"inspect.corrected-reading",
                            step.name,
                            reading.where,
                            "the picture is cropped or squeezed: these places were corrected for the frame's shape, "
                            "which serves distances only",
                            {}};
            warning.mends.push_back(
                {"read at the plain places", [name = step.name, span = reading.where, plain](const Finish& finish) {
                     return replace_words(finish, name, span, plain);
                 }});
            warnings.push_back(std::move(warning));
        }
    });
}

}  // namespace

Inspection corrected_reading_inspection() {
    return {"corrected_reading", "pictures read at places that serve distance only", find_corrected_reading};
}

}  // namespace lacquer
