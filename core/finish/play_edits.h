// Taking apart what is played: cues, signals and responses, with what the tape holds of them.
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// The finish without a cue and its events on the tape. A response that listens to it is at fault then.
Finish without_cue(Finish finish, const std::string& name);

/// Cues one pad earlier (-1) or later (+1); they keep their order among themselves. A fault if the first of them is
/// first already, or the last last.
Result<Finish> move_cues(Finish finish, const std::vector<std::string>& names, int direction);

/// Without a signal, its zones and its changes on the tape. Formulas that read it are at fault then.
Finish without_signal(Finish finish, const std::string& name);

/// Without a response. Formulas that read it are at fault then.
Finish without_response(Finish finish, const std::string& name);

}  // namespace lacquer
