// The tape as a movie file of a set.
#pragma once

#include "core/picture/movie.h"
#include "core/ship/output.h"

namespace lacquer {

/// The longer side of movies, at most; pixels.
inline constexpr int longest_movie_side = 640;

/// The one file, named after the finish with `ending`. Faults: those of `drawn_frames` and of `movie_of`.
Result<ShippedFiles> movie_files(const ShipMaterial& material, MovieFormat format, const std::string& ending,
                                 const Cancel& cancel);

}  // namespace lacquer
