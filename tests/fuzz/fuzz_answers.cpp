// Any bytes as what a reader of pictures, which may have been taken over, says that a file holds.
#include <cmath>
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "core/picture/reader_lists.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string_view bytes(reinterpret_cast<const char*>(data), size);
    if (const auto frames = unpacked_frames(bytes)) {
        if (frames->count < 1) std::abort();
        for (const double end : frames->ends) {
            if (!std::isfinite(end)) std::abort();
        }
        if (packed(*frames) != bytes) std::abort();
    }
    if (const auto layers = unpacked_layers(bytes)) {
        for (const PictureLayer& layer : *layers) {
            if (!is_drawable_size(layer.width, layer.height)) std::abort();
        }
        if (packed(*layers) != bytes) std::abort();
    }
    if (const auto walls = unpacked_walls(bytes)) {
        if (!unpacked_walls(packed(*walls))) std::abort();
    }
    return 0;
}
