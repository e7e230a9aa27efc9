// What differs between two JSON values, as a value that turns one into the other: JSON Merge Patch (RFC 7396).
#pragma once

#include "core/finish/json.h"

namespace lacquer {

/// `target` with the members of `patch` put in: objects member by member, null takes a member out, anything else takes
/// its place. Beyond RFC 7396, where the target is a list and the patch an object, its keys count the list's members
/// from 0; others are left out.
Json merged(Json target, const Json& patch);

/// The patch that makes `from` into `to`; an object without members where they are equal. Lists of objects that are as
/// long as each other differ member by member, others as a whole.
Json merge_patch(const Json& from, const Json& to);

}  // namespace lacquer
