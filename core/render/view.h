// From values to what the eye and a file get.
#pragma once

#include "core/base/worker_pool.h"
#include "core/lang/type.h"
#include "core/picture/picture.h"

namespace lacquer {

/// How values are turned into what is seen; none of it changes the values.
struct ViewStyle {
    double exposure = 0;        ///< stops by which colours are brightened for looking
    bool false_colour = false;  ///< one number as a ramp of colours with a line at each tenth, not as grey
    bool mark_range = false;    ///< stripes where a part lies outside 0..1, squares where it is not finite
    bool mark_broken = false;   ///< squares where it is not finite, and nothing else
    friend bool operator==(const ViewStyle&, const ViewStyle&) = default;
};

/// 8-bit display values: one number as grey and two as red and green, both as they stand; three or four as colour in
/// linear light by the sRGB curve, the fourth as straight opacity. What lies outside 0..1 is held to it; NaN is 0.
Image8 to_image(const Picture& picture, Type type, WorkerPool& pool, const ViewStyle& style = {});

/// The same for row `y`: `width` pixels of `channels` numbers each, to 4 bytes each.
void show_row(const float* from, int channels, Type type, const ViewStyle& style, int y, int width, std::uint8_t* to);

/// An image whose pixels hold nothing in particular yet, and where its row `y` begins.
Image8 blank_image(int width, int height);
std::uint8_t* row_of(Image8& image, int y);

/// `image` at half its width and height, each pixel the mean of four.
Image8 halved(const Image8& image);

/// The smallest and largest finite value in a picture, and how many values are not finite.
struct ValueRange {
    float least = 0;
    float most = 0;
    std::size_t not_finite = 0;
};
ValueRange value_range(const Picture& picture);

}  // namespace lacquer
