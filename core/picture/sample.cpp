#include "core/picture/sample.h"

#include <algorithm>
#include <cmath>

namespace lacquer {

namespace {

struct Tap {
    int low;
    int high;
    float fraction;
};

Tap tap(float position, int size) {
    const float extent = static_cast<float>(size);
    float p = position * extent - 0.5F;
    p = std::floor(p * 256.0F + 0.5F) * (1.0F / 256.0F);
    if (!(p >= 0.0F)) p = 0.0F;
    if (p > extent - 1.0F) p = extent - 1.0F;
    const int low = static_cast<int>(p);
    const float fraction = p - static_cast<float>(low);
    return {low, std::min(low + 1, size - 1), fraction};
}

// With a fraction of 0 the second tap is not looked at: an infinite neighbour must not turn into NaN.
float blend(float a, float b, float fraction) { return fraction == 0.0F ? a : a * (1.0F - fraction) + b * fraction; }

}  // namespace

std::array<float, 4> sample_linear(const Picture& picture, float u, float v) {
    if (picture.width == 0 || picture.height == 0) return {0, 0, 0, 1};
    const Tap x = tap(u, picture.width);
    const Tap y = tap(v, picture.height);
    std::array<float, 4> colour{};
    for (std::size_t c = 0; c < 4; ++c) {
        const float top = blend(picture.at(x.low, y.low)[c], picture.at(x.high, y.low)[c], x.fraction);
        const float bottom = blend(picture.at(x.low, y.high)[c], picture.at(x.high, y.high)[c], x.fraction);
        colour[c] = blend(top, bottom, y.fraction);
    }
    return colour;
}

Picture shrink_to(const Picture& picture, int width, int height) {
    const int w = std::clamp(width, 1, std::max(1, picture.width));
    const int h = std::clamp(height, 1, std::max(1, picture.height));
    Picture small(w, h, picture.channels);
    if (picture.data.empty()) return small;
    for (int y = 0; y < h; ++y) {
        const int y0 = static_cast<int>(static_cast<long long>(y) * picture.height / h);
        const int y1 = std::max(y0 + 1, static_cast<int>(static_cast<long long>(y + 1) * picture.height / h));
        for (int x = 0; x < w; ++x) {
            const int x0 = static_cast<int>(static_cast<long long>(x) * picture.width / w);
            const int x1 = std::max(x0 + 1, static_cast<int>(static_cast<long long>(x + 1) * picture.width / w));
            for (int c = 0; c < picture.channels; ++c) {
                double sum = 0;
                for (int j = y0; j < y1; ++j) {
                    for (int i = x0; i < x1; ++i) sum += static_cast<double>(picture.at(i, j)[c]);
                }
                small.at(x, y)[c] = static_cast<float>(sum / (static_cast<double>(x1 - x0) * (y1 - y0)));
            }
        }
    }
    return small;
}

}  // namespace lacquer
