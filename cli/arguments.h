// Command lines: one file, and options with a value each.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/catalogue/catalogue.h"
#include "core/drive/cue.h"

namespace lacquer::cli {

/// The words after the verb, taken one by one; what is left over at the end is a mistake.
class Arguments {
public:
    explicit Arguments(std::vector<std::string> words) : words_(std::move(words)) {}

    /// The value after `option`, if it is given. Faults: `cli.missing-value`.
    Result<std::optional<std::string>> option(const std::string& option);
    /// All values of an option that may be given several times.
    Result<std::vector<std::string>> options(const std::string& option);
    /// The one word that is no option. Faults: `cli.missing-file`, `cli.unknown-option`.
    Result<std::string> file();

private:
    std::vector<std::string> words_;
};

Fault usage_fault(const char* id, const std::string& message, const std::string& mend);

/// The operations that come along and those of `--operations FOLDER`, else of the user's own folder. What cannot be
/// used is told on the error stream.
Result<std::shared_ptr<const Catalogue>> catalogue_of(Arguments& arguments);

/// "1280x720" as two whole numbers. Faults: `cli.size`.
Result<std::pair<int, int>> parse_size(const std::string& text);
/// "name:strength@seconds", "name@seconds" or "name". Faults: `cli.cue`.
Result<Cue> parse_cue(const std::string& text);
/// A number. Faults: `cli.number`.
Result<double> parse_option_number(const std::string& option, const std::string& text);

}  // namespace lacquer::cli
