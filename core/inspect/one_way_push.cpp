// A displacement by values that nobody centred: everything drifts to one side.
#include <algorithm>
#include <cmath>

#include "core/finish/step_edits.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"
#include "core/lang/rename.h"

namespace lacquer {

namespace {

// The least and most of one part of a value over the frame.
struct PartRange {
    float least = 0;
    float most = 0;
};
PartRange range_of(const DrawnStep& drawn, int part) {
    PartRange range{HUGE_VALF, -HUGE_VALF};
    for (int y = 0; y < drawn.picture.height; ++y) {
        for (int x = 0; x < drawn.picture.width; ++x) {
            const float value = drawn.picture.at(x, y)[part];
            range.least = std::min(range.least, value);
            range.most = std::max(range.most, value);
        }
    }
    return range;
}

// Pushed by changing amounts, and to the same side everywhere. An even shift is meant.
bool pushes_one_way(const DrawnStep& push, float least_push) {
    bool pushes = false;
    for (int part = 0; part < width_of(push.type); ++part) {
        const PartRange range = range_of(push, part);
        const float size = std::max(std::fabs(range.least), std::fabs(range.most));
        if (size < least_push) continue;
        const bool one_side = range.least >= -0.02F * size || range.most <= 0.02F * size;
        const bool varies = range.most - range.least > 0.3F * size;
        if (!one_side || !varies) return false;
        pushes = true;
    }
    return pushes;
}

// What within the words goes from 0 to 1 and should go from -1 to 1: a step or the words themselves.
std::string centred(Inspected& inspected, const std::string& step, const std::string& words) {
    for (const std::string& name : names_in(inspected.finish(), words)) {
        const Step* source = find_step(inspected.finish(), name);
        if (source == nullptr) continue;
        const DrawnStep* drawn = inspected.drawn(step, name);
        if (drawn == nullptr) continue;
        const PartRange range = range_of(*drawn, 0);
        if (range.least >= 0 && range.most <= 1.0F && range.most - range.least > 0.3F)
            return rename_in_formula(words, name, "(" + name + " * 2.0 - 1.0)");
    }
    return {};
}

void judge(Inspected& inspected, const Step& step, Span span, const std::string& push, Warnings& warnings) {
    const DrawnStep* drawn = inspected.drawn(step.name, push);
    // Half a pixel of a frame of a thousand.
    if (drawn == nullptr || width_of(drawn->type) > 2 || !pushes_one_way(*drawn, 0.0005F)) return;
    const PartRange range = range_of(*drawn, 0);
    const bool against = range.most <= 0 || -range.least > range.most;
    Warning warning{"inspect.one-way-push",
                    step.name,
                    span,
                    std::string("this pushes to one side only, so everything drifts ") +
                        (against ? "down and to the right" : "up and to the left"),
                    {}};
    const std::string words = words_of(step.formula, span);
    const std::string better = centred(inspected, step.name, words);
    if (!better.empty()) {
        warning.mends.push_back({"centre it, from -1 to 1", [name = step.name, span, better](const Finish& finish) {
                                     return replace_words(finish, name, span, better);
                                 }});
    }
    warnings.push_back(std::move(warning));
}

void find_one_way_push(Inspected& inspected, Warnings& warnings) {
    for_each_formula(inspected.checked(), [&](const Step& step, const Typed&) {
        const std::vector<Reading> all = readings(step.formula);
        for (const Reading& reading : all) {
            // Several readings of one picture are the taps of a blur.
            const auto same = std::count_if(all.begin(), all.end(),
                                            [&](const Reading& other) { return other.picture == reading.picture; });
            const std::string where = words_of(step.formula, reading.where);
            if (same == 1 && where != "uv") judge(inspected, step, reading.where, "(" + where + ") - uv", warnings);
        }
        for (const HandedOver& argument : handed_over(inspected.checked(), step.formula)) {
            if (argument.role == "displacement" && !argument.centred)
                judge(inspected, step, argument.span, words_of(step.formula, argument.span), warnings);
        }
    });
}

}  // namespace

Inspection one_way_push_inspection() {
    return {"one_way_push", "displacements that nobody centred", find_one_way_push};
}

}  // namespace lacquer
