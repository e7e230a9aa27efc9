// Which finishes are being drawn unasked, written down so that one which brings the program down is not drawn again at
// the next start.
#pragma once

#include <string>

namespace lacquer {

/// Notes that a finish is about to be drawn. Safe from any thread.
void mark_drawing(const std::string& path);
/// Notes that this went well.
void unmark_drawing(const std::string& path);
/// Whether a Lacquer that is no longer running ended while it drew this finish, which has not been changed since.
bool ended_while_drawing(const std::string& path);

}  // namespace lacquer
