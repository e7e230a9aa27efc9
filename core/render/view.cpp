#include "core/render/view.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/picture/display_kernels.h"

namespace lacquer {

namespace {

std::uint8_t plain_level(float value) {
    if (!(value > 0.0F)) return 0;
    return value >= 1.0F ? 255 : static_cast<std::uint8_t>(value * 255.0F + 0.5F);
}

// Display values at 0, 1/4, 1/2, 3/4 and 1 of the ramp: each lighter than the one before.
constexpr std::array<std::array<float, 3>, 5> ramp = {
    {{16, 20, 34}, {38, 84, 110}, {96, 158, 126}, {216, 176, 74}, {250, 240, 214}}};

void ramp_pixel(float value, std::uint8_t* to) {
    const float held = value > 0.0F ? std::min(value, 1.0F) : 0.0F;
    const float place = held * 4.0F;
    const auto at = std::min(static_cast<std::size_t>(place), std::size_t{3});
    const float share = place - static_cast<float>(at);
    // A thin darker line just below each tenth.
    const float tenth = held * 10.0F;
    const float dim = tenth - std::floor(tenth) > 0.94F && held < 1.0F ? 0.55F : 1.0F;
    for (std::size_t c = 0; c < 3; ++c) {
        to[c] = static_cast<std::uint8_t>((ramp[at][c] * (1.0F - share) + ramp[at + 1][c] * share) * dim + 0.5F);
    }
    to[3] = 255;
}

// Stripes to the right and down below 0, the other way above 1, squares for what is no number.
void mark_pixel(const float* from, int channels, std::uint8_t* to, int x, int y, bool range) {
    bool low = false;
    bool high = false;
    bool broken = false;
    for (int c = 0; c < channels; ++c) {
        low = low || from[c] < 0.0F;
        high = high || from[c] > 1.0F;
        broken = broken || !std::isfinite(from[c]);
    }
    const auto paint = [&](std::uint8_t r, std::uint8_t g, std::uint8_t b) {
        to[0] = r;
        to[1] = g;
        to[2] = b;
        to[3] = 255;
    };
    if (broken) return (x / 4 + y / 4) % 2 == 0 ? paint(255, 255, 255) : paint(217, 71, 43);
    if (!range) return;
    constexpr int period = 8;
    if (high && (x + y) % period < 2) return paint(255, 138, 107);
    if (low && (x - y + period * 100000) % period < 2) return paint(90, 130, 255);
}

void two_as_red_and_green(const float* from, int channels, std::uint8_t* to, int width) {
    for (int x = 0; x < width; ++x, from += channels, to += 4) {
        to[0] = plain_level(from[0]);
        to[1] = plain_level(from[1]);
        to[2] = 0;
        to[3] = 255;
    }
}

// Of more numbers than are shown, the first.
void show_first_of(const float* from, int channels, int shown, float gain, std::uint8_t* to, int width) {
    std::array<float, 4> pixel{};
    for (int x = 0; x < width; ++x, from += channels, to += 4) {
        std::copy_n(from, shown, pixel.begin());
        show_pixels(pixel.data(), shown, gain, to, 1);
    }
}

}  // namespace

void show_row(const float* from, int channels, Type type, const ViewStyle& style, int y, int width, std::uint8_t* to) {
    const bool colours = type == Type::vec3 || type == Type::vec4;
    const int shown = colours ? width_of(type) : 1;
    const float gain = colours ? static_cast<float>(std::exp2(style.exposure)) : 1.0F;
    bool marks = style.mark_range || style.mark_broken;
    if (style.false_colour && width_of(type) == 1) {
        for (int x = 0; x < width; ++x) ramp_pixel(from[x * channels], to + x * 4);
    } else if (type == Type::vec2) {
        two_as_red_and_green(from, channels, to, width);
    } else if (channels != shown) {
        show_first_of(from, channels, shown, gain, to, width);
    } else {
        const bool finite = show_pixels(from, channels, gain, to, static_cast<std::size_t>(width));
        marks = style.mark_range || (style.mark_broken && !finite);
    }
    if (!marks) return;
    for (int x = 0; x < width; ++x)
        mark_pixel(from + static_cast<std::ptrdiff_t>(x) * channels, width_of(type),
                   to + static_cast<std::ptrdiff_t>(x) * 4, x, y, style.mark_range);
}

Image8 blank_image(int width, int height) {
    Image8 image{width, height, {}};
    image.data.resize(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4);
    return image;
}

std::uint8_t* row_of(Image8& image, int y) {
    return image.data.data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) * 4;
}

Image8 to_image(const Picture& picture, Type type, WorkerPool& pool, const ViewStyle& style) {
    Image8 image = blank_image(picture.width, picture.height);
    constexpr int band = 32;
    pool.run((picture.height + band - 1) / band, [&](int piece) {
        const int bottom = std::min(picture.height, (piece + 1) * band);
        for (int y = piece * band; y < bottom; ++y)
            show_row(picture.at(0, y), picture.channels, type, style, y, picture.width, row_of(image, y));
    });
    return image;
}

Image8 halved(const Image8& image) {
    Image8 half{image.width / 2, image.height / 2, {}};
    half.data.resize(static_cast<std::size_t>(half.width) * static_cast<std::size_t>(half.height) * 4);
    const auto stride = static_cast<std::size_t>(image.width) * 4;
    for (std::size_t y = 0; y < static_cast<std::size_t>(half.height); ++y) {
        for (std::size_t x = 0; x < static_cast<std::size_t>(half.width); ++x) {
            const std::uint8_t* four = image.data.data() + 2 * y * stride + 8 * x;
            for (std::size_t c = 0; c < 4; ++c) {
                const int sum = four[c] + four[c + 4] + four[stride + c] + four[stride + c + 4];
                half.data[(y * static_cast<std::size_t>(half.width) + x) * 4 + c] =
                    static_cast<std::uint8_t>((sum + 2) / 4);
            }
        }
    }
    return half;
}

ValueRange value_range(const Picture& picture) {
    ValueRange range;
    bool any = false;
    for (const float value : picture.data) {
        if (!std::isfinite(value)) {
            ++range.not_finite;
        } else if (!any) {
            range.least = range.most = value;
            any = true;
        } else {
            range.least = std::min(range.least, value);
            range.most = std::max(range.most, value);
        }
    }
    return range;
}

}  // namespace lacquer
