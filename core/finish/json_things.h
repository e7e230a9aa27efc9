// The parts of a finish as JSON objects, as they stand in its file.
#pragma once

#include "core/finish/finish.h"
#include "core/finish/json_fields.h"

namespace lacquer {

/// With all keys that the file would have, those among them that this version does not know.
Json json_of(const Dial& dial);
Json json_of(const Step& step);
Json json_of(const Ground& ground);
Json json_of(const Response& response);

/// From the fields of a file; what has the wrong shape is complained about and has its usual value.
Step read_step(Fields& fields);

}  // namespace lacquer
