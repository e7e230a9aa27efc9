// Reading a picture between its pixels: the one definition that every back end follows.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "core/base/cancel.h"
#include "core/picture/picture.h"

namespace lacquer {

/// What lies beyond a picture's borders: its outermost pixels, the picture again, or its mirror image.
enum class Wrap : std::uint8_t { clamp, repeat, mirror };

/// Between pixels: mixed, or the nearest one.
enum class Filter : std::uint8_t { linear, nearest };

/// How a picture is read.
struct Sampling {
    Wrap wrap = Wrap::clamp;
    Filter filter = Filter::linear;
    /// Colours between pixels count by their opacity, so that what is clear lends none of its own.
    bool weighed = false;
    friend bool operator==(const Sampling&, const Sampling&) = default;
};

/// A picture as those see it who only read it: `channels` floats a pixel, rows from the top. An empty one has neither
/// data nor bytes and is black with opacity 1. `smaller` holds its copies at half the size, a quarter and so on, where
/// they were asked for.
struct PictureView {
    const float* data = nullptr;
    int width = 0;
    int height = 0;
    Sampling sampling;
    std::span<const PictureView> smaller;
    int channels = 4;                     ///< 1, 2 or 4; those that are missing read as 0, opacity as 1
    const std::uint8_t* bytes = nullptr;  ///< in place of the data, R G B A
    Coding coding = Coding::numbers;

    bool is_empty() const { return data == nullptr && bytes == nullptr; }
};

/// A view of a picture of 1, 2 or 4 channels, which must outlive it.
PictureView view_of(const Picture& picture, Sampling sampling = {});

/// The colour at (u, v), 0..1 across and down. Positions are rounded to 1/256 pixel, so that a picture read at its own
/// pixel centres comes back exactly. Coordinates that are not finite give values that are not numbers.
std::array<float, 4> sample(const PictureView& picture, float u, float v);

/// The same, linear between two of the smaller copies: level 0 is the picture itself, 1 half its size; levels beyond
/// the ends, and NaN, read the nearest.
std::array<float, 4> sample_level(const PictureView& picture, float u, float v, float level);

/// The pixel in column x, row y; beyond the borders the outermost one.
std::array<float, 4> fetch(const PictureView& picture, std::int32_t x, std::int32_t y);

/// `sample` of a whole picture, linear, held at the borders.
std::array<float, 4> sample_linear(const Picture& picture, float u, float v);

/// The copies of `picture` at half the size, a quarter and so on down to one pixel, each the average of the one before.
/// `weighed`: of colours by their opacity. Called off, they are of that size all the same, and not filled.
std::vector<Picture> smaller_copies(const Picture& picture, bool weighed = false, const Cancel& cancel = Cancel());

/// `picture` averaged down so that neither side is larger than asked for: each new pixel is the mean of what it covers.
/// `weighed`: of colours by their opacity. Called off, it is not filled.
Picture shrink_to(const Picture& picture, int width, int height, bool weighed = false, const Cancel& cancel = Cancel());

/// The view's own picture as numbers, for those who can't read bytes; nothing where it holds numbers already.
std::optional<Picture> decoded(const PictureView& view);

/// Whether every pixel of a picture of 4 channels has the opacity 1.
bool is_opaque(const Picture& picture);

/// The same by keeping some pixels as they are, for numbers that must not be averaged.
Picture thinned_to(const Picture& picture, int width, int height);

}  // namespace lacquer
