#include <catch2/catch.hpp>

#include "core/picture/files.h"
#include "core/picture/transfer.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::TemporaryFolder;

namespace {

Image8 small_image(bool opaque) {
    Image8 image{3, 2, {}};
    for (int i = 0; i < 24; ++i) image.data.push_back(static_cast<std::uint8_t>(i * 10));
    for (std::size_t i = 3; i < 24 && opaque; i += 4) image.data[i] = 255;
    return image;
}

}  // namespace

TEST_CASE("a PNG with opacity comes back in linear light, straight, to the bit") {
    const TemporaryFolder folder;
    for (const bool opaque : {true, false}) {
        const Image8 image = small_image(opaque);
        REQUIRE(write_png(folder.file("a.png"), image));
        const Result<Picture> read = read_picture(folder.file("a.png"), PictureMeaning::colour);
        REQUIRE(read);
        REQUIRE(read->width == 3);
        REQUIRE(read->height == 2);
        for (std::size_t i = 0; i < 24; ++i) {
            const float expected =
                i % 4 == 3 ? static_cast<float>(image.data[i]) / 255.0F : srgb_decode_table()[image.data[i]];
            CHECK(read->data[i] == expected);
        }
        const Result<Picture> data = read_picture(folder.file("a.png"), PictureMeaning::data);
        CHECK(data->data[4] == 40.0F / 255.0F);
    }
}

TEST_CASE("pictures that are missing or are none are told") {
    const TemporaryFolder folder;
    const auto id = [](const std::string& path) { return read_picture(path, PictureMeaning::colour).fault().id; };
    CHECK(id(folder.file("none.png")) == "picture.missing");
    CHECK(id(folder.path().string()) == "picture.unreadable");
    test::write_file(folder.file("text.png"), "this is no picture");
    CHECK(id(folder.file("text.png")) == "picture.unreadable");
    REQUIRE(write_png(folder.file("a.png"), small_image(false)));
    const std::string whole = test::read_file(folder.file("a.png"));
    test::write_file(folder.file("cut.png"), whole.substr(0, whole.size() / 2));
    CHECK(id(folder.file("cut.png")) == "picture.unreadable");
}

TEST_CASE("a picture that claims to be huge is refused before it is read") {
    const TemporaryFolder folder;
    // A Netpbm header is all that it takes to claim a size.
    test::write_file(folder.file("huge.ppm"), "P6 200000 200000 255\n");
    CHECK(read_picture(folder.file("huge.ppm"), PictureMeaning::colour).fault().id == "picture.too-large");
    CHECK_FALSE(is_drawable_size(32768, 32768));
    CHECK_FALSE(is_drawable_size(0, 5));
    CHECK(is_drawable_size(32768, 1));
}

TEST_CASE("a picture that cannot be written leaves nothing behind") {
    const TemporaryFolder folder;
    const Result<Done> done = write_png(folder.file("no/a.png"), small_image(true));
    REQUIRE_FALSE(done);
    CHECK(done.fault().id == "file.unwritable");
    CHECK(std::filesystem::is_empty(folder.path()));
}
