// What is likely to trouble somebody later, told at the step or dial concerned, with what would mend it.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// A repair by one click: what it says, and the finish after it.
struct Mend {
    std::string words;
    std::function<Result<Finish>(const Finish&)> apply;
};

/// A complaint about a step, dial or ground that can be drawn all the same.
struct Warning {
    std::string id;       ///< stable, never shown
    std::string where;    ///< name of the step, dial or ground
    Span span;            ///< the words concerned in its formula; empty if it is the whole
    std::string message;  ///< in plain words
    std::vector<Mend> mends;
};
using Warnings = std::vector<Warning>;

}  // namespace lacquer
