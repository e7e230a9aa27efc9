// How the reader of shaders stops at a fault: it is thrown within the library and becomes a `Result` at its edge.
#pragma once

#include <string>
#include <utility>

#include "core/base/fault.h"

namespace lacquer {

struct Refusal {
    Fault fault;
};

[[noreturn]] inline void refuse(const char* id, Span span, std::string message, std::string mend) {
    throw Refusal{{id, std::move(message), std::move(mend), {{}, span, 0, 0}, Severity::fault}};
}

}  // namespace lacquer
