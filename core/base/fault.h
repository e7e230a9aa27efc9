// What went wrong, where, and what would mend it. Errors are values of this type, shown to the user in plain words.
#pragma once

#include <string>
#include <vector>

#include "core/base/span.h"

namespace lacquer {

/// How much a fault hinders: a `fault` stops the thing concerned, a `warning` does not.
enum class Severity { fault, warning };

/// Where a fault lies. `where` is a step, dial, response or file in the user's words; `span` marks the words at fault
/// in that thing's text (empty when it is the whole of it); line and column count from 1 and are 0 outside files.
struct Place {
    std::string where;
    Span span;
    int line = 0;
    int column = 0;

    friend bool operator==(const Place&, const Place&) = default;
};

/// One complaint. `id` is stable and never shown; `message` says what is wrong; `mend` says what would put it right and
/// may be empty.
struct Fault {
    std::string id;
    std::string message;
    std::string mend;
    Place place;
    Severity severity = Severity::fault;

    friend bool operator==(const Fault&, const Fault&) = default;
};

using Faults = std::vector<Fault>;

/// The fault as one line of plain text: place, message, mend.
std::string to_text(const Fault& fault);

}  // namespace lacquer
