// Pictures that fill a frame larger than they are, or of another shape.
#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/step_edits.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"

namespace lacquer {

namespace {

constexpr double too_large = 1.34;    // below that nobody sees it
constexpr double other_shape = 0.03;  // share by which width over height may differ

// True if a step shows it over the whole frame: by its name alone, or read at plain uv.
bool fills_the_frame(Inspected& inspected, const std::string& ground) {
    bool fills = false;
    for_each_formula(inspected.checked(), [&](const Step& step, const Typed& typed) {
        const auto look = [&](const Typed& node) {
            const auto* here = node.as<NameHere>();
            fills = fills || (here != nullptr && here->symbol == SymbolKind::ground && here->name == ground);
        };
        visit_nodes(typed, look);
        for (const Reading& reading : readings(step.formula))
            fills = fills || (reading.picture == ground && words_of(step.formula, reading.where) == "uv");
    });
    return fills;
}

Result<Finish> fitted(const Finish& finish, const std::string& ground, const std::string& call) {
    Step step;
    step.name = free_name(finish, ground + "_fitted");
    step.formula = call;
    const std::string name = step.name;
    Finish changed = finish;
    if (changed.coats.empty()) return changed;
    auto& steps = changed.coats.front().steps;
    steps.insert(steps.begin(), std::move(step));
    return use_instead(std::move(changed), ground, name);
}

void find_picture_size(Inspected& inspected, Warnings& warnings) {
    const Finish& finish = inspected.finish();
    for (const Ground& ground : finish.grounds) {
        const auto size = inspected.size_of(ground);
        if (!size || is_data(ground) || !fills_the_frame(inspected, ground.name)) continue;
        const double across = static_cast<double>(finish.frame_width) / size->first;
        const double down = static_cast<double>(finish.frame_height) / size->second;
        const std::string name = shown_name(ground.name);
        if (std::fabs(across / down - 1) > other_shape) {
            Warning warning{"inspect.other-shape",
                            ground.name,
                            {},
                            fmt::format("'{}' is {} x {} and fills a frame of {} x {}: it is squeezed", name,
                                        size->first, size->second, finish.frame_width, finish.frame_height),
                            {}};
            const auto mend = [&](const char* words, const std::string& call) {
                warning.mends.push_back(
                    {words, [own = ground.name, call](const Finish& f) { return fitted(f, own, call); }});
            };
            mend("fit all of it in", "fit(" + ground.name + ")");
            mend("fill the frame", "fit(" + ground.name + ", 0, 1)");
            warnings.push_back(std::move(warning));
        } else if (std::min(across, down) > too_large) {
            warnings.push_back({"inspect.magnified",
                                ground.name,
                                {},
                                fmt::format("'{}' is {} x {} and is shown {} times as large as it is", name,
                                            size->first, size->second, plain_number(std::min(across, down), 2)),
                                {}});
        }
    }
}

}  // namespace

Inspection picture_size_inspection() {
    return {"picture_size", "pictures of another size or shape than the frame", find_picture_size};
}

}  // namespace lacquer
