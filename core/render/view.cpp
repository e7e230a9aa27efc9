#include "core/render/view.h"

#include <algorithm>
#include <cmath>

#include "core/picture/transfer.h"

namespace lacquer {

namespace {

std::uint8_t plain_level(float value) {
    if (!(value > 0.0F)) return 0;
    return value >= 1.0F ? 255 : static_cast<std::uint8_t>(value * 255.0F + 0.5F);
}

void convert_pixel(const float* from, std::uint8_t* to, Type type, const SrgbEncoder& encode) {
    switch (type) {
        case Type::vec2:
            to[0] = plain_level(from[0]);
            to[1] = plain_level(from[1]);
            to[2] = 0;
            to[3] = 255;
            return;
        case Type::vec3:
        case Type::vec4:
            for (int c = 0; c < 3; ++c) to[c] = encode(from[c]);
            to[3] = type == Type::vec4 ? plain_level(from[3]) : 255;
            return;
        case Type::number:
        default:
            break;
    }
    to[0] = to[1] = to[2] = plain_level(from[0]);
    to[3] = 255;
}

}  // namespace

Image8 to_image(const Picture& picture, Type type, WorkerPool& pool) {
    static const SrgbEncoder encode;
    Image8 image{picture.width, picture.height, {}};
    image.data.resize(static_cast<std::size_t>(picture.width) * static_cast<std::size_t>(picture.height) * 4);
    constexpr int band = 32;
    pool.run((picture.height + band - 1) / band, [&](int piece) {
        const int bottom = std::min(picture.height, (piece + 1) * band);
        for (int y = piece * band; y < bottom; ++y) {
            const float* from = picture.at(0, y);
            std::uint8_t* to =
                image.data.data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(picture.width) * 4;
            for (int x = 0; x < picture.width; ++x, from += picture.channels, to += 4)
                convert_pixel(from, to, type, encode);
        }
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
