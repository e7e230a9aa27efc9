#include <catch2/catch.hpp>

#include "core/render/grounds.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

Image8 grey(int size, std::uint8_t level) {
    Image8 image{size, size, {}};
    for (int i = 0; i < size * size; ++i) {
        for (const std::uint8_t part : {level, level, level, std::uint8_t{255}}) image.data.push_back(part);
    }
    return image;
}

}  // namespace

TEST_CASE("a picture is read once, and the same one handed out") {
    const test::TemporaryFolder folder;
    REQUIRE(write_png(folder.file("a.png"), grey(4, 100)));
    WorkerPool pool(1);
    GroundStore store(pool);
    const PicturePtr first = *store.file(folder.file("a.png"), PictureMeaning::colour);
    CHECK(*store.file(folder.file("a.png"), PictureMeaning::colour) == first);
    const PicturePtr data = *store.file(folder.file("a.png"), PictureMeaning::data);
    CHECK(data != first);
    CHECK(data->data[0] == 100.0F / 255.0F);
}

TEST_CASE("small pictures are averages, kept for their size") {
    const test::TemporaryFolder folder;
    REQUIRE(write_png(folder.file("a.png"), grey(8, 255)));
    WorkerPool pool(1);
    GroundStore store(pool);
    const PicturePtr small = *store.small_file(folder.file("a.png"), PictureMeaning::colour, 2, 3);
    CHECK(small->width == 2);
    CHECK(small->height == 3);
    CHECK(small->data[0] == 1);
    CHECK(*store.small_file(folder.file("a.png"), PictureMeaning::colour, 2, 3) == small);
    CHECK((*store.small_file(folder.file("a.png"), PictureMeaning::colour, 4, 4))->width == 4);
}

TEST_CASE("a picture that appears later is found") {
    const test::TemporaryFolder folder;
    WorkerPool pool(1);
    GroundStore store(pool);
    CHECK(store.file(folder.file("a.png"), PictureMeaning::colour).fault().id == "picture.missing");
    CHECK(store.small_file(folder.file("a.png"), PictureMeaning::colour, 2, 2).fault().id == "picture.missing");
    REQUIRE(write_png(folder.file("a.png"), grey(2, 1)));
    CHECK(store.file(folder.file("a.png"), PictureMeaning::colour));
}
