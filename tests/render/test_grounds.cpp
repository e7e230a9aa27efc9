#include <catch2/catch.hpp>

#include <array>
#include <atomic>
#include <thread>

#include "core/render/grounds.h"
#include "tests/support/finishes.h"
#include "tests/support/moving_png.h"
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

bool unwatched(double /*share*/) { return true; }

constexpr std::size_t bytes_of_16 = std::size_t{16} * 16 * 4 * sizeof(float);

}  // namespace

TEST_CASE("a picture is read once, and the same one handed out") {
    const test::TemporaryFolder folder;
    REQUIRE(write_png(folder.file("a.png"), grey(4, 100)));
    PictureStore store;
    const PicturePtr first = *store.file(folder.file("a.png"), PictureMeaning::colour, 0, unwatched);
    CHECK(*store.file(folder.file("a.png"), PictureMeaning::colour, 0, unwatched) == first);
    const PicturePtr data = *store.file(folder.file("a.png"), PictureMeaning::data, 0, unwatched);
    CHECK(data != first);
    CHECK(data->data[0] == 100.0F / 255.0F);
}

TEST_CASE("small pictures are averages, kept for their size") {
    const test::TemporaryFolder folder;
    REQUIRE(write_png(folder.file("a.png"), grey(8, 255)));
    PictureStore store;
    const PicturePtr whole = *store.file(folder.file("a.png"), PictureMeaning::colour, 0, unwatched);
    const PicturePtr small = store.smaller(whole, 2, 3, true);
    CHECK(small->width == 2);
    CHECK(small->height == 3);
    CHECK(small->data[0] == 1);
    CHECK(store.smaller(whole, 2, 3, true) == small);
    CHECK(store.smaller(whole, 4, 4, true)->width == 4);
}

TEST_CASE("a picture that appears later is found") {
    const test::TemporaryFolder folder;
    PictureStore store;
    const std::string path = folder.file("a.png");
    CHECK(store.file(path, PictureMeaning::colour, 0, unwatched).fault().id == "picture.missing");
    REQUIRE(write_png(path, grey(2, 1)));
    CHECK(store.file(path, PictureMeaning::colour, 0, unwatched));
}

TEST_CASE("what was not used for longest is let go of first, and lives on where it is held") {
    const test::TemporaryFolder folder;
    for (const char* name : {"a.png", "b.png", "c.png"}) REQUIRE(write_png(folder.file(name), grey(16, 7)));
    PictureStore store({.most = bytes_of_16 * 5 / 2});
    const auto read = [&](const char* name) {
        return *store.file(folder.file(name), PictureMeaning::colour, 0, unwatched);
    };
    const PicturePtr a = read("a.png");
    const std::weak_ptr<const Picture> b = read("b.png");
    CHECK(read("a.png") == a);
    (void)read("c.png");
    CHECK(store.bytes() < bytes_of_16 * 5 / 2);
    CHECK(b.expired());
    CHECK(read("a.png") == a);
    (void)read("b.png");
    (void)read("c.png");
    // It need not be read a second time.
    CHECK(read("a.png") == a);
    CHECK(a->width == 16);
}

TEST_CASE("what was made of a picture goes with it") {
    const test::TemporaryFolder folder;
    REQUIRE(write_png(folder.file("a.png"), grey(16, 7)));
    PictureStore store;
    auto made = std::make_shared<const Picture>(16, 16, 4);
    (void)store.copies(made, false);
    const std::weak_ptr<const Picture> small = store.smaller(made, 4, 4, true);
    CHECK_FALSE(small.expired());
    made.reset();
    (void)store.file(folder.file("a.png"), PictureMeaning::colour, 0, unwatched);
    CHECK(small.expired());
    CHECK(store.bytes() < bytes_of_16 * 3 / 2);
}

TEST_CASE("of those that want one file at the same time one reads and the others wait") {
    const test::TemporaryFolder folder;
    REQUIRE(write_png(folder.file("large.png"), grey(2000, 7)));
    PictureStore store;
    std::atomic<int> begun = 0;
    std::atomic<bool> goes_on = false;
    // Each reading tells a share of 0 once; those that wait are told the reader's share, which is more by then.
    const ReadWatch watch = [&](double share) {
        if (share == 0) ++begun;
        while (share > 0 && !goes_on) std::this_thread::yield();
        return true;
    };
    std::array<PicturePtr, 4> pictures;
    std::vector<std::thread> threads;
    for (PicturePtr& picture : pictures) {
        threads.emplace_back(
            [&] { picture = *store.file(folder.file("large.png"), PictureMeaning::colour, 0, watch); });
    }
    while (begun == 0) std::this_thread::yield();
    goes_on = true;
    for (std::thread& thread : threads) thread.join();
    for (const PicturePtr& picture : pictures) CHECK(picture == pictures[0]);
    CHECK(store.bytes() < std::size_t{2000} * 2000 * 4 * sizeof(float) * 3 / 2);
}

TEST_CASE("a reading that one has stopped is nobody else's loss") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("a.png");
    REQUIRE(write_png(path, grey(400, 7)));
    WorkerPool pool(1);
    const auto shared = std::make_shared<PictureStore>();
    GroundStore impatient(pool, shared);
    GroundStore patient(pool, shared);
    bool stops = true;
    impatient.watch_reading([&](const std::string&, double) { return !stops; });
    CHECK(impatient.file(path, PictureMeaning::colour).fault().id == "picture.stopped");
    stops = false;
    // It stays so until the file changes.
    CHECK(impatient.file(path, PictureMeaning::colour).fault().id == "picture.stopped");
    CHECK(patient.file(path, PictureMeaning::colour));
    REQUIRE(write_png(path, grey(401, 7)));
    CHECK(impatient.file(path, PictureMeaning::colour));
}

TEST_CASE("more pictures at the same time than fit are refused in words, and fit when others are gone") {
    const test::TemporaryFolder folder;
    const ReadWatch on = [](double) { return true; };
    for (const char* name : {"a.png", "b.png", "c.png"}) REQUIRE(write_png(folder.file(name), grey(100, 7)));
    test::write_file(folder.file("cut.png"), test::read_file(folder.file("a.png")).substr(0, 60));
    const std::size_t one = std::size_t{100} * 100 * 4 * sizeof(float);
    PictureStore store({.most = 2 * one});
    const auto read = [&](const char* name) { return store.file(folder.file(name), PictureMeaning::colour, 0, on); };
    {
        const auto a = read("a.png");
        const auto b = read("b.png");
        REQUIRE(a);
        REQUIRE(b);
        const auto c = read("c.png");
        REQUIRE_FALSE(c);
        CHECK(c.fault().id == "picture.memory");
        CHECK_FALSE(c.fault().mend.empty());
        // It is not read again for every frame, nor kept by anybody.
        CHECK_FALSE(read("c.png"));
        CHECK(read("a.png"));
        // Nothing of it is decoded: this one could not be.
        CHECK(read("cut.png").fault().id == "picture.memory");
    }
    store.try_again();
    CHECK(read("cut.png").fault().id == "picture.unreadable");
    CHECK(read("c.png"));
    // One alone is never too many.
    PictureStore small({.most = 1});
    CHECK(small.file(folder.file("a.png"), PictureMeaning::colour, 0, on));
}

TEST_CASE("an animation plays on without being decoded from its beginning") {
    const test::TemporaryFolder folder;
    const std::string path = test::moving_png(folder, "moving.png");
    PictureStore store;
    int told = 0;
    const ReadWatch count = [&](double) { return ++told < 100; };
    const auto red = [&](int frame) { return (*store.file(path, PictureMeaning::data, frame, count))->at(3, 0)[0]; };
    // Each decoded picture is told once.
    CHECK(red(0) == 10.0F / 255);
    CHECK(told == 1);
    CHECK(red(1) == 200.0F / 255);
    CHECK(told == 2);
    CHECK(red(2) == 200.0F / 255);
    CHECK(told == 3);
    CHECK(red(1) == 200.0F / 255);
    CHECK(told == 3);
    // As another kind of picture it has to go back.
    CHECK((*store.file(path, PictureMeaning::colour, 0, count))->at(3, 0)[0] < 10.0F / 255);
    CHECK(told == 4);
    CHECK(store.file(path, PictureMeaning::data, 7, count).fault().id == "picture.unreadable");
    CHECK((*store.file(path, PictureMeaning::colour, 2, count))->at(0, 0)[0] < 90.0F / 255);
}

TEST_CASE("renderers that share programs and pictures draw the same as one alone, at the same time too") {
    const Finish finish = test::demo_finish();
    const auto checked = test::checked(finish);
    const auto stores = std::make_shared<RenderStores>();
    const auto drawn_with = [&](const std::shared_ptr<RenderStores>& with) {
        WorkerPool pool(1);
        Renderer renderer(pool, std::nullopt, with);
        RenderRequest request;
        request.checked = checked;
        request.finish_path = test::demo_path();
        request.time = 1.1;
        request.width = 160;
        request.height = 90;
        request.steps = {""};
        Result<Frame> frame = renderer.render(request, Cancel());
        return frame ? frame->steps[0].picture.data : decltype(Picture::data)();
    };
    const auto alone = drawn_with(nullptr);
    REQUIRE_FALSE(alone.empty());
    std::array<decltype(Picture::data), 3> together;
    std::vector<std::thread> threads;
    for (auto& data : together) threads.emplace_back([&] { data = drawn_with(stores); });
    for (std::thread& thread : threads) thread.join();
    for (const auto& data : together) CHECK(data == alone);
}
