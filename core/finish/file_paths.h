// Every file that a finish names: by its grounds, by those of its variants and looks, and its shared dials.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/finish/finish.h"

namespace lacquer {

/// Changes each path as it is told; empty ones are left alone.
Finish with_paths(Finish finish, const std::function<std::string(const std::string&)>& changed);

/// All of them, each once.
std::vector<std::string> all_paths(const Finish& finish);

/// A finish that lay at `from`, to lie at `to`: its relative paths lead to the same files.
Finish moved_paths(const Finish& finish, const std::string& from, const std::string& to);

}  // namespace lacquer
