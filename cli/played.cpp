#include "cli/played.h"

#include <fmt/core.h>

#include "core/finish/file.h"

namespace lacquer::cli {

Result<PlayedFinish> played_finish(Arguments& arguments) {
    Result<std::optional<std::string>> tape_path = arguments.option("--tape");
    if (!tape_path) return tape_path.fault();
    const auto catalogue = catalogue_of(arguments);
    if (!catalogue) return catalogue.fault();
    Result<std::string> path = arguments.file();
    if (!path) return path.fault();
    Result<OpenedFinish> opened = load_finish(*path);
    if (!opened) return opened.fault();
    PlayedFinish played{std::move(*path), nullptr, {opened->finish.name, opened->finish.length, opened->finish.tape}};
    if (*tape_path) {
        Result<NamedTape> tape = load_tape(**tape_path, opened->notices);
        if (!tape) return tape.fault();
        played.tape = std::move(*tape);
    }
    for (const Fault& notice : opened->notices) fmt::print(stderr, "{}\n", to_text(notice));
    played.checked = std::make_shared<const CheckedFinish>(
        check_finish(std::make_shared<const Finish>(std::move(opened->finish)), *catalogue));
    return played;
}

}  // namespace lacquer::cli
