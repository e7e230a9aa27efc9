// Pictures that are not where a finish says: looked for by name.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "core/finish/finish.h"

namespace lacquer {

/// The files that its grounds read and that are not there, as the finish writes them, each once.
std::vector<std::string> missing_files(const Finish& finish, const std::string& finish_path);

struct FoundFiles {
    Finish finish;
    std::vector<std::pair<std::string, std::string>> moved;  ///< as it was written, and where it is
};

/// The finish with what is missing taken from a file of the same name within `folder`, a few folders deep; of several
/// the one whose folders agree most. Nothing outside `folder` is looked at, and nothing is written.
FoundFiles find_by_name(Finish finish, const std::string& finish_path, const std::string& folder);

/// The folder that a finish lies in; empty if it was never saved.
std::string folder_of(const std::string& finish_path);

}  // namespace lacquer
