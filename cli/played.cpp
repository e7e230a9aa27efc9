#include "cli/played.h"

#include <CLI/CLI.hpp>

#include "core/finish/file.h"

namespace lacquer::cli {

void add_played(CLI::App& options, PlayedOptions& played) {
    add_finish(options, played.finish);
    options.add_option("--tape", played.tape, "a tape in place of the finish's own")->type_name("FILE.tape");
}

Result<PlayedFinish> played_finish(const PlayedOptions& options) {
    const auto catalogue = catalogue_of(options.finish);
    Result<OpenedFinish> opened = load_finish(options.finish.file);
    if (!opened) return opened.fault();
    PlayedFinish played{
        options.finish.file, nullptr, {opened->finish.name, opened->finish.length, opened->finish.tape}};
    if (options.tape) {
        Result<NamedTape> tape = load_tape(*options.tape, opened->notices);
        if (!tape) return tape.fault();
        played.tape = std::move(*tape);
    }
    for (const Fault& notice : opened->notices) tell(notice);
    Result<Finish> finish = with_variant(std::move(opened->finish), options.finish);
    if (!finish) return finish.fault();
    played.checked = std::make_shared<const CheckedFinish>(
        check_finish(std::make_shared<const Finish>(std::move(*finish)), catalogue));
    return played;
}

}  // namespace lacquer::cli
