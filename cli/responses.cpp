// lacquer-cli responses: what is known of the responses, as docs/responses.md has it.
#include <fmt/core.h>

#include "cli/arguments.h"
#include "cli/verbs.h"
#include "core/base/text.h"
#include "core/drive/response.h"

namespace lacquer::cli {

namespace {

std::string usual_of(const ArgumentSpec& spec) {
    switch (spec.kind) {
        case ArgumentKind::number:
            return shortest_number(spec.default_number) + (spec.unit.empty() ? "" : " " + std::string(spec.unit));
        case ArgumentKind::word: {
            std::string choices;
            for (const std::string& choice : spec.choices) choices += (choices.empty() ? "`" : ", `") + choice + "`";
            return choices;
        }
        case ArgumentKind::easing:
            return "`" + spec.default_word + "`";
        case ArgumentKind::condition:
        case ArgumentKind::cue:
            return "none";
        case ArgumentKind::keys:
            return "0 at 0 s, 1 at 1 s";
    }
    return {};
}

std::string_view read_when(const ArgumentSpec& spec) {
    if (spec.kind == ArgumentKind::condition) return "all the time";
    if (spec.kind != ArgumentKind::number) return "";
    switch (spec.reads) {
        case Reads::steady:
            return "at the start";
        case Reads::at_cue:
            return "when it begins";
        case Reads::any_time:
            return "all the time";
        case Reads::rate:
            return "all the time, added up";
    }
    return "";
}

void print_kind(const ResponseKind& kind) {
    fmt::print("\n## {}\n\nIt {}.{}\n\n", kind.name, kind.words,
               kind.width == 2 ? " Its value has two numbers: right and down." : "");
    fmt::print("| argument | usual | a formula is read | |\n|---|---|---|---|\n");
    if (kind.listens_to_cue) fmt::print("| `cue` | at 0 s | | the cue that starts it |\n");
    for (const ArgumentSpec& spec : kind.arguments)
        fmt::print("| `{}` | {} | {} | {} |\n", spec.name, usual_of(spec), read_when(spec), spec.words);
    if (kind.outputs.empty()) return;
    fmt::print("\nIt also tells");
    for (std::size_t i = 0; i < kind.outputs.size(); ++i) {
        for (const OutputSpec& output : response_outputs()) {
            if (output.name == kind.outputs[i])
                fmt::print("{} `.{}` ({})", i == 0 ? "" : ",", output.name, output.words);
        }
    }
    fmt::print(".\n");
}

Result<Outcome> responses() {
    fmt::print(
        "# Responses\n\n"
        "A response answers time, cues and signals; a dial follows it by its name (`blow * 2 + 1`), and so do steps. "
        "Each is\n"
        "a closed form: any moment can be asked for at once, and the frame rate never matters. This page is written "
        "by\n"
        "`lacquer-cli responses`.\n\n"
        "A number may be a formula over signals and over dials that stand still. Easings are `linear`, `ease`, "
        "`ease_in`,\n"
        "`ease_out`, `ease_in_out`, `cubic-bezier(x1, y1, x2, y2)`, `steps(n, jump-end)` and `linear(0, 0.3 25%, 1)` "
        "of CSS\n"
        "Easing, and `in_`, `out_` and `in_out_` of `sine`, `quad`, `cubic`, `quart`, `quint`, `expo`, `circ`, `back`, "
        "`elastic`\n"
        "and `bounce`. `when_again` says what a cue does that comes while one runs: take over from where it is, start "
        "again,\n"
        "be ignored, or wait its turn.\n\n"
        "`chase` moves by a share of what is left *each second* (1 - exp(-rate * t)). Mixing by a share *in every "
        "frame*, as\n"
        "is often done, comes to the same at one frame rate only: 0.1 a frame is 6.3 a second at 60 frames a second, "
        "but\n"
        "15.2 at 144 and 2.5 at 24.\n");
    for (const ResponseKind& kind : response_kinds()) print_kind(kind);
    return Outcome::done;
}

}  // namespace

Run offer_responses(CLI::App&) { return responses; }

}  // namespace lacquer::cli
