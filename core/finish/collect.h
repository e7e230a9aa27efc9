// A finish with all the files that it reads, in one folder of its own.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/base/cancel.h"
#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

struct Collected {
    std::string path;                  ///< of the finish in its folder
    std::size_t copied = 0;            ///< files
    std::vector<std::string> missing;  ///< files that could not be read, as the finish writes them; they stay so
};

/// Copies the finish and every file that it reads into `folder`, which is made if it is not there; the files lie in
/// `files` within it, under names of their own. Nothing that is there already is replaced. `progress` hears the share
/// that is done, 0..1. Faults: `file.exists` where the finish would replace another, `file.unwritable`, those of
/// `save_finish`, and `file.stopped` when it was called off.
Result<Collected> collect(const Finish& finish, const std::string& finish_path, const std::string& folder,
                          const Cancel& cancel, const std::function<void(double)>& progress);

}  // namespace lacquer
