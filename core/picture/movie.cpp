#include "core/picture/movie.h"

#include <algorithm>

#include "core/base/module.h"
#include "core/picture/movie_module.h"

namespace lacquer {

namespace {

struct MovieModule {
    WriteMovieFunction write = nullptr;
    std::string error;
};

MovieModule load_movie_module() {
    Module module(movie_module_file);
    MovieModule loaded;
    loaded.write = module.function<WriteMovieFunction>("lacquer_write_movie");
    loaded.error = module.error();
    return loaded;
}

const MovieModule& movie_module() {
    static const MovieModule module = load_movie_module();
    return module;
}

Fault unwritable(const std::string& error) {
    return {
        "picture.unwritable", "the movie cannot be written: " + error, "ship it as a moving PNG", {}, Severity::fault};
}

}  // namespace

Result<std::string> movie_of(MovieFormat format, std::span<const Image8> frames, double rate, const Cancel& cancel) {
    if (frames.empty()) return unwritable("there are no frames");
    const bool alike = std::all_of(frames.begin(), frames.end(), [&](const Image8& frame) {
        return frame.width == frames.front().width && frame.height == frames.front().height;
    });
    if (!alike) return unwritable("its frames are not of one size");
    if (!(rate > 0 && rate <= 1000)) return unwritable("it would show no frames a second, or more than 1000");
    if (movie_module().write == nullptr) {
        return Fault{"picture.module",
                     "the part that writes movies did not load: " + movie_module().error,
                     "install Lacquer again",
                     {},
                     Severity::fault};
    }
    std::string bytes;
    std::string error;
    const auto goes_on = [&] { return !cancel.requested(); };
    if (movie_module().write(format, frames, rate, goes_on, bytes, error)) return bytes;
    if (cancel.requested()) return cancelled_fault();
    return unwritable(error);
}

}  // namespace lacquer
