#include "core/picture/rows.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/picture/transfer.h"

namespace lacquer {

namespace {

void to_linear(std::vector<float>& channels, std::size_t stride, std::size_t colours, bool eight_bits) {
    const std::array<float, 256>& table = srgb_decode_table();
    for (std::size_t i = 0; i < channels.size(); i += stride) {
        for (std::size_t c = 0; c < colours; ++c) {
            float& value = channels[i + c];
            value = eight_bits ? table[static_cast<std::size_t>(std::lround(value * 255.0F))]
                               : static_cast<float>(srgb_decode(static_cast<double>(value)));
        }
    }
}

// Exactly k / 255, which the library's own conversion misses by a rounding.
void to_whole_levels(std::vector<float>& channels) {
    for (float& value : channels) value = static_cast<float>(std::lround(value * 255.0F)) / 255.0F;
}

// Colours of display values that opacity was multiplied into; what would be brighter than white was rounded.
void divide_by_opacity(std::vector<float>& channels, std::size_t stride) {
    for (std::size_t i = 0; i < channels.size(); i += stride) {
        const float opacity = channels[i + stride - 1];
        for (std::size_t c = 0; opacity > 0 && c + 1 < stride; ++c)
            channels[i + c] = std::min(1.0F, channels[i + c] / opacity);
    }
}

}  // namespace

void put_rows(Rows& rows, Picture& picture, int first) {
    const std::size_t stride = rows.stride;
    const std::size_t colours = stride <= 2 ? 1 : 3;
    const bool has_opacity = stride == 2 || stride == 4;
    if (rows.eight_bits) to_whole_levels(rows.channels);
    const bool divided = rows.meaning == PictureMeaning::multiplied && has_opacity && rows.whole_numbers;
    if (divided) divide_by_opacity(rows.channels, stride);
    if (rows.meaning != PictureMeaning::data && rows.whole_numbers)
        to_linear(rows.channels, stride, colours, rows.eight_bits && !divided);
    float* to = picture.at(0, first);
    for (std::size_t i = 0; i < rows.channels.size(); i += stride, to += 4) {
        for (std::size_t c = 0; c < 3; ++c) to[c] = rows.channels[i + (colours == 1 ? 0 : c)];
        to[3] = has_opacity ? rows.channels[i + stride - 1] : 1.0F;
    }
}

Coding coding_of(PictureMeaning meaning) {
    switch (meaning) {
        case PictureMeaning::multiplied:
            return Coding::numbers;
        case PictureMeaning::data:
            return Coding::shares;
        case PictureMeaning::colour:
        case PictureMeaning::straight:
            break;
    }
    return Coding::display;
}

void put_byte_rows(const std::uint8_t* from, std::size_t stride, std::size_t pixels, Picture& picture, int first) {
    const bool is_grey = stride <= 2;
    const bool has_opacity = stride == 2 || stride == 4;
    std::uint8_t* to = picture.bytes_at(0, first);
    if (stride == 4) {
        std::copy_n(from, pixels * 4, to);
        return;
    }
    for (std::size_t i = 0; i < pixels; ++i, from += stride, to += 4) {
        for (std::size_t c = 0; c < 3; ++c) to[c] = from[is_grey ? 0 : c];
        to[3] = has_opacity ? from[stride - 1] : std::uint8_t{255};
    }
}

}  // namespace lacquer
