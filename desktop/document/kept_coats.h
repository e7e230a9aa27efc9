// Coats of the user's own, kept as text in their data folder to be inserted anywhere.
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"

namespace lacquer {

struct KeptCoat {
    std::string name;
    std::string path;
};

/// All kept coats, by name.
std::vector<KeptCoat> kept_coats();

/// Keeps a coat's text under its name, in place of one of the same name. Faults: those of `write_whole_file`.
Result<Done> keep_coat(const std::string& name, const std::string& text);

/// The text of a kept coat. Faults: those of `read_whole_file`.
Result<std::string> read_kept_coat(const KeptCoat& coat);

}  // namespace lacquer
