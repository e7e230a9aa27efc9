#include "core/finish/play_edits.h"

#include <vector>

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
