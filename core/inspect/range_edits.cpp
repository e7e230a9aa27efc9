#include "core/inspect/range_edits.h"

#include <algorithm>
#include <cmath>

#include "core/drive/response.h"

namespace lacquer {

namespace {

void move_setting(Finish& finish, const std::string& response, double from, double to) {
    for (Response& own : finish.responses) {
        if (own.name != response) continue;
        const ResponseKind* kind = find_response_kind(own.kind);
        if (kind == nullptr) continue;
        for (const ArgumentSpec& spec : kind->arguments) {
            if (spec.unit.empty() && number_of(own, spec.name) == from) own.settings[std::string(spec.name)] = to;
        }
    }
}

}  // namespace

Finish with_range_end(Finish finish, const std::string& dial, bool lower, double to) {
    for (Dial& own : finish.dials) {
        if (own.name != dial) continue;
        const double from = lower ? own.least : own.most;
        (lower ? own.least : own.most) = to;
        for (double* setting : {&own.value[0], &own.default_value[0]}) {
            if (*setting == from) *setting = to;
            *setting = std::clamp(*setting, std::min(own.least, own.most), std::max(own.least, own.most));
        }
        move_setting(finish, own.formula, from, to);
    }
    return finish;
}

Mend range_end_mend(const std::string& words, const std::string& dial, bool lower, double to) {
    return {words, [dial, lower, to](const Finish& finish) -> Result<Finish> {
                return with_range_end(finish, dial, lower, to);
            }};
}

}  // namespace lacquer
