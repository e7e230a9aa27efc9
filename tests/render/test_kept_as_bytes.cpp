// Finishes whose pictures stay the bytes of their files: nothing looks different, and they take a quarter of the
// memory.
#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/finish/file.h"
#include "core/render/renderer.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

std::vector<std::string> demos() {
    std::vector<std::string> paths;
    for (const auto& entry : std::filesystem::directory_iterator(std::string(LACQUER_SOURCE) + "/demo/finishes")) {
        if (entry.path().extension() == ".lacquer") paths.push_back(entry.path().string());
    }
    std::sort(paths.begin(), paths.end());
    return paths;
}

PictureLimits limits_from(std::int64_t pixels) {
    PictureLimits limits;
    limits.bytes_from = pixels;
    return limits;
}

}  // namespace

TEST_CASE("every demo is the same to the bit with its pictures kept as bytes, by every way to draw") {
    WorkerPool pool(2);
    const auto as_numbers = std::make_shared<RenderStores>(limits_from(std::int64_t{1} << 40U));
    const auto as_bytes = std::make_shared<RenderStores>(limits_from(1));
    for (const Backend backend : {Backend::cpu, Backend::gpu}) {
        Renderer numbers(pool, std::nullopt, as_numbers);
        Renderer bytes(pool, std::nullopt, as_bytes);
        REQUIRE_FALSE(numbers.use(backend));
        REQUIRE_FALSE(bytes.use(backend));
        for (const std::string& path : demos()) {
            INFO(path);
            Result<OpenedFinish> opened = load_finish(path);
            REQUIRE(opened);
            RenderRequest request;
            request.checked = test::checked(opened->finish);
            request.finish_path = path;
            request.time = std::min(opened->finish.length * 0.4, 0.6);
            request.steps = {""};
            // At the size of its pictures, too, where those are just copied.
            const bool is_plain = path.find("everyday") != std::string::npos;
            for (const auto& [width, height, small] :
                 {std::tuple{0, 0, false}, std::tuple{161, 91, false}, std::tuple{161, 91, true}}) {
                if (backend == Backend::gpu ? width == 0 || small : width == 0 && !is_plain) continue;
                request.width = width;
                request.height = height;
                request.small_grounds = small;
                const Result<Frame> one = numbers.render(request, Cancel());
                const Result<Frame> other = bytes.render(request, Cancel());
                REQUIRE(one);
                REQUIRE(other);
                CHECK(one->steps.at(0).picture.data == other->steps.at(0).picture.data);
            }
        }
    }
    CHECK(as_bytes->pictures.bytes() < as_numbers->pictures.bytes());
}

TEST_CASE("a picture that is large enough stays as it is in its file, and counts as that") {
    const test::TemporaryFolder folder;
    Image8 image{64, 32, {}};
    image.data.resize(64 * 32 * 4, 200);
    REQUIRE(write_png(folder.file("a.png"), image));
    const auto read = [&](std::int64_t from, std::size_t in_use) {
        PictureLimits limits = limits_from(from);
        limits.most = in_use;
        PictureStore store(limits);
        const auto held = store.file(folder.file("a.png"), PictureMeaning::data, 0, [](double) { return true; });
        REQUIRE(held);
        const auto second = store.file(folder.file("a.png"), PictureMeaning::colour, 0, [](double) { return true; });
        return std::pair((*held)->coding, second ? std::string() : second.fault().id);
    };
    const std::size_t pixels = 64 * 32;
    CHECK(read(pixels, 8 * pixels) == std::pair(Coding::shares, std::string()));
    CHECK(read(pixels, 8 * pixels - 1) == std::pair(Coding::shares, std::string("picture.memory")));
    CHECK(read(pixels + 1, 32 * pixels) == std::pair(Coding::numbers, std::string()));
    CHECK(read(pixels + 1, 32 * pixels - 1) == std::pair(Coding::numbers, std::string("picture.memory")));
}

TEST_CASE("pictures and the steps that are drawn of them fit into memory together, or some are told") {
    const test::TemporaryFolder folder;
    Image8 image{64, 32, {}};
    image.data.resize(64 * 32 * 4, 200);
    Finish finish = test::finish_of({{"made", "one + two"}});
    for (const char* name : {"one", "two"}) {
        REQUIRE(write_png(folder.file(std::string(name) + ".png"), image));
        PictureGround ground;
        ground.path = folder.file(std::string(name) + ".png");
        finish.grounds.push_back({name, ground});
    }
    RenderRequest request;
    request.checked = test::checked(finish);
    request.steps = {""};
    request.width = 40;
    request.height = 20;
    const std::size_t all = (2 * 64 * 32 + 40 * 20) * 4 * sizeof(float);
    const auto notices = [&](std::size_t most) {
        PictureLimits limits;
        limits.most = most;
        WorkerPool pool(1);
        Renderer renderer(pool, std::nullopt, std::make_shared<RenderStores>(limits));
        const Result<Frame> frame = renderer.render(request, Cancel());
        REQUIRE(frame);
        std::vector<std::string> ids;
        for (const Fault& notice : frame->notices) ids.push_back(notice.id);
        return ids;
    };
    CHECK(notices(all).empty());
    CHECK(notices(all - 1) == std::vector<std::string>{"picture.memory"});
}
