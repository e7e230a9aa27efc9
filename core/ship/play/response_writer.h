// A response of a finish as code.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/finish/checked.h"
#include "core/ship/play/formula_code.h"
#include "core/ship/play/play_names.h"

namespace lacquer {

/// What is written of a response, all of it in terms of `s`, the state, and `seconds`.
struct ResponseCode {
    std::string statics;    ///< constants
    std::string fields;     ///< of the state
    std::string functions;  ///< PREFIX_hear_NAME if it hears cues, PREFIX_answer_NAME, and those that they need
    std::string steady;     ///< what is worked out at the beginning
    std::string changed;    ///< what is done after something was set
    std::string shuts;      ///< what is done when the cue comes that shuts a gate
};

/// The code of one, whose names begin with `prefix` and end with `own`. `name_of` says what formulas' names are in the
/// state. Faults: `ship.formula`.
Result<ResponseCode> response_code(const Response& response, const CheckedResponse& checked, const std::string& prefix,
                                   const std::string& own, const CodeName& name_of);

}  // namespace lacquer
