#include "cli/arguments.h"

#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <algorithm>

#include "core/base/text.h"
#include "core/finish/variants.h"
#include "core/picture/picture.h"

namespace lacquer::cli {

Fault usage_fault(const char* id, const std::string& message, const std::string& mend) {
    return {id, message, mend, {}, Severity::fault};
}

void add_finish(CLI::App& options, FinishOptions& finish) {
    options.add_option("FILE", finish.file, "the finish, a .lacquer file")->required();
    options.add_option("--operations", finish.operations, "a folder of operations in place of the user's own")
        ->type_name("FOLDER");
    options.add_option("--variant", finish.variant, "another variant on than the file says; '' for none")
        ->type_name("NAME");
}

std::shared_ptr<const Catalogue> catalogue_of(const FinishOptions& finish) {
    auto catalogue = catalogue_with_folder(finish.operations.value_or(user_operations_folder()));
    for (const Fault& fault : catalogue->faults) tell(fault);
    return catalogue;
}

void tell(const Fault& fault) { fmt::print(stderr, "{}\n", to_text(fault)); }

Fault placed_in_step(Fault fault, const std::string& file, const std::string& step, const std::string& formula) {
    int line = 1;
    int column = 1;
    for (std::size_t i = 0; i < fault.place.span.begin && i < formula.size(); ++i) {
        column = formula[i] == '\n' ? 1 : column + 1;
        line += formula[i] == '\n' ? 1 : 0;
    }
    fault.place = {fmt::format("{}, step {}, line {}, column {}", file, step, line, column), fault.place.span, 0, 0};
    return fault;
}

Result<std::pair<int, int>> parse_size(const std::string& text) {
    const std::size_t cross = text.find('x');
    if (cross != std::string::npos) {
        const auto width = parse_number(text.substr(0, cross));
        const auto height = parse_number(text.substr(cross + 1));
        if (width && height && *width <= max_picture_side && *height <= max_picture_side &&
            is_drawable_size(static_cast<std::int64_t>(*width), static_cast<std::int64_t>(*height))) {
            return std::pair(static_cast<int>(*width), static_cast<int>(*height));
        }
    }
    return usage_fault("cli.size", "'" + text + "' isn't a size", "write it like 1280x720, at most 64 million pixels");
}

Result<Cue> parse_cue(const std::string& text) {
    const auto wrong = [&] {
        return usage_fault("cli.cue", "'" + text + "' isn't a cue",
                           "write it like hit:0.8@0.1: name, strength 0 to 1, seconds");
    };
    Cue cue;
    std::string rest = text;
    if (const std::size_t at = rest.find('@'); at != std::string::npos) {
        const auto seconds = parse_number(rest.substr(at + 1));
        if (!seconds) return wrong();
        cue.at = *seconds;
        rest.resize(at);
    }
    if (const std::size_t colon = rest.find(':'); colon != std::string::npos) {
        const auto strength = parse_number(rest.substr(colon + 1));
        if (!strength || *strength < 0 || *strength > 1) return wrong();
        cue.strength = *strength;
        rest.resize(colon);
    }
    if (!is_identifier(rest)) return wrong();
    cue.name = rest;
    return cue;
}

Result<double> parse_option_number(const std::string& option, const std::string& text) {
    const auto number = parse_number(text);
    if (!number) return usage_fault("cli.number", option + " takes a number, not '" + text + "'", "write it like 0.4");
    return *number;
}

}  // namespace lacquer::cli
