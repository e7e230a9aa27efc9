// lacquer-cli rates FILE: the same tape at several frame rates, and what differs.
#include <fmt/core.h>

#include "cli/arguments.h"
#include "cli/verbs.h"
#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/tape_file.h"
#include "core/inspect/frame_rates.h"

namespace lacquer::cli {

Result<Done> rates(Arguments& arguments) {
    Result<std::optional<std::string>> tape_path = arguments.option("--tape");
    if (!tape_path) return tape_path.fault();
    const auto catalogue = catalogue_of(arguments);
    if (!catalogue) return catalogue.fault();
    Result<std::string> path = arguments.file();
    if (!path) return path.fault();
    Result<OpenedFinish> opened = load_finish(*path);
    if (!opened) return opened.fault();
    RenderRequest request;
    request.finish_path = *path;
    if (*tape_path) {
        Result<NamedTape> tape = load_tape(**tape_path, opened->notices);
        if (!tape) return tape.fault();
        request.tape = std::make_shared<const Tape>(std::move(tape->tape));
    }
    for (const Fault& notice : opened->notices) fmt::print(stderr, "{}\n", to_text(notice));
    request.checked = std::make_shared<const CheckedFinish>(
        check_finish(std::make_shared<const Finish>(std::move(opened->finish)), *catalogue));
    WorkerPool pool;
    Renderer renderer(pool);
    const RateReport report = check_frame_rates(request, renderer, Cancel());
    for (const RateRow& row : report.rows) {
        fmt::print("{:<24} differs by {:<10} {}\n", row.name, plain_number(row.largest, 6), row.why);
    }
    fmt::print("{:<24} differs by {:<10} {} on average, in {}\n", "the picture",
               plain_number(report.picture_largest, 6), plain_number(report.picture_mean, 6),
               counted(report.pictures, "picture"));
    fmt::print("{}.\n", report.words);
    if (report.same()) return Done{};
    return usage_fault("cli.rates", "the finish is not the same at every frame rate", "see the rows above");
}

}  // namespace lacquer::cli
