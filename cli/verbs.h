// The verbs of lacquer-cli, one file each.
#pragma once

#include "core/base/result.h"

namespace lacquer::cli {

class Arguments;

/// Draws a finish at a moment into a PNG.
Result<Done> render(Arguments& arguments);
/// Plays a finish's tape at several frame rates and tells what differs.
Result<Done> rates(Arguments& arguments);
/// Prints what is known of the responses.
Result<Done> responses(Arguments& arguments);
/// Prints what everything that moves is worth over time.
Result<Done> values(Arguments& arguments);
/// Prints how a finish is understood: trees, passes, instructions, strips.
Result<Done> explain(Arguments& arguments);

/// Writes a stand-in scene as a layered file.
Result<Done> scene(Arguments& arguments);

/// Prints what is known of the operations.
Result<Done> catalogue(Arguments& arguments);

}  // namespace lacquer::cli
