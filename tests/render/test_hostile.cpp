// What nobody means to write, drawn: answers come within bounds of time and memory, and as IEEE 754 says.
#include <fmt/core.h>

#include <atomic>
#include <catch2/catch.hpp>
#include <chrono>
#include <cmath>
#include <thread>

#include "core/picture/files.h"
#include "tests/support/finishes.h"
#include "tests/support/operations.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::finish_of;

namespace {

float pixel_of(const std::string& formula) {
    return test::draw(finish_of({{"a", formula}}), "a", 3, 2).picture.data[0];
}

}  // namespace

TEST_CASE("whole numbers never stop the process") {
    CHECK(pixel_of("float(int(-2147483648.0) / int(-1.0))") == -2147483648.0F);
    CHECK(pixel_of("float(int(-2147483648.0) % int(-1.0))") == 0.0F);
    CHECK(pixel_of("float(int(uv.x - uv.x) / int(uv.y - uv.y))") == 0.0F);
    CHECK(pixel_of("float(1 << int(99.0))") == 8.0F);
    CHECK(pixel_of("float(int(1e30))") == 2147483648.0F);
    CHECK(pixel_of("float(abs(int(-2147483648.0)))") == -2147483648.0F);
    CHECK(std::isinf(pixel_of("1e39 * 10000000000000000000000")));
}

TEST_CASE("not a number anywhere gives an answer everywhere") {
    const std::string nan = "(sqrt(-1 - uv.x))";
    CHECK(std::isnan(pixel_of(nan)));
    for (const char* formula :
         {"gradient_noise(vec2(NAN))", "value_noise(vec3(NAN, 1, NAN))", "cellular_noise(vec2(NAN, 0))",
          "fractal_gradient_noise(vec2(NAN), NAN)", "fractal_cellular_noise(vec3(1), NAN)", "hash(NAN)",
          "float(int(NAN))", "float(uint(NAN))", "smoothstep(NAN, NAN, NAN)", "texture(scene, vec2(NAN)).r",
          "textureLod(scene, vec2(NAN, 0.5), NAN).r", "texelFetch(scene, ivec2(vec2(NAN))).r", "at(dusk, NAN).r",
          "atan(NAN, NAN)", "pow(NAN, NAN)", "mod(NAN, 0)", "normalize(vec2(NAN)).x", "clamp(NAN, NAN, 0)"}) {
        std::string text = formula;
        for (auto at = text.find("NAN"); at != std::string::npos; at = text.find("NAN")) text.replace(at, 3, nan);
        INFO(text);
        const test::TemporaryFolder folder;
        Image8 image{1, 1, {}};
        image.data = {10, 20, 30, 255};
        REQUIRE(write_png(folder.file("p.png"), image));
        Finish finish = finish_of({{"a", text}});
        finish.grounds = {test::picture_ground("scene", folder.file("p.png")),
                          test::stops_ground("dusk", StopValues::colours, {})};
        CHECK(test::draw(finish, "a", 33, 5).picture.data.size() == 33 * 5);
    }
}

TEST_CASE("pictures of one pixel, of one long row and of nothing are drawn or refused in words") {
    const Finish finish = finish_of({{"a", "uv.x * 3 - 1"},
                                     {"b", "texture(a, uv * 9 - 4) + dFdx(a) + dFdy(a)"},
                                     {"c", "gaussian_blur(vec4(b, a, 1, 1), 70)"}});
    CHECK(std::isfinite(test::draw(finish, "c", 1, 1).picture.data[0]));
    CHECK(test::draw(finish, "b", max_picture_side, 1).picture.width == max_picture_side);
    CHECK(test::draw(finish, "b", 1, max_picture_side).picture.height == max_picture_side);
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.steps = {""};
    for (const auto& [width, height] :
         std::vector<std::pair<int, int>>{{max_picture_side, max_picture_side}, {1 << 30, 1}, {1, 1 << 30}}) {
        request.width = width;
        request.height = height;
        const Result<Frame> frame = renderer.render(request, Cancel());
        REQUIRE_FALSE(frame);
        CHECK(frame.fault().id == "render.size");
        CHECK_FALSE(frame.fault().mend.empty());
    }
}

TEST_CASE("what would take more memory than there may be is said before anything is drawn") {
    const std::vector<std::pair<std::string, std::string>> steps = {
        {"a", "vec4(uv, 0, 1)"}, {"b", "texture(a, uv.yx)"}, {"c", "texture(a, uv) + texture(b, uv.yx)"}};
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish_of(steps));
    request.steps = {""};
    request.width = 8192;
    request.height = 8192;
    const auto begin = std::chrono::steady_clock::now();
    const Result<Frame> refused = renderer.render(request, Cancel());
    REQUIRE_FALSE(refused);
    CHECK(refused.fault().id == "render.memory");
    CHECK(refused.fault().message == "drawing it at 8192 x 8192 takes 3.2 GB at once, and 1.1 GB is the most");
    CHECK(std::chrono::steady_clock::now() - begin < std::chrono::milliseconds(500 * test::slowness));
    // What is only seen has no numbers of its own, and what nothing reads any more is drawn on again.
    PictureLimits limits;
    limits.most = 3 * 128 * 128 * 4 * sizeof(float) - 1;
    Renderer narrow(pool, std::nullopt, std::make_shared<RenderStores>(limits));
    request.width = 128;
    request.height = 128;
    CHECK(narrow.render(request, Cancel()).fault().id == "render.memory");
    request.seen = ViewStyle();
    CHECK(narrow.render(request, Cancel()));
    request.seen.reset();
    request.points = {{5, 5}};
    CHECK(narrow.render(request, Cancel()));
    request.points.clear();
    std::vector<std::pair<std::string, std::string>> chain = {{"a", "vec4(uv, 0, 1)"}};
    for (char name = 'b'; name <= 'm'; ++name)
        chain.emplace_back(std::string(1, name), fmt::format("texture({}, uv.yx)", static_cast<char>(name - 1)));
    request.checked = test::checked(finish_of(chain));
    CHECK(narrow.render(request, Cancel()));
    // What is done in one go holds some lines for each thread, however many there are: here 3.9 MB beside 2.1 a
    // picture.
    request.checked = test::checked(finish_of({{"grown", "grow(value_noise(uv * 9), 4)"}}));
    request.width = 256;
    request.height = 2048;
    const auto fits_into = [&](std::size_t bytes) {
        limits.most = bytes;
        Renderer tight(pool, std::nullopt, std::make_shared<RenderStores>(limits));
        return static_cast<bool>(tight.render(request, Cancel()));
    };
    CHECK(fits_into(14'000'000));
    CHECK_FALSE(fits_into(5'000'000));
    // Of a Gaussian only the way that is gone counts: the picture, what is made of it along each axis, and the result.
    constexpr std::size_t picture = 256 * 2048 * 4 * sizeof(float);
    for (const char* soft : {"gaussian_blur(view, 4)", "gaussian_blur(view, 20)"}) {
        request.checked = test::checked(finish_of({{"view", "vec4(uv, 0, 1)"}, {"soft", soft}}));
        INFO(soft);
        CHECK(fits_into(4 * picture + 100'000));
        CHECK_FALSE(fits_into(2 * picture));
    }
}

TEST_CASE("a loop that would never end does, and a long one can be called off") {
    const auto begin = std::chrono::steady_clock::now();
    CHECK(pixel_of("float n = 0; for (float i = 0.0; i > uv.x - 2.0; i++) n += 1; return n;") == 65536.0F);
    const auto endless = test::checked(finish_of({{"a", "for (float i = 0.0; i > -1.0; i++) {} return 1;"}}));
    REQUIRE(endless->steps[0].fault);
    CHECK(endless->steps[0].fault->id == "lang.turns");
    CHECK(pixel_of("float n = 0; for (int i = 0; i < 1000; i++) for (int j = 0; j < int(uv.x * 0 + 1000); j++) n += 1; "
                   "return n;") <= 65536.0F);
    // Generous, since sanitizers slow this down tenfold: what is meant is "does not hang".
    CHECK(std::chrono::steady_clock::now() - begin < std::chrono::seconds(60));
}

TEST_CASE("a drawing at 4k that is called off has stopped within 50 ms, wherever it was") {
    struct Heavy {
        const char* what;
        std::vector<std::pair<std::string, std::string>> steps;
    };
    const std::string turns = "float n = 0; for (int i = 0; i < 4000; i++) ";
    const std::vector<Heavy> all{
        {"a loop of numbers", {{"a", turns + "n += sin(n + uv.x); return n;"}}},
        {"a loop of readings", {{"base", "uv.x * uv.y"}, {"a", turns + "n += texture(base, uv + n); return n;"}}},
        {"a loop of noise", {{"a", turns + "n += fractal_cellular_noise(uv * n, 8); return n;"}}},
        {"one long line",
         {{"a",
           [] {
               std::string sum = "0";
               for (int i = 0; i < 60; ++i) sum += " + fractal_gradient_noise(uv * " + std::to_string(i) + ", 8)";
               return sum;
           }()}}},
        {"growing",
         {{"base", "value_noise(uv * 900) * vec4(1)"}, {"wide", "grow(base, 32)"}, {"a", "shrink(wide, 31)"}}},
        {"levels", {{"base", "value_noise(uv * 900)"}, {"a", "textureLod(base, uv, 5) + textureLod(base, uv.yx, 3)"}}},
    };
    for (const Heavy& heavy : all) {
        INFO(heavy.what);
        RenderRequest request;
        request.checked = test::checked(test::finish_of(heavy.steps));
        request.frame_width = 3840;
        request.frame_height = 2160;
        request.steps = {""};
        WorkerPool pool;
        Renderer renderer(pool);
        const auto latest_stop = [&] {
            double latest = 0;
            for (const int after_ms : {30, 130, 330}) {
                const Cancel cancel;
                std::atomic<bool> done{false};
                std::thread drawing([&] {
                    (void)renderer.render(request, cancel);
                    done = true;
                });
                const auto begin = std::chrono::steady_clock::now();
                while (!done && std::chrono::steady_clock::now() - begin < std::chrono::milliseconds(after_ms))
                    std::this_thread::yield();
                const auto called_off = std::chrono::steady_clock::now();
                CHECK_FALSE(done);
                cancel.request();
                drawing.join();
                const std::chrono::duration<double, std::milli> took = std::chrono::steady_clock::now() - called_off;
                latest = std::max(latest, took.count());
            }
            return latest;
        };
        // What a crowded machine adds does not come in every round; what we do ourselves does.
        const double most = 50 * test::slowness;
        double latest = latest_stop();
        for (int more = 0; more < 2 && latest >= most; ++more) latest = std::min(latest, latest_stop());
        fmt::print("called off: {:<20} within {:.1f} ms\n", heavy.what, latest);
        CHECK(latest < most);
    }
}

TEST_CASE("sprites that would take gigabytes, or minutes, are refused in words before they are made") {
    const test::TemporaryFolder folder;
    Image8 image{64, 64, {}};
    image.data.assign(std::size_t{4} * 64 * 64, 200);
    REQUIRE(write_png(folder.file("p.png"), image));
    const auto sprite = [&](const std::string& name, int side, std::size_t parts, double scale) {
        SpriteGround made;
        made.width = made.height = side;
        for (std::size_t i = 0; i < parts; ++i) {
            SpritePart part;
            part.path = folder.file("p.png");
            part.x = part.y = side / 2.0;
            part.scale = scale;
            made.parts.push_back(part);
        }
        return Ground{name, made};
    };
    const auto drawn = [](Finish finish) {
        WorkerPool pool(2);
        Renderer renderer(pool);
        RenderRequest request;
        request.checked = test::checked(std::move(finish));
        request.width = request.height = 8;
        request.steps = {""};
        return renderer.render(request, Cancel());
    };
    Finish busy = finish_of({{"a", "busy"}});
    busy.grounds = {sprite("busy", 2048, 4096, 64)};
    const Result<Frame> refused = drawn(busy);
    REQUIRE(refused);
    REQUIRE(refused->notices.size() == 1);
    CHECK(refused->notices[0].id == "ground.too-many-pixels");
    CHECK(refused->notices[0].message.find("17179 million pixels") != std::string::npos);
    Finish large = finish_of({{"a", "one + two + three"}});
    large.grounds = {sprite("one", 8192, 1, 1), sprite("two", 8192, 1, 1), sprite("three", 8192, 1, 1)};
    const Result<Frame> some = drawn(large);
    REQUIRE(some);
    // A gigabyte holds one of them.
    REQUIRE(some->notices.size() == 2);
    CHECK(some->notices[0].message.find("in use takes more than") != std::string::npos);
}
