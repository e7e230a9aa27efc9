// Work that was not saved, kept aside in the user's state folder for the case of a crash.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/finish/file.h"

namespace lacquer {

/// Work that was kept aside by a Lacquer that is no longer running.
struct KeptWork {
    std::string file;  ///< where it is kept
    std::string name;  ///< of the finish
    std::string path;  ///< of the finish that it belongs to; empty if it was never saved
    friend bool operator==(const KeptWork&, const KeptWork&) = default;
};

/// Keeps the present state of the finish at `path` (empty: not saved yet) aside. Faults: those of `save_finish`.
Result<Done> keep_for_recovery(const std::string& path, const Finish& finish);

/// Throws away what was kept aside for that finish.
void drop_recovery(const std::string& path);

/// All that can be brought back, newest first.
std::vector<KeptWork> kept_work();

/// What was kept; nothing if it has gone since. It stays in the store until it is dropped.
std::optional<OpenedFinish> read_kept(const KeptWork& kept);
void drop_kept(const KeptWork& kept);

}  // namespace lacquer
