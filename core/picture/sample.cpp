#include "core/picture/sample.h"

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/picture/coded.h"

namespace lacquer {

namespace {

struct Tap {
    int low;
    int high;
    float fraction;
};

// The pixel that stands at `index`, a whole number, when the picture goes on beyond its borders.
int beyond(float index, int size, Wrap wrap) {
    const float extent = static_cast<float>(size);
    if (std::isnan(index) || std::isinf(index)) return 0;
    if (wrap == Wrap::repeat) return std::min(static_cast<int>(index - extent * std::floor(index / extent)), size - 1);
    const float period = 2.0F * extent;
    const int within = std::min(static_cast<int>(index - period * std::floor(index / period)), 2 * size - 1);
    return within < size ? within : 2 * size - 1 - within;
}

float rounded_position(float position, int size, float centre) {
    const float p = position * static_cast<float>(size) - centre;
    return std::floor(p * 256.0F + 0.5F) * (1.0F / 256.0F);
}

Tap held(float p, int size) {
    if (!(p >= 0.0F)) p = 0.0F;
    if (p > static_cast<float>(size) - 1.0F) p = static_cast<float>(size) - 1.0F;
    const int low = static_cast<int>(p);
    return {low, std::min(low + 1, size - 1), p - static_cast<float>(low)};
}

Tap tap(float position, int size, Sampling sampling) {
    const bool nearest = sampling.filter == Filter::nearest;
    float p = rounded_position(position, size, nearest ? 0.0F : 0.5F);
    if (nearest) p = std::floor(p);
    if (sampling.wrap == Wrap::clamp) return held(p, size);
    const float low = std::floor(p);
    const bool finite = std::isfinite(p);
    return {beyond(low, size, sampling.wrap), beyond(low + 1.0F, size, sampling.wrap), finite ? p - low : 0.0F};
}

// With a fraction of 0 the second tap is not looked at: an infinite neighbour must not turn into NaN.
float blend(float a, float b, float fraction) { return fraction == 0.0F ? a : a * (1.0F - fraction) + b * fraction; }

// The same for a colour. Weighed, what is clear lends no colour, whatever its hidden one is.
std::array<float, 4> blend(const std::array<float, 4>& a, const std::array<float, 4>& b, float fraction, bool weighed) {
    std::array<float, 4> mixed = a;
    if (fraction == 0.0F) return mixed;
    if (!weighed) {
        for (std::size_t c = 0; c < 4; ++c) mixed[c] = blend(a[c], b[c], fraction);
        return mixed;
    }
    const float of_a = a[3] * (1.0F - fraction);
    const float of_b = b[3] * fraction;
    mixed[3] = of_a + of_b;
    for (std::size_t c = 0; c < 3; ++c) {
        if (of_b != 0.0F) mixed[c] = of_a == 0.0F ? b[c] : (a[c] * of_a + b[c] * of_b) / mixed[3];
    }
    return mixed;
}

std::array<float, 4> pixel(const PictureView& picture, int x, int y) {
    if (picture.bytes != nullptr) {
        std::array<float, 4> colour{};
        const std::size_t at =
            static_cast<std::size_t>(y) * static_cast<std::size_t>(picture.width) + static_cast<std::size_t>(x);
        decode_pixels(picture.bytes + 4 * at, picture.coding, colour.data(), 1);
        return colour;
    }
    const float* from = picture.data + static_cast<std::size_t>(picture.channels) *
                                           (static_cast<std::size_t>(y) * static_cast<std::size_t>(picture.width) +
                                            static_cast<std::size_t>(x));
    std::array<float, 4> colour = {0, 0, 0, 1};
    std::copy_n(from, picture.channels, colour.begin());
    return colour;
}

constexpr std::array<float, 4> black = {0, 0, 0, 1};
constexpr float no_number = std::numeric_limits<float>::quiet_NaN();

}  // namespace

PictureView view_of(const Picture& picture, Sampling sampling) {
    if (picture.width == 0 || picture.height == 0) return {};
    PictureView view{nullptr, picture.width, picture.height, sampling, {}, picture.channels};
    view.coding = picture.coding;
    if (picture.coding == Coding::numbers) {
        view.data = picture.data.data();
    } else {
        view.bytes = picture.bytes.data();
    }
    return view;
}

std::array<float, 4> sample(const PictureView& picture, float u, float v) {
    if (picture.is_empty()) return black;
    if (!std::isfinite(u) || !std::isfinite(v)) return {no_number, no_number, no_number, no_number};
    const Tap x = tap(u, picture.width, picture.sampling);
    const Tap y = tap(v, picture.height, picture.sampling);
    const bool weighed = picture.sampling.weighed && picture.channels == 4;
    const auto across = [&](int row) {
        return blend(pixel(picture, x.low, row), pixel(picture, x.high, row), x.fraction, weighed);
    };
    return blend(across(y.low), across(y.high), y.fraction, weighed);
}

std::array<float, 4> sample_level(const PictureView& picture, float u, float v, float level) {
    const float last = static_cast<float>(picture.smaller.size());
    if (!(level > 0.0F)) level = 0.0F;
    if (level > last) level = last;
    const float rounded = std::floor(level * 256.0F + 0.5F) * (1.0F / 256.0F);
    const int low = static_cast<int>(rounded);
    const auto at = [&](int n) { return n == 0 ? picture : picture.smaller[static_cast<std::size_t>(n) - 1]; };
    const std::array<float, 4> colour = sample(at(low), u, v);
    const float fraction = rounded - static_cast<float>(low);
    if (fraction == 0.0F) return colour;
    return blend(colour, sample(at(low + 1), u, v), fraction, picture.sampling.weighed && picture.channels == 4);
}

std::array<float, 4> fetch(const PictureView& picture, std::int32_t x, std::int32_t y) {
    if (picture.is_empty()) return black;
    return pixel(picture, std::clamp(x, 0, picture.width - 1), std::clamp(y, 0, picture.height - 1));
}

std::array<float, 4> sample_linear(const Picture& picture, float u, float v) { return sample(view_of(picture), u, v); }

std::vector<Picture> smaller_copies(const Picture& picture, bool weighed, const Cancel& cancel) {
    std::vector<Picture> copies;
    int width = picture.width;
    int height = picture.height;
    while (width > 1 || height > 1) {
        width = std::max(1, width / 2);
        height = std::max(1, height / 2);
        copies.push_back(shrink_to(copies.empty() ? picture : copies.back(), width, height, weighed, cancel));
    }
    return copies;
}

namespace {

// The usual case, with the same sums in the same order.
void halve_row(const float* upper, const float* lower, int width, std::size_t channels, float* to) {
    for (int x = 0; x < width; ++x, upper += 2 * channels, lower += 2 * channels, to += channels) {
        for (std::size_t c = 0; c < channels; ++c) {
            const double sum = ((static_cast<double>(upper[c]) + static_cast<double>(upper[c + channels])) +
                                static_cast<double>(lower[c])) +
                               static_cast<double>(lower[c + channels]);
            to[c] = static_cast<float>(sum * 0.25);
        }
    }
}

// Rows of a picture as numbers: its own, or made from its bytes for as long as nothing else is asked for.
class RowsOf {
public:
    explicit RowsOf(const Picture& picture) : picture_(picture) {}

    // Rows from `first` up to `end`, one after another.
    const float* rows(int first, int end) {
        if (picture_.coding == Coding::numbers) return picture_.at(0, first);
        const auto pixels = static_cast<std::size_t>(picture_.width) * static_cast<std::size_t>(end - first);
        made_.resize(pixels * 4);
        decode_pixels(picture_.bytes_at(0, first), picture_.coding, made_.data(), pixels);
        return made_.data();
    }

private:
    const Picture& picture_;
    std::vector<float> made_;
};

// Where new pixel n of `to` begins among `from` old ones.
int first_covered(int n, int from, int to) { return static_cast<int>(static_cast<long long>(n) * from / to); }

Picture shrink_by_opacity(const Picture& picture, int width, int height, const Cancel& cancel) {
    Picture small(width, height, 4);
    RowsOf from_rows(picture);
    const auto in_row = static_cast<std::size_t>(picture.width) * 4;
    for (int y = 0; y < height && !cancel.requested(); ++y) {
        const int y0 = first_covered(y, picture.height, height);
        const int y1 = std::max(y0 + 1, first_covered(y + 1, picture.height, height));
        const float* covered = from_rows.rows(y0, y1);
        for (int x = 0; x < width; ++x) {
            const int x0 = first_covered(x, picture.width, width);
            const int x1 = std::max(x0 + 1, first_covered(x + 1, picture.width, width));
            std::array<double, 4> sum{};
            for (int j = y0; j < y1; ++j) {
                for (int i = x0; i < x1; ++i) {
                    const float* from =
                        covered + static_cast<std::size_t>(j - y0) * in_row + 4 * static_cast<std::size_t>(i);
                    const double opacity = static_cast<double>(from[3]);
                    for (std::size_t c = 0; c < 3 && opacity != 0; ++c)
                        sum[c] += static_cast<double>(from[c]) * opacity;
                    sum[3] += opacity;
                }
            }
            float* to = small.at(x, y);
            for (std::size_t c = 0; c < 3; ++c) to[c] = sum[3] != 0 ? static_cast<float>(sum[c] / sum[3]) : 0.0F;
            to[3] = static_cast<float>(sum[3] / (static_cast<double>(x1 - x0) * (y1 - y0)));
        }
    }
    return small;
}

}  // namespace

std::optional<Picture> decoded(const PictureView& view) {
    if (view.bytes == nullptr) return std::nullopt;
    Picture numbers(view.width, view.height, 4);
    decode_pixels(view.bytes, view.coding, numbers.data.data(), numbers.data.size() / 4);
    return numbers;
}

bool is_opaque(const Picture& picture) {
    for (std::size_t i = 3; i < picture.data.size(); i += 4) {
        if (picture.data[i] != 1.0F) return false;
    }
    for (std::size_t i = 3; i < picture.bytes.size(); i += 4) {
        if (picture.bytes[i] != 255) return false;
    }
    return picture.channels == 4;
}

Picture shrink_to(const Picture& picture, int width, int height, bool weighed, const Cancel& cancel) {
    const int w = std::clamp(width, 1, std::max(1, picture.width));
    const int h = std::clamp(height, 1, std::max(1, picture.height));
    Picture small(w, h, picture.channels);
    if (picture.width == 0 || picture.height == 0) return small;
    RowsOf from_rows(picture);
    if (weighed && picture.channels == 4) return shrink_by_opacity(picture, w, h, cancel);
    if (picture.channels == 4 && picture.width == 2 * w && picture.height == 2 * h) {
        for (int y = 0; y < h && !cancel.requested(); ++y) {
            const float* upper = from_rows.rows(2 * y, 2 * y + 2);
            halve_row(upper, upper + 8 * static_cast<std::size_t>(w), w, 4, small.at(0, y));
        }
        return small;
    }
    const auto in_row = static_cast<std::size_t>(picture.width) * static_cast<std::size_t>(picture.channels);
    for (int y = 0; y < h && !cancel.requested(); ++y) {
        const int y0 = static_cast<int>(static_cast<long long>(y) * picture.height / h);
        const int y1 = std::max(y0 + 1, static_cast<int>(static_cast<long long>(y + 1) * picture.height / h));
        const float* covered = from_rows.rows(y0, y1);
        for (int x = 0; x < w; ++x) {
            const int x0 = static_cast<int>(static_cast<long long>(x) * picture.width / w);
            const int x1 = std::max(x0 + 1, static_cast<int>(static_cast<long long>(x + 1) * picture.width / w));
            for (int c = 0; c < picture.channels; ++c) {
                double sum = 0;
                for (int j = y0; j < y1; ++j) {
                    const float* row = covered + static_cast<std::size_t>(j - y0) * in_row;
                    for (int i = x0; i < x1; ++i)
                        sum += static_cast<double>(row[static_cast<std::size_t>(i * picture.channels + c)]);
                }
                small.at(x, y)[c] = static_cast<float>(sum / (static_cast<double>(x1 - x0) * (y1 - y0)));
            }
        }
    }
    return small;
}

Picture thinned_to(const Picture& picture, int width, int height) {
    const int w = std::clamp(width, 1, std::max(1, picture.width));
    const int h = std::clamp(height, 1, std::max(1, picture.height));
    Picture small(w, h, picture.channels);
    if (picture.width == 0 || picture.height == 0) return small;
    const PictureView view = view_of(picture);
    for (int y = 0; y < h; ++y) {
        const int from_y = static_cast<int>((2LL * y + 1) * picture.height / (2LL * h));
        for (int x = 0; x < w; ++x) {
            const int from_x = static_cast<int>((2LL * x + 1) * picture.width / (2LL * w));
            const std::array<float, 4> kept = pixel(view, from_x, from_y);
            std::copy_n(kept.begin(), picture.channels, small.at(x, y));
        }
    }
    return small;
}

}  // namespace lacquer
