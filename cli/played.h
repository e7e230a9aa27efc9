// A finish and the tape that it is played against, as verbs take them from the command line.
#pragma once

#include <string>
#include <vector>

#include "cli/arguments.h"
#include "core/finish/played_finish.h"

namespace lacquer::cli {

/// A finish, and another tape than its own.
struct PlayedOptions {
    FinishOptions finish;
    std::optional<std::string> tape;
};

/// Tells the parser of them.
void add_played(CLI::App& options, PlayedOptions& played);

/// Reads a finish, with the variant on that was asked for; `all` is none. Faults: of reading one, `play.unknown`.
Result<PlayedFinish> played_finish(const FinishOptions& options, Faults& notices);

/// The same with its tape. What could not be used is told on the error stream. Faults: of reading a tape, too.
Result<PlayedFinish> played_finish(const PlayedOptions& options);

/// The variants that were asked for by name, or all of them and none.
std::vector<std::string> variants_of(const PlayedFinish& played, const FinishOptions& options);

}  // namespace lacquer::cli
