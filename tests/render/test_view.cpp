// How values are shown.
#include <catch2/catch.hpp>
#include <cmath>

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
