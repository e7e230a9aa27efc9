// A dial that snaps when a cue comes.
#include <cmath>

#include "core/base/text.h"
#include "core/inspect/formula_parts.h"
#include "core/inspect/inspection.h"

namespace lacquer {

namespace {

// Between two frames of a fast display.
constexpr double blink = 1.0 / 240;

// The response of this name that takes no time to rise or to go.
Mend slower(const Response& response) {
    const std::string setting = response.kind == "strike" ? "rise" : "seconds";
    const double seconds = response.kind == "strike" ? 0.08 : 0.25;
    return {"take " + plain_number(seconds, 2) + " s over it",
            [name = response.name, setting, seconds](const Finish& finish) -> Result<Finish> {
                Finish changed = finish;
                for (Response& own : changed.responses) {
                    if (own.name == name) own.settings[setting] = seconds;
                }
                return changed;
            }};
}

bool takes_no_time(const Response& response) {
    if (response.kind != "strike" && response.kind != "sweep") return false;
    const auto seconds = number_of(response, response.kind == "strike" ? "rise" : "seconds");
    return seconds && *seconds < blink;
}

void find_jump(Inspected& inspected, Warnings& warnings) {
    const Play play(inspected.shared_checked(), inspected.tape());
    for (const Dial& dial : inspected.finish().dials) {
        if (dial.formula.empty() || dial.kind == DialKind::toggle || dial.kind == DialKind::integer) continue;
        for (const Cue& cue : inspected.tape().cues) {
            if (cue.strength <= 0) continue;
            const auto value_at = [&](double time) {
                const DriveValues values = play.values(time);
                const auto found = values.find(dial.name);
                return found == values.end() ? 0.0 : setting_from(found->second)[0];
            };
            const double jumped = std::fabs(value_at(cue.at + blink) - value_at(std::max(0.0, cue.at - blink / 8)));
            if (!(jumped > 0.3 * (dial.most - dial.least))) continue;
            Warning warning{
                "inspect.jump",
                dial.name,
                {},
                "it snaps when " + shown_name(cue.name) + " comes: by " + plain_number(jumped, 2) + " within a frame",
                {}};
            for (const Response& response : inspected.finish().responses) {
                const std::vector<std::string> names = names_in(inspected.finish(), dial.formula);
                const bool used = std::find(names.begin(), names.end(), response.name) != names.end();
                if (used && takes_no_time(response)) warning.mends.push_back(slower(response));
            }
            warnings.push_back(std::move(warning));
            break;
        }
    }
}

}  // namespace

Inspection jump_inspection() { return {"jump", "dials that snap when a cue comes", find_jump}; }

}  // namespace lacquer
