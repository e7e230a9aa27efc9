// lacquer-cli catalogue: all operations, as Markdown or as pictures.
#include <fmt/core.h>

#include <CLI/CLI.hpp>

#include "cli/arguments.h"
#include "cli/shown_operations.h"
#include "cli/verbs.h"
#include "core/base/text.h"
#include "core/catalogue/markdown.h"
#include "core/picture/files.h"

namespace lacquer::cli {

namespace {

constexpr const char* head = R"(# Operations

Written by `lacquer-cli catalogue` from the operations' own files (`core/catalogue/operations`). A step calls an operation by
its name, such as `soft = gaussian_blur(scene, 6)`; what has a value "if left out" may be left out from the right.

Your own go into `~/.local/share/lacquer/operations` (`$XDG_DATA_HOME/lacquer/operations`), one `.glsl` file each, named as the
operation. They are there at once, and read again when they change; one of yours replaces one of ours of the same name.
A file is functions in the formula language, with a head of lines that begin with `//!`:

| line | holds |
|---|---|
| `//! title Polar` | how it is shown |
| `//! group Coordinates` | where it is listed |
| `//! about ...` | one sentence: what it does to the picture |
| `//! says polar of {where} round {centre}` | how a row speaks of it |
| `//! value centre 2 coordinate = vec2(0.5) in 0..1 px : words` | an argument: name; width (1 to 4, or `same`); role (mask, opacity, coordinate, displacement, colour, number); then, where wanted, the formula if left out, the range and its unit; words |
| `//! value edges 1 choice = 0 of mirror, clamp : words` | a choice: its number is 0, 1 and so on |
| `//! shown swirl(harbour)` | the formula by which it is shown, over the samples `harbour`, `chart`, `crab`, `blotch`, `hill` and `stones` (`core/catalogue/samples`) |
| `//! picture picture same colour : words` | the same, for what is read at other places: a parameter of the type `sampler2D` |
| `//! stage across size 1/4 repeat 3` | a function whose result is stored for the next, by its name; `size` is of the frame; `repeat` runs it so often, or as often as the frame can be halved (`levels`), each time reading the last round by its own name, with the round in a parameter `turn` |
| `//! stage down native gaussian_down of across by near` | a stage that this processor does in one go, with the same numbers, while drivers run the function: which way (`nearest_places`, `gaussian_across`, `gaussian_down`, `greatest_over_disc`, `least_over_disc`, `gaussian_quarter`, `spline_from_quarter`, see `core/cpu/native.h`), the stage that it reads, and a function that gives it one number for all pixels; where that differs from pixel to pixel, the function is run here, too |
| `//! uses nearest` | puts in the text of `nearest.glsl`, a file beside it with a line `//! shared`, each once |

Without `stage` lines the function that is named as the file is the operation. `same` stands for the type of what it is called
with. A stage sees the functions above it, the arguments that it names as parameters, the names that every step knows, and the
operations that may stand in a formula. What goes by colours keeps their opacity with `with_opacity_of(colour, other)`.
)";

// The picture beside docs/operations.md.
std::string picture_of(const Operation& operation) {
    if (operation.shown.empty()) return "";
    return fmt::format("![{}](operations/{}.png)\n\n`{}`\n\n", operation.title, operation.name, operation.shown);
}

struct CatalogueOptions {
    std::string sheet;
    std::string folder;
    FinishOptions finish;
};

Result<Outcome> catalogue(const CatalogueOptions& options) {
    const auto known = catalogue_of(options.finish);
    if (options.sheet.empty() && options.folder.empty()) {
        fmt::print("{}{}", head, catalogue_as_markdown(*known, [&](const Operation& operation) {
                       return picture_of(operation) + cost_as_shown(known, operation);
                   }));
        return Outcome::done;
    }
    WorkerPool pool;
    const Result<std::map<std::string, Image8>> pictures = shown_operations(known, pool);
    if (!pictures) return pictures.fault();
    if (!options.folder.empty()) {
        for (const auto& [name, image] : *pictures) {
            if (auto written = write_png(options.folder + "/" + name + ".png", image); !written) return written.fault();
        }
    }
    if (!options.sheet.empty()) {
        const Result<Image8> whole = sheet_of(*known, *pictures);
        if (!whole) return whole.fault();
        if (auto written = write_png(options.sheet, *whole); !written) return written.fault();
    }
    fmt::print("{}\n", counted(pictures->size(), "operation"));
    return Outcome::done;
}

}  // namespace

Run offer_catalogue(CLI::App& options) {
    const auto chosen = std::make_shared<CatalogueOptions>();
    options.add_option("--sheet", chosen->sheet, "draws all operations on one picture")->type_name("FILE.png");
    options.add_option("--pictures", chosen->folder, "draws each operation by itself")->type_name("FOLDER");
    options.add_option("--operations", chosen->finish.operations, "a folder of operations in place of the user's own")
        ->type_name("FOLDER");
    return [chosen] { return catalogue(*chosen); };
}

}  // namespace lacquer::cli
