// Pictures as the computation sees them: single-precision floats in linear light (or plain data), straight opacity.
// What a file holds as bytes may be kept as them, see coded.h.
#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>

#include "core/base/plain_vector.h"

namespace lacquer {

/// Largest width or height, in pixels, of any picture that is read or drawn.
inline constexpr int max_picture_side = 32768;
/// Largest number of pixels of any picture that is read or drawn.
inline constexpr std::int64_t max_picture_pixels = 64LL * 1024 * 1024;

/// What a picture's numbers are kept as.
enum class Coding : std::uint8_t {
    numbers,  ///< floats, in `Picture::data`
    shares,   ///< bytes, in `Picture::bytes`: so many 255ths
    display   ///< bytes: colours are sRGB display values, opacity so many 255ths
};

/// `channels` floats a pixel, interleaved, rows from the top. Colours are R, G, B and straight opacity. Only what reads
/// files makes pictures of bytes, which have 4 channels and no `data`; whoever is handed a picture of a file reads it
/// by sample.h, or makes numbers of it first.
struct Picture {
    int width = 0;
    int height = 0;
    int channels = 4;
    PlainVector<float> data;
    Coding coding = Coding::numbers;
    PlainVector<std::uint8_t> bytes;

    Picture() = default;
    /// The pixels hold nothing in particular until they are written.
    Picture(int w, int h, int c)
        : width(w),
          height(h),
          channels(c),
          data(static_cast<std::size_t>(w) * static_cast<std::size_t>(h) * static_cast<std::size_t>(c)) {}

    /// The same of bytes, R G B A.
    static Picture of_bytes(int w, int h, Coding coding) {
        Picture made;
        made.width = w;
        made.height = h;
        made.coding = coding;
        made.bytes = PlainVector<std::uint8_t>(static_cast<std::size_t>(w) * static_cast<std::size_t>(h) * 4);
        return made;
    }

    /// The first channel of the pixel at column x, row y; both must lie inside, and the picture hold numbers.
    const float* at(int x, int y) const { return data.data() + offset(x, y); }
    float* at(int x, int y) { return data.data() + offset(x, y); }

    /// The same of a picture of bytes.
    const std::uint8_t* bytes_at(int x, int y) const { return bytes.data() + offset(x, y); }
    std::uint8_t* bytes_at(int x, int y) { return bytes.data() + offset(x, y); }

private:
    std::size_t offset(int x, int y) const {
        return (static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x)) *
               static_cast<std::size_t>(channels);
    }
};

/// Pictures are shared, never changed once made.
using PicturePtr = std::shared_ptr<const Picture>;

/// A picture for eyes and files: 8 bits a channel, R G B A, straight opacity, display values.
struct Image8 {
    int width = 0;
    int height = 0;
    PlainVector<std::uint8_t> data;

    friend bool operator==(const Image8&, const Image8&) = default;
};

/// True when both sides are at least 1 and within the limits above.
constexpr bool is_drawable_size(std::int64_t width, std::int64_t height) {
    return width >= 1 && height >= 1 && width <= max_picture_side && height <= max_picture_side &&
           width * height <= max_picture_pixels;
}

}  // namespace lacquer
