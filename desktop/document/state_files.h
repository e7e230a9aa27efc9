// Files in the user's state folder, named after the running program that wrote them.
#pragma once

#include <filesystem>
#include <string>

namespace lacquer {

/// $XDG_STATE_HOME/lacquer/NAME, else ~/.local/state/lacquer/NAME. Empty where the user has no home.
std::filesystem::path state_folder(const char* name);

/// "<process>-<hash of path>" and an ending: the file that this program keeps about a path.
std::string own_file_name(const std::string& path, const char* ending);

/// Whether the Lacquer that wrote a file of such a name still runs. Its number may have gone to another program since,
/// and one that has ended may still be listed until its parent looks.
bool is_running(const std::string& file_name);

}  // namespace lacquer
