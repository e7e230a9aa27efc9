#include "core/inspect/picture_changes.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

namespace lacquer {

namespace {

std::array<float, 4> shown(const float* pixel, int channels) {
    if (channels == 1) return {pixel[0], pixel[0], pixel[0], 1};
    const float opacity = channels == 4 ? pixel[3] : 1;
    std::array<float, 4> colour{0, 0, 0, opacity};
    for (int c = 0; c < std::min(channels, 3); ++c) colour[static_cast<std::size_t>(c)] = pixel[c] * opacity;
    return colour;
}

}  // namespace

float pixel_difference(const float* a, int channels_a, const float* b, int channels_b) {
    const std::array<float, 4> one = shown(a, channels_a);
    const std::array<float, 4> two = shown(b, channels_b);
    float largest = 0;
    for (std::size_t c = 0; c < 4; ++c) {
        if (one[c] == two[c] || (std::isnan(one[c]) && std::isnan(two[c]))) continue;
        const float apart = std::fabs(one[c] - two[c]);
        largest = std::isfinite(apart) ? std::max(largest, apart) : std::numeric_limits<float>::infinity();
    }
    return largest;
}

std::optional<Difference> difference(const Picture& a, const Picture& b) {
    if (a.width != b.width || a.height != b.height) return std::nullopt;
    Difference found;
    for (int y = 0; y < a.height; ++y) {
        for (int x = 0; x < a.width; ++x) {
            const float apart = pixel_difference(a.at(x, y), a.channels, b.at(x, y), b.channels);
            found.seen += apart > seen_difference ? 1 : 0;
            if (apart > found.largest) found = {apart, x, y, found.seen};
        }
    }
    return found;
}

double share_changed(const DrawnStep& now, const DrawnStep& picture) {
    const int channels = std::min(now.picture.channels, picture.picture.channels);
    std::size_t there = 0;
    std::size_t changed = 0;
    for (int y = 0; y < now.picture.height; ++y) {
        for (int x = 0; x < now.picture.width; ++x) {
            const float* a = now.picture.at(x, y);
            const float* b = picture.picture.at(x, y);
            if (picture.picture.channels == 4 && b[3] < 0.5F) continue;
            ++there;
            bool differs = false;
            for (int c = 0; c < channels; ++c) differs = differs || std::fabs(a[c] - b[c]) > 0.004F;
            changed += differs ? 1 : 0;
        }
    }
    return there == 0 ? 0 : static_cast<double>(changed) / static_cast<double>(there);
}

double share_opaque(const DrawnStep& now) {
    if (now.picture.channels < 4) return 1;
    std::size_t opaque = 0;
    for (int y = 0; y < now.picture.height; ++y) {
        for (int x = 0; x < now.picture.width; ++x) opaque += now.picture.at(x, y)[3] > 0.004F ? 1 : 0;
    }
    return static_cast<double>(opaque) / now.picture.width / now.picture.height;
}

}  // namespace lacquer
