// The verbs of lacquer-cli, one file each. What a verb takes is told to the parser once; help and completion come from
// that.
#pragma once

#include <functional>
#include <memory>
#include <span>
#include <string_view>

#include "core/base/result.h"

namespace CLI {
class App;
}

namespace lacquer::cli {

/// How a verb ended: as it was asked, or with something missing that was told on the error stream.
enum class Outcome { done, with_notices };

/// Does what the verb is there for, once its options are read.
using Run = std::function<Result<Outcome>()>;

/// A verb: its name, what it does in a line, and how it tells the parser of its options.
struct Verb {
    std::string_view name;
    std::string_view words;
    Run (*offer)(CLI::App& options);
};

/// All of them, in the order in which help lists them.
std::span<const Verb> verbs();

Run offer_render(CLI::App& options);
Run offer_batch(CLI::App& options);
Run offer_inspect(CLI::App& options);
Run offer_ship(CLI::App& options);
Run offer_bring(CLI::App& options);
Run offer_rates(CLI::App& options);
Run offer_values(CLI::App& options);
Run offer_explain(CLI::App& options);
Run offer_responses(CLI::App& options);
Run offer_catalogue(CLI::App& options);
Run offer_scene(CLI::App& options);
Run offer_doctor(CLI::App& options);
Run offer_completion(CLI::App& options);

}  // namespace lacquer::cli
