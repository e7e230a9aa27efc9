// Which finishes this user's Lacquers have open: a mark for each in the state folder, so that a second one can tell.
#pragma once

#include <string>

namespace lacquer {

/// Marks the finish at `path` as open here; an empty path is none. True if another Lacquer that runs has it open, too.
/// Marks of those that have ended go.
bool mark_open(const std::string& path);
void unmark_open(const std::string& path);

}  // namespace lacquer
