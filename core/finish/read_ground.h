// Grounds as files hold them.
#pragma once

#include "core/finish/finish.h"
#include "core/finish/json_fields.h"

namespace lacquer {

/// What of it cannot be used is complained about and has its usual value.
Ground read_ground(Fields& fields);

}  // namespace lacquer
