// A dial that sweeps an effect from nothing to everything, but does not quite begin or end there.
#include <cmath>

#include "core/base/text.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"
#include "core/inspect/picture_changes.h"
#include "core/inspect/range_edits.h"

namespace lacquer {

namespace {

// The first place beyond the end at which `is_clean`.
template <class Clean>
std::optional<double> clean_beyond(double end, double reach, Clean is_clean) {
    for (const double share : {0.05, 0.1, 0.2, 0.35, 0.5, 1.0}) {
        const double place = std::round((end + reach * share) * 1e6) / 1e6;
        if (is_clean(place)) return place;
    }
    return std::nullopt;
}

void judge(Inspected& inspected, const Dial& dial, const DrawnStep& picture, Warnings& warnings) {
    const DrawnStep* start = inspected.finished(dial.name, dial.least);
    const DrawnStep* end = inspected.finished(dial.name, dial.most);
    if (start == nullptr || end == nullptr || end->picture.channels < 3) return;
    const double begun = share_changed(*start, picture);
    const double left_opaque = share_opaque(*end);
    const double done = left_opaque < 1 ? 1 - left_opaque : share_changed(*end, picture);
    constexpr double little = 0.2;
    // Only what goes from nearly nothing to nearly everything is such a sweep.
    if (begun > little || done < 1 - little) return;
    const double reach = dial.most - dial.least;
    if (begun > 0) {
        Warning warning{"inspect.unclean-start",
                        dial.name,
                        {},
                        "at its start " + percent(begun) + " of the picture is changed already",
                        {}};
        const auto place = clean_beyond(dial.least, -reach, [&](double at) {
            const DrawnStep* drawn = inspected.finished(dial.name, at);
            return drawn != nullptr && share_changed(*drawn, picture) == 0;
        });
        // What no setting undoes is not this dial's doing, but that of other steps.
        if (place) {
            warning.mends.push_back(range_end_mend("begin at " + plain_number(*place, 3), dial.name, true, *place));
            warnings.push_back(std::move(warning));
        }
    }
    if (left_opaque < 1 && left_opaque > 0) {
        Warning warning{"inspect.unclean-end",
                        dial.name,
                        {},
                        "at its end " + percent(left_opaque) + " of the frame is still there",
                        {}};
        const auto place = clean_beyond(dial.most, reach, [&](double at) {
            const DrawnStep* drawn = inspected.finished(dial.name, at);
            return drawn != nullptr && share_opaque(*drawn) == 0;
        });
        if (place)
            warning.mends.push_back(range_end_mend("end at " + plain_number(*place, 3), dial.name, false, *place));
        warnings.push_back(std::move(warning));
    }
}

void find_unclean_ends(Inspected& inspected, Warnings& warnings) {
    const Ground* first = first_picture(inspected.finish());
    if (first == nullptr) return;
    for (const Dial& dial : inspected.finish().dials) {
        if (dial.kind != DialKind::number || inspected.called_off()) continue;
        const DrawnStep* picture = inspected.ground(first->name);
        if (picture == nullptr) return;
        judge(inspected, dial, *picture, warnings);
    }
}

}  // namespace

Inspection unclean_ends_inspection() {
    return {"unclean_ends", "sweeps that do not start and end clean", find_unclean_ends};
}

}  // namespace lacquer
