// Pictures that are kept as the bytes of their files: whatever reads them finds the numbers that they stand for.
#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/cpu/kernels.h"
#include "core/picture/coded.h"
#include "core/picture/files.h"
#include "core/picture/reading.h"
#include "core/picture/sample.h"
#include "core/picture/sprite.h"
#include "core/picture/transfer.h"
#include "core/picture/write_picture.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::TemporaryFolder;

namespace {

Picture of_bytes(int width, int height, Coding coding, bool opaque = false) {
    std::mt19937 random(4);
    Picture made = Picture::of_bytes(width, height, coding);
    for (std::uint8_t& byte : made.bytes) byte = static_cast<std::uint8_t>(random() % 3 == 0 ? 0 : random() % 256);
    for (std::size_t i = 3; opaque && i < made.bytes.size(); i += 4) made.bytes[i] = 255;
    return made;
}

const ReadWatch unwatched([](double) { return true; });

}  // namespace

// The numbers: IEC 61966-2-1 for display values; shares of 255 for all else.
TEST_CASE("bytes stand for display values or shares, opacity always for shares") {
    for (int level = 0; level < 256; ++level) {
        const auto byte = static_cast<std::uint8_t>(level);
        for (const Coding coding : {Coding::shares, Coding::display}) {
            const std::array<std::uint8_t, 4> pixel = {byte, 0, 255, byte};
            std::array<float, 4> numbers{};
            decode_pixels(pixel.data(), coding, numbers.data(), 1);
            const double share = level / 255.0;
            CHECK(numbers[0] == static_cast<float>(coding == Coding::display ? srgb_decode(share) : share));
            CHECK(numbers[1] == 0.0F);
            CHECK(numbers[2] == 1.0F);
            CHECK(numbers[3] == static_cast<float>(share));
        }
    }
}

TEST_CASE("files of 8 bits are read as bytes, all others as numbers, and both are the same numbers") {
    const TemporaryFolder folder;
    Image8 image{9, 7, {}};
    for (int i = 0; i < 9 * 7 * 4; ++i) image.data.push_back(static_cast<std::uint8_t>(i * 37 % 256));
    Image8 opaque = image;
    for (std::size_t i = 3; i < opaque.data.size(); i += 4) opaque.data[i] = 255;
    REQUIRE(write_png(folder.file("a.png"), image));
    REQUIRE(write_png(folder.file("opaque.png"), opaque));
    std::vector<std::string> files = {"a.png", "opaque.png"};
    for (const auto& [name, format, channels, bits] :
         std::vector<std::tuple<std::string, const char*, int, int>>{{"grey.tif", "tiff", 1, 8},
                                                                     {"rgb.tif", "tiff", 3, 8},
                                                                     {"rgba.tif", "tiff", 4, 8},
                                                                     {"wide.tif", "tiff", 3, 16},
                                                                     {"a.jpg", "jpeg", 3, 8}}) {
        EncodedPicture picture;
        picture.format = format;
        picture.compression = std::string(format) == "jpeg" ? "jpeg:95" : "none";
        picture.width = 9;
        picture.height = 7;
        picture.channels = channels;
        picture.bits = bits;
        std::vector<std::uint8_t> numbers(9 * 7 * static_cast<std::size_t>(channels * bits / 8));
        for (std::size_t i = 0; i < numbers.size(); ++i) numbers[i] = static_cast<std::uint8_t>(i * 29 % 256);
        picture.numbers = numbers.data();
        REQUIRE(write_encoded(folder.file(name), picture));
        files.push_back(name);
    }
    for (const std::string& name : files) {
        for (const PictureMeaning meaning :
             {PictureMeaning::colour, PictureMeaning::straight, PictureMeaning::data, PictureMeaning::multiplied}) {
            INFO(name << ", " << static_cast<int>(meaning));
            const Result<Picture> kept = read_picture_watched(folder.file(name), meaning, 0, unwatched);
            REQUIRE(kept);
            const bool as_bytes = name != "wide.tif" && meaning != PictureMeaning::multiplied;
            CHECK((kept->coding != Coding::numbers) == as_bytes);
            CHECK(bytes_held(*kept) == std::size_t{9 * 7} * (as_bytes ? 4 : 16));
            const Result<Picture> numbers = read_picture(folder.file(name), meaning);
            REQUIRE(numbers);
            CHECK(numbers->coding == Coding::numbers);
            CHECK(decoded(*kept).data == numbers->data);
            // As they were written.
            if (name == "a.png" && meaning == PictureMeaning::data)
                CHECK(numbers->at(3, 2)[1] == static_cast<float>(image.data[(2 * 9 + 3) * 4 + 1]) / 255.0F);
        }
    }
}

TEST_CASE("bytes are read, shrunk and cut as the numbers that they stand for") {
    std::mt19937 random(12);
    for (const Coding coding : {Coding::shares, Coding::display}) {
        for (const auto& [width, height] : {std::pair{1, 1}, {2, 2}, {7, 5}, {64, 32}, {33, 50}}) {
            const Picture kept = of_bytes(width, height, coding);
            const Picture numbers = decoded(kept);
            INFO(width << " x " << height);
            CHECK(decoded(view_of(kept))->data == numbers.data);
            CHECK_FALSE(decoded(view_of(numbers)).has_value());
            for (const bool weighed : {false, true}) {
                for (const auto& [w, h] : {std::pair{1, 1}, {3, 2}, {width / 2, height / 2}, {width, height}})
                    CHECK(shrink_to(kept, w, h, weighed).data == shrink_to(numbers, w, h, weighed).data);
                const auto of_kept = smaller_copies(kept, weighed);
                const auto of_numbers = smaller_copies(numbers, weighed);
                REQUIRE(of_kept.size() == of_numbers.size());
                for (std::size_t i = 0; i < of_kept.size(); ++i) CHECK(of_kept[i].data == of_numbers[i].data);
            }
            CHECK(thinned_to(kept, 3, 2).data == thinned_to(numbers, 3, 2).data);
            CHECK(decoded(sheet_cell(kept, 2, 2, 3)).data == sheet_cell(numbers, 2, 2, 3).data);
            CHECK(is_opaque(kept) == is_opaque(numbers));
            CHECK(is_opaque(of_bytes(width, height, coding, true)));
            for (const Wrap wrap : {Wrap::clamp, Wrap::repeat, Wrap::mirror}) {
                for (const Filter filter : {Filter::linear, Filter::nearest}) {
                    for (const bool weighed : {false, true}) {
                        const Sampling sampling{wrap, filter, weighed};
                        for (int i = 0; i < 40; ++i) {
                            const float u = static_cast<float>(random() % 4000) / 1000.0F - 1.5F;
                            const float v = static_cast<float>(random() % 4000) / 1000.0F - 1.5F;
                            CHECK(sample(view_of(kept, sampling), u, v) == sample(view_of(numbers, sampling), u, v));
                        }
                    }
                }
            }
            CHECK(fetch(view_of(kept), 2, -1) == fetch(view_of(numbers), 2, -1));
        }
    }
}
