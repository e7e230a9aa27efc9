// A dial that sweeps an effect from nothing to everything, but does not quite begin or end there.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"

namespace lacquer {

namespace {

// Share of the pixels that are there in the picture and differ from it.
double share_changed(const DrawnStep& now, const DrawnStep& picture) {
    const int channels = std::min(now.picture.channels, picture.picture.channels);
    std::size_t there = 0;
    std::size_t changed = 0;
    for (int y = 0; y < now.picture.height; ++y) {
        for (int x = 0; x < now.picture.width; ++x) {
            const float* a = now.picture.at(x, y);
            const float* b = picture.picture.at(x, y);
            if (picture.picture.channels == 4 && b[3] < 0.5F) continue;
            ++there;
            bool differs = false;
            for (int c = 0; c < channels; ++c) differs = differs || std::fabs(a[c] - b[c]) > 0.004F;
            changed += differs ? 1 : 0;
        }
    }
    return there == 0 ? 0 : static_cast<double>(changed) / static_cast<double>(there);
}

double share_opaque(const DrawnStep& now) {
    if (now.picture.channels < 4) return 1;
    std::size_t opaque = 0;
    for (int y = 0; y < now.picture.height; ++y) {
        for (int x = 0; x < now.picture.width; ++x) opaque += now.picture.at(x, y)[3] > 0.004F ? 1 : 0;
    }
    return static_cast<double>(opaque) / now.picture.width / now.picture.height;
}

// Moves an end of the range, and the setting of the response that alone drives the dial there.
Mend wider(const Dial& dial, bool start, double to) {
    const std::string words = std::string(start ? "begin at " : "end at ") + plain_number(to, 3);
    return {
        words, [name = dial.name, start, to](const Finish& finish) -> Result<Finish> {
            Finish changed = finish;
            for (Dial& own : changed.dials) {
                if (own.name != name) continue;
                const double from = start ? own.least : own.most;
                (start ? own.least : own.most) = to;
                for (double* setting : {&own.value[0], &own.default_value[0]}) {
                    if (*setting == from) *setting = to;
                }
                for (Response& response : changed.responses) {
                    if (response.name != own.formula) continue;
                    const ResponseKind* kind = find_response_kind(response.kind);
                    for (const ArgumentSpec& spec : kind == nullptr ? std::vector<ArgumentSpec>{} : kind->arguments) {
                        if (spec.unit.empty() && number_of(response, spec.name) == from)
                            response.settings[std::string(spec.name)] = to;
                    }
                }
            }
            return changed;
        }};
}

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
            warning.mends.push_back(wider(dial, true, *place));
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
        if (place) warning.mends.push_back(wider(dial, false, *place));
        warnings.push_back(std::move(warning));
    }
}

void run(Inspected& inspected, Warnings& warnings) {
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

Inspection unclean_ends_inspection() { return {"unclean_ends", "sweeps that do not start and end clean", run}; }

}  // namespace lacquer
