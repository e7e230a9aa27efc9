// Pictures read along strips in every way there is a short cut for, against the definition in core/picture/sample.h.
#include <bit>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "core/cpu/kernels.h"
#include "core/picture/coded.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

constexpr std::size_t sampled = 48;

struct Strip {
    alignas(64) std::array<float, sampled> u{};
    alignas(64) std::array<float, sampled> v{};
    std::array<std::array<float, sampled>, 4> read{};
};

// Reads the strip by one set of kernels; the second coordinate may be the same all along it.
void read(const KernelSet& set, const PictureView& view, Strip& strip, bool one_row, Op op = Op::sample) {
    alignas(64) std::array<std::array<float, sampled>, 4> out{};
    KernelArgs args;
    args.in = {strip.u.data(), strip.v.data()};
    args.stride = {1, one_row ? std::size_t{0} : std::size_t{1}};
    for (std::size_t c = 0; c < 4; ++c) args.out[c] = out[c].data();
    args.count = sampled;
    args.picture = &view;
    set.kernels[static_cast<std::size_t>(op)](args);
    strip.read = out;
}

bool same_bits(float a, float b) { return a == b || (std::isnan(a) && std::isnan(b)); }

void strips_agree(const PictureView& view, Strip strip, bool one_row = false) {
    if (one_row) strip.v.fill(strip.v[0]);
    for (const KernelSet& set : kernel_sets()) {
        INFO(set.name);
        read(set, view, strip, one_row);
        for (std::size_t i = 0; i < sampled; ++i) {
            const std::array<float, 4> expected = sample(view, strip.u[i], strip.v[i]);
            for (std::size_t c = 0; c < 4; ++c) {
                INFO("pixel " << i << ", part " << c << ": " << strip.read[c][i] << " for " << expected[c]);
                REQUIRE(same_bits(strip.read[c][i], expected[c]));
            }
        }
    }
}

// Places of a strip of pixels in row y of a picture, moved by parts of a pixel.
Strip moved(const Picture& picture, int x, int y, float dx, float dy) {
    Strip strip;
    for (std::size_t i = 0; i < sampled; ++i) {
        strip.u[i] = (static_cast<float>(x + static_cast<int>(i)) + 0.5F + dx) / static_cast<float>(picture.width);
        strip.v[i] = (static_cast<float>(y) + 0.5F + dy) / static_cast<float>(picture.height);
    }
    return strip;
}

}  // namespace

TEST_CASE("taps side by side: whole, parts of a pixel across, down and both, also over the borders") {
    const Picture picture = test::test_picture(200, 9);
    for (const auto& [dx, dy] : std::vector<std::pair<float, float>>{
             {0, 0}, {0.25F, 0}, {0, 0.75F}, {0.5F, 0.5F}, {-3, 2}, {1.0F / 256, -1.0F / 256}, {7.3F, -2.9F}}) {
        for (const int x : {-20, 0, 16, 77, 151, 152, 153, 190}) {
            for (const int y : {0, 4, 8}) {
                Strip strip = moved(picture, x, y, dx, dy);
                strips_agree(view_of(picture), strip);
                strips_agree(view_of(picture), strip, true);
            }
        }
    }
}

TEST_CASE("taps that only begin side by side, in a row or across two, are read one by one") {
    const Picture picture = test::test_picture(64, 8);
    Strip strip = moved(picture, 3, 2, 0.25F, 0.5F);
    strip.u[5] = 0.9F;
    strip.v[20] = 0.1F;
    strip.u[15] = strip.u[14];
    strips_agree(view_of(picture), strip);
    // The last pixel of a row and the first of the next lie side by side in memory, and nowhere else.
    strip = moved(picture, 50, 2, 0, 0);
    for (std::size_t i = 14; i < sampled; ++i) {
        strip.u[i] = (static_cast<float>(i - 14) + 0.5F) / 64;
        strip.v[i] = (3 + 0.5F) / 8;
    }
    strips_agree(view_of(picture), strip);
    for (std::size_t i = 0; i < sampled; ++i) strip.u[i] = 1.0F - strip.u[i];
    strips_agree(view_of(picture), strip);
}

TEST_CASE("values that are not finite stay where they are, however taps lie") {
    Picture picture = test::test_picture(96, 4);
    picture.at(20, 1)[0] = std::numeric_limits<float>::infinity();
    picture.at(33, 2)[3] = std::numeric_limits<float>::quiet_NaN();
    for (const float dx : {0.0F, 0.5F}) {
        for (const float dy : {0.0F, 0.5F}) {
            Strip strip = moved(picture, 4, 1, dx, dy);
            strips_agree(view_of(picture), strip);
            strips_agree(view_of(picture, {Wrap::clamp, Filter::nearest}), strip);
        }
    }
    Strip strip = moved(picture, 4, 1, 0, 0);
    strip.u[7] = std::numeric_limits<float>::quiet_NaN();
    strip.v[9] = std::numeric_limits<float>::infinity();
    strip.u[30] = -std::numeric_limits<float>::infinity();
    strips_agree(view_of(picture), strip);
    strips_agree(view_of(picture, {Wrap::clamp, Filter::nearest}), strip);
}

TEST_CASE("small pictures, and every way of going on beyond the borders") {
    for (const auto& [width, height] : std::vector<std::pair<int, int>>{{1, 1}, {2, 1}, {1, 7}, {17, 3}}) {
        const Picture picture = test::test_picture(width, height);
        for (const Wrap wrap : {Wrap::clamp, Wrap::repeat, Wrap::mirror}) {
            for (const Filter filter : {Filter::linear, Filter::nearest}) {
                Strip strip;
                for (std::size_t i = 0; i < sampled; ++i) {
                    strip.u[i] = static_cast<float>(i) * 0.11F - 1.7F;
                    strip.v[i] = 2.3F - static_cast<float>(i) * 0.07F;
                }
                strips_agree(view_of(picture, {wrap, filter}), strip);
            }
        }
    }
}

TEST_CASE("pixels are fetched in runs, one by one, and held to the borders") {
    const Picture picture = test::test_picture(70, 6);
    const PictureView view = view_of(picture);
    struct Places {
        alignas(64) std::array<float, sampled> x{};
        alignas(64) std::array<float, sampled> y{};
    };
    const auto agrees_at = [&](const auto& place, bool one_row) {
        Places places;
        for (std::size_t i = 0; i < sampled; ++i) {
            const auto [x, y] = place(static_cast<int>(i));
            places.x[i] = std::bit_cast<float>(x);
            places.y[i] = std::bit_cast<float>(one_row ? place(0).second : y);
        }
        for (const KernelSet& set : kernel_sets()) {
            alignas(64) std::array<std::array<float, sampled>, 4> out{};
            KernelArgs args;
            args.in = {places.x.data(), places.y.data()};
            args.stride = {1, one_row ? std::size_t{0} : std::size_t{1}};
            for (std::size_t c = 0; c < 4; ++c) args.out[c] = out[c].data();
            args.count = sampled;
            args.picture = &view;
            set.kernels[static_cast<std::size_t>(Op::fetch)](args);
            for (std::size_t i = 0; i < sampled; ++i) {
                const auto expected =
                    fetch(view, std::bit_cast<int>(places.x[i]), std::bit_cast<int>(places.y[one_row ? 0 : i]));
                INFO(set.name << ", pixel " << i);
                for (std::size_t c = 0; c < 4; ++c) REQUIRE(out[c][i] == expected[c]);
            }
        }
    };
    for (const int begin : {-40, -1, 0, 9, 22, 54, 69, 100}) {
        for (const int row : {-3, 0, 5, 6}) {
            agrees_at([&](int i) { return std::pair(begin + i, row); }, false);
            agrees_at([&](int i) { return std::pair(begin + i, row); }, true);
            agrees_at([&](int i) { return std::pair(begin + i, row + i / 20); }, false);
        }
    }
    agrees_at([](int i) { return std::pair(60 - i, 2); }, false);
    agrees_at([](int i) { return std::pair(i == 7 ? 40 : i, i == 30 ? 1 : 3); }, false);
    agrees_at(
        [](int i) {
            return std::pair(i % 2 == 0 ? std::numeric_limits<int>::max() : std::numeric_limits<int>::min(), 1);
        },
        false);
}

TEST_CASE("a picture of bytes is read along strips as its numbers are, every way and by every instruction set") {
    for (const auto& [width, height] : {std::pair{200, 9}, {64, 8}, {17, 3}, {3, 40}, {1, 1}}) {
        Picture bytes = Picture::of_bytes(width, height, Coding::display);
        for (std::size_t i = 0; i < bytes.bytes.size(); ++i)
            bytes.bytes[i] = static_cast<std::uint8_t>(i % 7 == 3 ? 0 : i * 37 % 256);
        const Picture numbers = decoded(bytes);
        for (const bool weighed : {false, true}) {
            for (const Filter filter : {Filter::linear, Filter::nearest}) {
                const Sampling sampling{Wrap::clamp, filter, weighed};
                for (const auto& [dx, dy] : std::vector<std::pair<float, float>>{
                         {0, 0}, {0.25F, 0}, {0, 0.75F}, {0.5F, 0.5F}, {-3, 2}, {7.3F, -2.9F}}) {
                    for (const int x : {-20, 0, 16, 152, 153, 190}) {
                        Strip strip = moved(bytes, x, std::min(4, height - 1), dx, dy);
                        strips_agree(view_of(bytes, sampling), strip);
                        strip.u[7] = 0.31F;
                        strip.v[30] = std::numeric_limits<float>::quiet_NaN();
                        strips_agree(view_of(bytes, sampling), strip);
                        strips_agree(view_of(numbers, sampling), strip);
                    }
                }
            }
        }
        // Pixels by their numbers, in a row, anywhere and beyond.
        const PictureView view = view_of(bytes);
        for (const KernelSet& set : kernel_sets()) {
            for (const int step : {1, 3, -2}) {
                Strip strip;
                for (std::size_t i = 0; i < sampled; ++i) {
                    strip.u[i] = std::bit_cast<float>(static_cast<std::int32_t>(i) * step - 4);
                    strip.v[i] = std::bit_cast<float>(static_cast<std::int32_t>(i / 20));
                }
                read(set, view, strip, false, Op::fetch);
                for (std::size_t i = 0; i < sampled; ++i) {
                    const auto expected = fetch(view_of(numbers), std::bit_cast<std::int32_t>(strip.u[i]),
                                                std::bit_cast<std::int32_t>(strip.v[i]));
                    for (std::size_t c = 0; c < 4; ++c) REQUIRE(strip.read[c][i] == expected[c]);
                }
            }
        }
    }
}
