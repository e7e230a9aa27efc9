// lacquer-cli rates FILE: the same tape at several frame rates, and what differs.
#include <fmt/core.h>

#include "cli/played.h"
#include "cli/verbs.h"
#include "core/base/text.h"
#include "core/inspect/frame_rates.h"
#include "core/render/played_request.h"

namespace lacquer::cli {

namespace {

Result<Outcome> rates(const PlayedOptions& options) {
    Result<PlayedFinish> played = played_finish(options);
    if (!played) return played.fault();
    const RenderRequest request = request_of(*played);
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
    if (report.same()) return Outcome::done;
    return usage_fault("cli.rates", "the finish is not the same at every frame rate", "see the rows above");
}

}  // namespace

Run offer_rates(CLI::App& options) {
    const auto chosen = std::make_shared<PlayedOptions>();
    add_played(options, *chosen);
    return [chosen] { return rates(*chosen); };
}

}  // namespace lacquer::cli
