#include "cli/arguments.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/base/text.h"
#include "core/picture/picture.h"

namespace lacquer::cli {

Fault usage_fault(const char* id, const std::string& message, const std::string& mend) {
    return {id, message, mend, {}, Severity::fault};
}

Result<std::optional<std::string>> Arguments::option(const std::string& option) {
    Result<std::vector<std::string>> all = options(option);
    if (!all) return all.fault();
    if (all->empty()) return std::optional<std::string>();
    return std::optional<std::string>(all->back());
}

Result<std::vector<std::string>> Arguments::options(const std::string& option) {
    std::vector<std::string> values;
    for (auto word = words_.begin(); word != words_.end();) {
        if (*word != option) {
            ++word;
            continue;
        }
        if (word + 1 == words_.end()) {
            return usage_fault("cli.missing-value", option + " needs a value", "write it after " + option);
        }
        values.push_back(*(word + 1));
        word = words_.erase(word, word + 2);
    }
    return values;
}

Result<std::string> Arguments::file() {
    const auto odd =
        std::find_if(words_.begin(), words_.end(), [](const std::string& w) { return w.starts_with("-"); });
    if (odd != words_.end()) {
        return usage_fault("cli.unknown-option", "there is no option " + *odd, "lacquer-cli help lists them");
    }
    if (words_.size() != 1) {
        return usage_fault("cli.missing-file", words_.empty() ? "no finish is named" : "name one finish only",
                           "give the path of a .lacquer file");
    }
    return words_.front();
}

Result<std::shared_ptr<const Catalogue>> catalogue_of(Arguments& arguments) {
    Result<std::optional<std::string>> folder = arguments.option("--operations");
    if (!folder) return folder.fault();
    auto catalogue = catalogue_with_folder(folder->value_or(user_operations_folder()));
    for (const Fault& fault : catalogue->faults) fmt::print(stderr, "{}\n", to_text(fault));
    return catalogue;
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
    return usage_fault("cli.size", "'" + text + "' is no size", "write it like 1280x720, at most 64 million pixels");
}

Result<Cue> parse_cue(const std::string& text) {
    const auto wrong = [&] {
        return usage_fault("cli.cue", "'" + text + "' is no cue",
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
