// Work that was not saved, kept aside in the user's state folder for the case of a crash.
#pragma once

#include <optional>
#include <string>

#include "core/finish/file.h"

namespace lacquer {

/// Work that was found after a crash.
struct Recovered {
    OpenedFinish opened;
    std::string path;  ///< of the finish that it belongs to; empty if it was never saved
};

/// Keeps the present state of the finish at `path` (empty: not saved yet) aside. Quietly does nothing where it cannot.
void keep_for_recovery(const std::string& path, const Finish& finish);

/// Throws away what was kept aside for that finish.
void drop_recovery(const std::string& path);

/// What was kept aside by a Lacquer that is no longer running, if anything. It is taken out of the store.
std::optional<Recovered> take_recovered();

}  // namespace lacquer
