// Frames as one file that moves. The libraries that write them are a module of their own, loaded when first needed.
#pragma once

#include <span>
#include <string>

#include "core/base/cancel.h"
#include "core/base/result.h"
#include "core/picture/picture.h"

namespace lacquer {

/// What a movie is written as. GIF has 255 colours of its own and opacity that is all or nothing; WebP and WebM (VP9)
/// have opacity; MP4 (H.264) has none: the frames lie on black there, and odd sides gain a black pixel.
enum class MovieFormat { gif, webp, webm, mp4 };

/// The file's bytes. `frames` are display values with straight opacity, all of one size, shown at `rate` a second,
/// which GIF and WebP round to their own steps of 10 ms and 1 ms; those two repeat for ever. Faults:
/// `picture.unwritable`, also where this machine's libraries have no such writer; `picture.module`, `render.cancelled`.
Result<std::string> movie_of(MovieFormat format, std::span<const Image8> frames, double rate, const Cancel& cancel);

}  // namespace lacquer
