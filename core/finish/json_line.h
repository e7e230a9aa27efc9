// JSON values as the files write them: on one line, with a blank after each comma and colon.
#pragma once

#include <string>

#include "core/base/kept_keys.h"
#include "core/finish/json.h"

namespace lacquer {

/// The value on one line. Numbers in the fewest digits that read back the same; what is not finite is 0.
std::string one_line(const Json& value);

/// An object on one line, with kept keys behind its own; one that it has itself goes first.
std::string one_line(const Json& object, const KeptKeys& kept);

/// All keys of an object as kept ones.
KeptKeys kept_keys_of(const Json& object);

}  // namespace lacquer
