// What several verbs take from the command line.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <utility>

#include "cli/verbs.h"
#include "core/catalogue/catalogue.h"
#include "core/drive/cue.h"
#include "core/finish/finish.h"

namespace lacquer::cli {

Fault usage_fault(const char* id, const std::string& message, const std::string& mend);

/// A finish and the folder of operations that it may call.
struct FinishOptions {
    std::string file;
    std::optional<std::string> operations;
    std::optional<std::string> variant;  ///< another one on than the file says; empty for none
};

/// Tells the parser of them.
void add_finish(CLI::App& options, FinishOptions& finish);

/// The operations that come along and those of `--operations FOLDER`, else of the user's own folder. What cannot be
/// used is told on the error stream.
std::shared_ptr<const Catalogue> catalogue_of(const FinishOptions& finish);

/// Tells a fault or a notice on the error stream.
void tell(const Fault& fault);

/// A step's fault with the file, the step, and the line and column in its formula.
Fault placed_in_step(Fault fault, const std::string& file, const std::string& step, const std::string& formula);

/// "1280x720" as two whole numbers. Faults: `cli.size`.
Result<std::pair<int, int>> parse_size(const std::string& text);
/// "name:strength@seconds", "name@seconds" or "name". Faults: `cli.cue`.
Result<Cue> parse_cue(const std::string& text);
/// A number. Faults: `cli.number`.
Result<double> parse_option_number(const std::string& option, const std::string& text);

}  // namespace lacquer::cli
