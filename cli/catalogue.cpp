// lacquer-cli catalogue: all operations, as Markdown.
#include <fmt/core.h>

#include "cli/arguments.h"
#include "cli/verbs.h"

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
| `//! picture picture same colour : words` | the same, for what is read at other places: a parameter of the type `sampler2D` |
| `//! stage across size 1/4 repeat 3` | a function whose result is stored for the next, by its name; `size` is of the frame; `repeat` runs it so often, or as often as the frame can be halved (`levels`), each time reading the last round by its own name, with the round in a parameter `turn` |

Without `stage` lines the function that is named as the file is the operation. `same` stands for the type of what it is called
with. A stage sees the functions above it, the arguments that it names as parameters, and the names that every step knows.
)";

}  // namespace

Result<Done> catalogue(Arguments& arguments) {
    const auto known = catalogue_of(arguments);
    if (!known) return known.fault();
    fmt::print("{}{}", head, catalogue_as_markdown(**known));
    return Done{};
}

}  // namespace lacquer::cli
