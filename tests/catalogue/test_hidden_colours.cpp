// What is clear has no colour that could be seen, whatever numbers stand there.
#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>

#include "tests/support/finishes.h"
#include "tests/support/operations.h"

using namespace lacquer;
using test::SampleDrawer;

namespace {

// White where `hill` is high, and clear elsewhere over this colour.
std::string white_over_clear(const std::string& hidden) {
    return "vec4(mix(" + hidden + ", vec3(1), step(0.5, hill)), step(0.5, hill))";
}

// The largest difference between what is seen of two pictures.
double seen_difference(const Picture& a, const Picture& b) {
    REQUIRE(a.data.size() == b.data.size());
    const auto channels = static_cast<std::size_t>(a.channels);
    double worst = 0;
    for (std::size_t i = 0; i < a.data.size(); i += channels) {
        for (std::size_t c = 0; c < channels; ++c) {
            const float opacity_a = channels == 4 && c < 3 ? a.data[i + 3] : 1;
            const float opacity_b = channels == 4 && c < 3 ? b.data[i + 3] : 1;
            worst =
                std::max(worst, std::fabs(static_cast<double>(a.data[i + c] * opacity_a - b.data[i + c] * opacity_b)));
        }
    }
    return worst;
}

}  // namespace

TEST_CASE("no operation shows a colour that is hidden under zero opacity in a picture that it is handed") {
    for (const Backend backend : {Backend::cpu, Backend::gpu}) {
        SampleDrawer drawer(backend);
        std::size_t tried = 0;
        for (const auto& [name, operation] : built_in_catalogue()->operations) {
            const test::ShownCall call = test::shown_call(operation);
            for (std::size_t i = 0; i < operation.arguments.size(); ++i) {
                const OperationArgument& argument = operation.arguments[i];
                const bool colour =
                    argument.picture && argument.role == "colour" && (argument.width == 0 || argument.width == 4);
                if (!colour) continue;
                INFO(name << ", " << argument.name);
                const Picture over_red = drawer.draw(call.with(i, white_over_clear("vec3(1, 0, 0)")));
                const Picture over_white = drawer.draw(call.with(i, white_over_clear("vec3(1)")));
                CHECK(seen_difference(over_red, over_white) < 0.002);
                ++tried;
            }
        }
        CHECK(tried >= 18);
    }
}

TEST_CASE("between the pixels of a picture with opacity colours count by their opacity; data stays as it is") {
    Picture picture(2, 1, 4);
    const std::array<float, 8> numbers = {1, 1, 1, 1, 1, 0, 0, 0};
    std::copy(numbers.begin(), numbers.end(), picture.data.begin());
    Sampling weighed;
    weighed.weighed = true;
    for (const float u : {0.3F, 0.5F, 0.6F}) {
        const auto by_opacity = sample(view_of(picture, weighed), u, 0.5F);
        CHECK(by_opacity[1] == 1);
        CHECK(by_opacity[3] == sample(view_of(picture), u, 0.5F)[3]);
        CHECK(sample(view_of(picture), u, 0.5F)[1] < 1);
    }
    // On a pixel its hidden colour is what it is.
    CHECK(sample(view_of(picture, weighed), 0.75F, 0.5F)[1] == 0);
    const auto copies = smaller_copies(picture, true);
    CHECK(copies[0].at(0, 0)[1] == 1);
    CHECK(copies[0].at(0, 0)[3] == 0.5F);
    Ground ground = test::picture_ground("crab", "crab.png");
    CHECK(sampling_of(ground, GroundLayer::colour).weighed);
    ground.as<PictureGround>()->data = true;
    CHECK_FALSE(sampling_of(ground, GroundLayer::colour).weighed);
}

TEST_CASE("an opaque picture reads the same bits by opacity and without") {
    Picture picture = test::test_picture(16, 9);
    for (std::size_t i = 3; i < picture.data.size(); i += 4) picture.data[i] = 1;
    Sampling weighed;
    weighed.weighed = true;
    for (int i = 0; i < 400; ++i) {
        const float u = static_cast<float>(i % 20) / 19;
        const float v = static_cast<float>(i) / 399;
        CHECK(sample(view_of(picture, weighed), u, v) == sample(view_of(picture), u, v));
    }
    CHECK(is_opaque(picture));
    picture.at(3, 3)[3] = 0.999F;
    CHECK_FALSE(is_opaque(picture));
}
