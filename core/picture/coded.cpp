#include "core/picture/coded.h"

#include "core/picture/transfer.h"

namespace lacquer {

const std::array<float, 256>& opacity_numbers() {
    static const std::array<float, 256> shares = [] {
        std::array<float, 256> made{};
        for (std::size_t k = 0; k < made.size(); ++k) made[k] = static_cast<float>(k) / 255.0F;
        return made;
    }();
    return shares;
}

const std::array<float, 256>& colour_numbers(Coding coding) {
    return coding == Coding::display ? srgb_decode_table() : opacity_numbers();
}

void decode_pixels(const std::uint8_t* from, Coding coding, float* to, std::size_t count) {
    const std::array<float, 256>& colours = colour_numbers(coding);
    const std::array<float, 256>& opacity = opacity_numbers();
    for (std::size_t i = 0; i < count; ++i, from += 4, to += 4) {
        for (std::size_t c = 0; c < 3; ++c) to[c] = colours[from[c]];
        to[3] = opacity[from[3]];
    }
}

Picture decoded(Picture picture) {
    if (picture.coding == Coding::numbers) return picture;
    Picture numbers(picture.width, picture.height, 4);
    decode_pixels(picture.bytes.data(), picture.coding, numbers.data.data(), picture.bytes.size() / 4);
    return numbers;
}

std::size_t bytes_held(const Picture& picture) { return picture.data.size() * sizeof(float) + picture.bytes.size(); }

}  // namespace lacquer
