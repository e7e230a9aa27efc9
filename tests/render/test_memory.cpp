// All that pictures take stands under one limit: those of files, what is drawn of them, and what ticks leave.
#include <algorithm>
#include <catch2/catch.hpp>

#include "core/picture/files.h"
#include "tests/support/finishes.h"
#include "tests/support/player.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

constexpr int small_width = 64;
constexpr int small_height = 32;
constexpr std::size_t picture_bytes = std::size_t{small_width} * small_height * 4 * sizeof(float);  // picture

// Pictures of different colours, so many.
std::vector<std::string> written(const test::TemporaryFolder& folder, int count) {
    std::vector<std::string> paths;
    for (int k = 0; k < count; ++k) {
        Image8 image{small_width, small_height, {}};
        image.data.resize(std::size_t{small_width} * small_height * 4, static_cast<std::uint8_t>(40 + 10 * k));
        paths.push_back(folder.file("p" + std::to_string(k) + ".png"));
        REQUIRE(write_png(paths.back(), image));
    }
    return paths;
}

// Reads three pictures and what it left, and stores a step besides.
Finish reading_finish(const std::vector<std::string>& paths, std::size_t first) {
    Finish finish = test::finish_of({{"flow", "previous(flow) * 0.9 + texture(a, uv.yx) * 0.1"},
                                     {"mixed", "texture(flow, uv) + texture(b, uv.yx)"},
                                     {"made", "texture(mixed, 1 - uv) * texture(c, uv.yx)"}});
    finish.frame_width = small_width;
    finish.frame_height = small_height;
    finish.coats[0].steps.own()[0].ticking.width = 4;
    for (std::size_t k = 0; k < 3; ++k)
        finish.grounds.push_back(test::picture_ground(std::string(1, static_cast<char>('a' + k)), paths[first + k]));
    return finish;
}

// What plays finishes one after another, and the most that they took at any pass.
struct Played {
    std::vector<Picture> pictures;
    std::size_t most = 0;
};

Played play(const std::vector<Finish>& finishes, std::size_t limit, int threads) {
    Played played;
    PictureLimits limits;
    limits.most = limit;
    RenderStores* all = nullptr;
    const auto stores = std::make_shared<RenderStores>(limits, [&](const RenderRequest&, const Pass&) {
        played.most = std::max(played.most, all->pictures.bytes());
        return std::shared_ptr<void>();
    });
    all = stores.get();
    WorkerPool pool(threads);
    Renderer renderer(pool, std::nullopt, stores);
    for (const Finish& finish : finishes) {
        RenderRequest request;
        request.checked = test::checked(finish);
        request.steps = {""};
        for (const int tick : {0, 1, 5, 40, 90, 89, 91}) {
            request.time = test::tick_time(tick);
            Result<Frame> frame = renderer.render(request, Cancel());
            REQUIRE(frame);
            CHECK(frame->notices.empty());
            played.pictures.push_back(std::move(frame->steps.at(0).picture));
            played.most = std::max(played.most, stores->pictures.bytes());
        }
    }
    return played;
}

}  // namespace

TEST_CASE("pictures, ticks and what is drawn of them stay within the one limit at every pass") {
    const test::TemporaryFolder folder;
    const std::vector<std::string> paths = written(folder, 12);
    std::vector<Finish> finishes;
    for (std::size_t first = 0; first < paths.size(); first += 3) finishes.push_back(reading_finish(paths, first));
    finishes.push_back(finishes.front());
    const Played plenty = play(finishes, 1000 * picture_bytes, 1);
    CHECK(plenty.most > 20 * picture_bytes);
    // Three pictures, three that are drawn at once, and the last two ticks; a little for what is known of each.
    for (const std::size_t pictures : {9, 12, 16}) {
        INFO(pictures);
        const std::size_t limit = pictures * picture_bytes + picture_bytes / 2;
        const Played tight = play(finishes, limit, 2);
        CHECK(tight.most <= limit);
        REQUIRE(tight.pictures.size() == plenty.pictures.size());
        for (std::size_t k = 0; k < plenty.pictures.size(); ++k)
            CHECK(tight.pictures[k].data == plenty.pictures[k].data);
    }
}

TEST_CASE("what is kept beside the pictures has half of all, and less where it is needed") {
    const test::TemporaryFolder folder;
    const std::vector<std::string> paths = written(folder, 8);
    PictureLimits limits;
    limits.most = 8 * picture_bytes;
    PictureStore store(limits);
    CHECK(store.room_beside() == 4 * picture_bytes);
    std::vector<PicturePtr> held;
    const auto read = [&](std::size_t k) {
        const auto picture = store.file(paths[k], PictureMeaning::colour, 0, [](double) { return true; });
        REQUIRE(picture);
        return *picture;
    };
    for (std::size_t k = 0; k < 5; ++k) held.push_back(read(k));
    CHECK(store.room_beside() == 3 * picture_bytes);
    // A quarter is there even where pictures that nobody holds fill all of it; they give way.
    for (std::size_t k = 5; k < 8; ++k) read(k);
    CHECK(store.room_beside() == 2 * picture_bytes);
    MemoryShare ticks(store, false);
    ticks.set(2 * picture_bytes);
    CHECK(store.bytes() <= 8 * picture_bytes);
    CHECK(store.bytes() >= 7 * picture_bytes);
    // What is in use does not.
    MemoryShare drawn(store, true);
    drawn.set(2 * picture_bytes);
    CHECK(store.room_beside() == picture_bytes);
    drawn.set(3 * picture_bytes);
    CHECK(store.room_beside() == 0);
    held.clear();
    CHECK(store.room_beside() == 2 * picture_bytes);
}
