// What the module that writes movies gives.
#pragma once

#include <functional>
#include <span>
#include <string>

#include "core/picture/movie.h"

namespace lacquer {

inline constexpr const char* movie_module_file = "lacquer-movies.so";

/// As `movie_of`; false with `error` where it fails, or where `goes_on` says no, which is asked at every frame.
using WriteMovieFunction = bool (*)(MovieFormat format, std::span<const Image8> frames, double rate,
                                    const std::function<bool()>& goes_on, std::string& bytes,
                                    std::string& error) noexcept;

}  // namespace lacquer
