// How values are shown.
#include <hwy/targets.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "core/picture/display_kernels.h"
#include "core/picture/transfer.h"
#include "core/render/view.h"

using namespace lacquer;

namespace {

Image8 shown(std::initializer_list<float> values, int channels, Type type, const ViewStyle& style) {
    Picture picture(static_cast<int>(values.size()) / channels, 1, channels);
    std::copy(values.begin(), values.end(), picture.data.begin());
    WorkerPool pool(1);
    return to_image(picture, type, pool, style);
}

int lightness(const Image8& image, std::size_t pixel) {
    return image.data[pixel * 4] * 30 + image.data[pixel * 4 + 1] * 59 + image.data[pixel * 4 + 2] * 11;
}

}  // namespace

TEST_CASE("exposure brightens colours by stops and leaves masks alone") {
    // IEC 61966-2-1: a linear 0.5 is shown as 188, twice that as 255.
    CHECK(shown({0.5F, 0.5F, 0.5F}, 3, Type::vec3, {}).data[0] == 188);
    CHECK(shown({0.5F, 0.25F, 0}, 3, Type::vec3, {1, false, false}).data[0] == 255);
    CHECK(shown({0.5F, 0.25F, 0}, 3, Type::vec3, {1, false, false}).data[1] == 188);
    CHECK(shown({0.5F}, 1, Type::number, {2, false, false}).data[0] == 128);
    CHECK(shown({0.5F, 0.5F, 0.5F, 0.25F}, 4, Type::vec4, {1, false, false}).data[3] == 64);
}

TEST_CASE("false colours grow lighter with the value, so that they can be read without colour") {
    Picture ramp(20, 1, 1);
    for (int i = 0; i < 20; ++i) *ramp.at(i, 0) = (static_cast<float>(i) + 0.3F) / 20.0F;
    WorkerPool pool(1);
    const Image8 image = to_image(ramp, Type::number, pool, {0, true, false});
    for (std::size_t i = 1; i < 20; ++i) CHECK(lightness(image, i) > lightness(image, i - 1));
    // A line below each tenth.
    const Image8 line = shown({0.52F, 0.597F}, 1, Type::number, {0, true, false});
    CHECK(lightness(line, 1) < lightness(line, 0));
    // Colours stay as they are.
    CHECK(shown({1, 0, 0}, 3, Type::vec3, {0, true, false}).data[0] == 255);
}

TEST_CASE("what lies outside 0..1 has stripes, what is not finite has squares") {
    Picture values(16, 1, 1);
    for (int i = 0; i < 16; ++i) *values.at(i, 0) = 1.5F;
    WorkerPool pool(1);
    const auto marked = [&](const Image8& image) {
        int count = 0;
        for (std::size_t i = 0; i < 16; ++i) {
            const bool grey = image.data[i * 4] == image.data[i * 4 + 1] && image.data[i * 4] == image.data[i * 4 + 2];
            count += grey ? 0 : 1;
        }
        return count;
    };
    CHECK(marked(to_image(values, Type::number, pool, {0, false, true})) == 4);
    CHECK(marked(to_image(values, Type::number, pool)) == 0);
    for (int i = 0; i < 16; ++i) *values.at(i, 0) = -0.5F;
    CHECK(marked(to_image(values, Type::number, pool, {0, false, true})) == 4);
    for (int i = 0; i < 16; ++i) *values.at(i, 0) = NAN;
    CHECK(marked(to_image(values, Type::number, pool, {0, false, true})) == 8);
    for (int i = 0; i < 16; ++i) *values.at(i, 0) = 1.0F;
    CHECK(marked(to_image(values, Type::number, pool, {0, false, true})) == 0);
}

TEST_CASE("whole vectors become the bytes that single numbers do, at every width and by every instruction set") {
    // Around each place where a byte turns into the next, and what is no colour.
    const SrgbEncoder encode;
    std::vector<float> numbers = {0.0F, -0.0F, -3.0F, 1.0F, 7.5F, std::nextafter(1.0F, 0.0F), 1e-40F, 1e30F};
    numbers.push_back(std::numeric_limits<float>::quiet_NaN());
    numbers.push_back(std::numeric_limits<float>::infinity());
    numbers.push_back(-std::numeric_limits<float>::infinity());
    for (int level = 0; level < 255; ++level) {
        const auto there = static_cast<float>(srgb_decode((level + 0.5) / 255));
        for (const float near : {std::nextafter(there, 0.0F), there, std::nextafter(there, 1.0F)})
            numbers.push_back(near);
    }
    // And all over the curve.
    for (float value = 0.0015F; value < 1.0F; value *= 1.00001F) numbers.push_back(value);
    const auto plain = [](float value) {
        return !(value > 0.0F) ? 0 : value >= 1.0F ? 255 : static_cast<int>(value * 255.0F + 0.5F);
    };
    for (const std::int64_t target : hwy::SupportedAndGeneratedTargets()) {
        hwy::SetSupportedTargetsForTest(target);
        for (const std::size_t width :
             {std::size_t{1}, std::size_t{15}, std::size_t{16}, std::size_t{17}, numbers.size()}) {
            for (const int channels : {1, 3, 4}) {
                const auto c = static_cast<std::size_t>(channels);
                std::vector<float> from(width * c);
                for (std::size_t i = 0; i < from.size(); ++i) from[i] = numbers[i * 7 % numbers.size()];
                std::vector<std::uint8_t> to(width * 4 + 1, 77);
                const bool finite = show_pixels(from.data(), channels, 1.0F, to.data(), width);
                CHECK(finite == std::all_of(from.begin(), from.end(), [](float f) { return std::isfinite(f); }));
                CHECK(to.back() == 77);
                bool right = true;
                for (std::size_t i = 0; i < width; ++i) {
                    for (std::size_t k = 0; k < 3; ++k) {
                        const float value = from[i * c + (channels == 1 ? 0 : k)];
                        right = right && to[i * 4 + k] == (channels == 1 ? plain(value) : encode(value));
                    }
                    right = right && to[i * 4 + 3] == (channels == 4 ? plain(from[i * c + 3]) : 255);
                }
                INFO(hwy::TargetName(target) << ", " << width << " pixels of " << channels);
                CHECK(right);
            }
        }
    }
    hwy::SetSupportedTargetsForTest(0);
}
