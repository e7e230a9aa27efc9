#include "core/finish/play_edits.h"

#include <algorithm>
#include <iterator>
#include <vector>

#include "core/base/text.h"

namespace lacquer {

namespace {

template <class Things>
void erase_named(Things& things, const std::string& name) {
    std::erase_if(things, [&](const auto& thing) { return thing.name == name; });
}

}  // namespace

Finish without_cue(Finish finish, const std::string& name) {
    erase_named(finish.cues, name);
    erase_named(finish.tape.cues.own(), name);
    return finish;
}

Result<Finish> move_cues(Finish finish, const std::vector<std::string>& names, int direction) {
    std::vector<CueKind>& cues = finish.cues;
    const auto moves = [&](const CueKind& cue) {
        return std::find(names.begin(), names.end(), cue.name) != names.end();
    };
    const auto pass = [&](auto begin, auto end) -> bool {
        if (begin == end || moves(*begin)) return false;
        for (auto cue = begin; cue + 1 != end; ++cue) {
            if (moves(*(cue + 1))) std::iter_swap(cue, cue + 1);
        }
        return true;
    };
    if (direction < 0 ? pass(cues.begin(), cues.end()) : pass(cues.rbegin(), cues.rend())) return finish;
    const std::string end = direction < 0 ? "first" : "last";
    const std::string name = cues.empty() ? std::string() : direction < 0 ? cues.front().name : cues.back().name;
    return Fault{"edit.end", "'" + shown_name(name) + "' is " + end + " already", "", {name, {}, 0, 0}};
}

Finish without_signal(Finish finish, const std::string& name) {
    erase_named(finish.signals, name);
    erase_named(finish.tape.changes.own(), name);
    for (Signal& signal : finish.signals) {
        if (signal.zone.of == name) signal.zone.of.clear();
    }
    return finish;
}

Finish without_response(Finish finish, const std::string& name) {
    erase_named(finish.responses, name);
    return finish;
}

}  // namespace lacquer
