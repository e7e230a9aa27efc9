#include "cli/played.h"

#include <CLI/CLI.hpp>

#include "core/finish/file.h"

namespace lacquer::cli {

namespace {

constexpr std::string_view all_variants = "all";

}  // namespace

void add_played(CLI::App& options, PlayedOptions& played) {
    add_finish(options, played.finish);
    options.add_option("--tape", played.tape, "a tape in place of the finish's own")->type_name("FILE.tape");
}

Result<PlayedFinish> played_finish(const FinishOptions& options, Faults& notices) {
    const auto catalogue = catalogue_of(options);
    Result<OpenedFinish> opened = load_finish(options.file);
    if (!opened) return opened.fault();
    notices.insert(notices.end(), opened->notices.begin(), opened->notices.end());
    PlayedFinish played = play_finish(std::move(opened->finish), options.file, catalogue);
    if (options.variant) {
        const Result<Done> used = use_variant(played, *options.variant == all_variants ? "" : *options.variant);
        if (!used) return used.fault();
    }
    return played;
}

Result<PlayedFinish> played_finish(const PlayedOptions& options) {
    Faults notices;
    Result<PlayedFinish> played = played_finish(options.finish, notices);
    if (!played) return played;
    if (options.tape) {
        if (const Result<Done> used = use_tape(*played, *options.tape, notices); !used) return used.fault();
    }
    for (const Fault& notice : notices) tell(notice);
    return played;
}

std::vector<std::string> variants_of(const PlayedFinish& played, const FinishOptions& options) {
    if (options.variant != all_variants) return {played.finish().variant};
    std::vector<std::string> names = {""};
    for (const Variant& variant : played.finish().variants) names.push_back(variant.name);
    return names;
}

}  // namespace lacquer::cli
