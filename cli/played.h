// A finish and the tape that it is played against, as verbs take them from the command line.
#pragma once

#include <memory>
#include <string>

#include "cli/arguments.h"
#include "core/finish/checked.h"
#include "core/finish/tape_file.h"

namespace lacquer::cli {

struct PlayedFinish {
    std::string path;
    std::shared_ptr<const CheckedFinish> checked;
    NamedTape tape;  ///< that of `--tape FILE`, else the finish's own
};

/// A finish, and another tape than its own.
struct PlayedOptions {
    FinishOptions finish;
    std::optional<std::string> tape;
};

/// Tells the parser of them.
void add_played(CLI::App& options, PlayedOptions& played);

/// Reads all of it. What could not be used is told on the error stream. Faults: of reading a finish and a tape.
Result<PlayedFinish> played_finish(const PlayedOptions& options);

}  // namespace lacquer::cli
