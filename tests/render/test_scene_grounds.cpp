// Scenes, captures and marks as steps read them.
#include <fmt/core.h>

#include <array>
#include <catch2/catch.hpp>
#include <cstring>
#include <functional>

#include "core/finish/ground_edits.h"
#include "core/render/layer_view.h"
#include "core/render/renderer.h"
#include "core/scene/capture.h"
#include "tests/support/finishes.h"
#include "tests/support/moving_png.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

constexpr int wide = 160;
constexpr int high = 90;

Finish on_scene(const std::vector<std::pair<std::string, std::string>>& steps) {
    Finish finish = test::finish_of(steps);
    finish.frame_width = wide;
    finish.frame_height = high;
    finish.grounds = {{"bay", SceneGround{view_of_place(*find_place("harbour"), Hour::dusk)}},
                      {"marked", MarksGround{"bay", {3}}}};
    return finish;
}

Frame drawn(Renderer& renderer, const Finish& finish, std::vector<std::string> steps, double time = 0,
            const std::string& path = {}) {
    RenderRequest request;
    request.checked = std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish)));
    request.time = time;
    request.steps = std::move(steps);
    request.finish_path = path;
    Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    return std::move(*frame);
}

const Picture& picture_of(const Frame& frame, const std::string& name) {
    for (const DrawnStep& step : frame.steps) {
        if (step.name == name) return step.picture;
    }
    FAIL("not drawn: " << name);
    return frame.steps.front().picture;
}

SceneLayers cast_harbour(double time) {
    WorkerPool pool(2);
    const ScenePlace* place = find_place("harbour");
    return cast_world(place->world(Hour::dusk, time), place->camera, wide, high, {true, true, true, true, true}, pool,
                      Cancel());
}

}  // namespace

TEST_CASE("steps read a scene's layers, each pixel its own") {
    WorkerPool pool(2);
    Renderer renderer(pool);
    const Finish finish = on_scene(
        {{"far", "bay_depth"}, {"where", "bay_position"}, {"facing", "texture(bay_normal, uv)"}, {"chosen", "marked"}});
    const Frame frame = drawn(renderer, finish, {"far", "where", "facing", "chosen", "bay_id"}, 1.5);
    CHECK(frame.notices.empty());
    const SceneLayers scene = cast_harbour(1.5);
    int marked = 0;
    for (int y = 0; y < high; ++y) {
        for (int x = 0; x < wide; ++x) {
            REQUIRE(picture_of(frame, "far").at(x, y)[0] == scene.depth.at(x, y)[0]);
            for (int c = 0; c < 3; ++c) {
                REQUIRE(picture_of(frame, "where").at(x, y)[c] == scene.position.at(x, y)[c]);
                REQUIRE(picture_of(frame, "facing").at(x, y)[c] == scene.normal.at(x, y)[c]);
            }
            REQUIRE(picture_of(frame, "bay_id").at(x, y)[0] == scene.id.at(x, y)[0]);
            const bool tower = scene.id.at(x, y)[0] == 3;
            marked += tower ? 1 : 0;
            REQUIRE(picture_of(frame, "chosen").at(x, y)[0] == (tower ? 1.0F : 0.0F));
        }
    }
    CHECK(marked > 50);
}

TEST_CASE("an untouched scene stays untouched, and moves with time") {
    WorkerPool pool(2);
    Renderer renderer(pool);
    const Finish finish = on_scene({{"same", "bay"}});
    const SceneLayers scene = cast_harbour(0);
    const Frame now = drawn(renderer, finish, {"same"});
    CHECK(std::memcmp(picture_of(now, "same").data.data(), scene.colour.data.data(), scene.colour.data.size() * 4) ==
          0);
    const Frame later = drawn(renderer, finish, {"same"}, 2);
    CHECK(std::memcmp(picture_of(later, "same").data.data(), scene.colour.data.data(), scene.colour.data.size() * 4) !=
          0);
}

TEST_CASE("the same finish on a capture of the scene gives the same picture") {
    const test::TemporaryFolder folder;
    REQUIRE(write_capture(folder.file("shot.exr"), cast_harbour(0)));
    Finish finish =
        on_scene({{"made", "mix(bay, vec4(bay_normal, 1), marked) / max(bay_depth * 0.1, 0.1) + bay_id * 0.01"}});
    WorkerPool pool(2);
    Renderer renderer(pool);
    const Frame live = drawn(renderer, finish, {"made"});
    finish.grounds[0].kind = CaptureGround{"shot.exr"};
    const Frame captured = drawn(renderer, finish, {"made"}, 0, folder.file("x.lacquer"));
    CHECK(captured.notices.empty());
    const Picture& a = picture_of(live, "made");
    const Picture& b = picture_of(captured, "made");
    CHECK(std::memcmp(a.data.data(), b.data.data(), a.data.size() * 4) == 0);
}

TEST_CASE("a layer that a capture does not hold shows as black with a notice, and so do marks of nothing") {
    const test::TemporaryFolder folder;
    SceneLayers scene = cast_harbour(0);
    scene.depth = Picture();
    REQUIRE(write_capture(folder.file("shot.exr"), scene));
    Finish finish = on_scene({{"far", "bay_depth + marked"}});
    finish.grounds[0].kind = CaptureGround{"shot.exr"};
    finish.grounds[1].as<MarksGround>()->of = "elsewhere";
    WorkerPool pool(1);
    Renderer renderer(pool);
    const Frame frame = drawn(renderer, finish, {"far"}, 0, folder.file("x.lacquer"));
    REQUIRE(frame.notices.size() == 2);
    CHECK(frame.notices[0].id == "ground.no-layer");
    CHECK(frame.notices[1].id == "ground.no-scene");
    CHECK(picture_of(frame, "far").at(3, 3)[0] == 0);
    Finish lost = on_scene({{"same", "bay"}});
    lost.grounds[0].kind = CaptureGround{"gone.exr"};
    CHECK(drawn(renderer, lost, {"same"}).notices.at(0).id == "picture.missing");
}

TEST_CASE("small pictures of ids hold no ids that are not there") {
    const test::TemporaryFolder folder;
    REQUIRE(write_capture(folder.file("shot.exr"), cast_harbour(0)));
    Finish finish = on_scene({{"which", "bay_id"}});
    finish.grounds[0].kind = CaptureGround{folder.file("shot.exr")};
    RenderRequest request;
    request.checked = std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish)));
    request.steps = {"which"};
    request.width = 48;
    request.height = 27;
    request.small_grounds = true;
    WorkerPool pool(1);
    Renderer renderer(pool);
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    for (const float id : frame->steps.front().picture.data) REQUIRE(id == std::floor(id));
}

TEST_CASE("layers are shown in colours that tell them apart") {
    Picture ids(3, 1, 1);
    ids.data[0] = 0;
    ids.data[1] = 5;
    ids.data[2] = 6;
    const Picture shown = layer_view(ids, GroundLayer::id);
    CHECK(std::memcmp(shown.at(1, 0), shown.at(2, 0), 12) != 0);
    CHECK(shown.at(0, 0)[0] < 0.02F);
    Picture depth(2, 1, 1);
    depth.data[0] = 1;
    depth.data[1] = 100;
    const Picture grey = layer_view(depth, GroundLayer::depth);
    CHECK(grey.at(0, 0)[0] > grey.at(1, 0)[0]);
    CHECK_FALSE(needs_layer_view(GroundLayer::marks));
}

namespace {

std::string write_grey(const test::TemporaryFolder& folder, const std::string& name, int width, int height,
                       const std::function<std::uint8_t(int, int)>& level) {
    Image8 image{width, height, {}};
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x) {
            for (int c = 0; c < 3; ++c) image.data.push_back(level(x, y));
            image.data.push_back(255);
        }
    }
    REQUIRE(write_png(folder.file(name), image));
    return name;
}

}  // namespace

TEST_CASE("a sprite's parts are one picture, and steps know which is which") {
    const test::TemporaryFolder folder;
    Finish finish = test::finish_of({{"made", "vec4(crab.rgb * crab_share, crab_part)"}, {"facing", "crab_normal"}});
    finish.frame_width = finish.frame_height = 8;
    const auto white = [](int, int) { return std::uint8_t{255}; };
    const std::vector<SpritePart> parts{{"shell", write_grey(folder, "shell.png", 4, 4, white), "", "", 2, 4, 1, 0.5},
                                        {"claw", write_grey(folder, "claw.png", 2, 2, white), "", "", 6, 4, 1, 1}};
    finish.grounds = {{"crab", SpriteGround{8, 8, parts}}};
    WorkerPool pool(1);
    Renderer renderer(pool);
    const Frame frame = drawn(renderer, finish, {"made", "facing"}, 0, folder.file("x.lacquer"));
    CHECK(frame.notices.empty());
    const Picture& made = picture_of(frame, "made");
    CHECK(made.at(1, 4)[0] == 0.5F);
    CHECK(made.at(1, 4)[3] == 1);
    CHECK(made.at(6, 4)[0] == 1);
    CHECK(made.at(6, 4)[3] == 2);
    CHECK(made.at(7, 0)[3] == 0);
    CHECK(picture_of(frame, "facing").at(7, 0)[2] == 1);
    // A part that is gone is told of, and one that has changed is read again.
    Finish lost = finish;
    lost.grounds[0].as<SpriteGround>()->parts[1].path = "gone.png";
    CHECK(drawn(renderer, lost, {"made"}, 0, folder.file("x.lacquer")).notices.at(0).id == "picture.missing");
    lost.grounds[0].as<SpriteGround>()->parts.clear();
    CHECK(drawn(renderer, lost, {"made"}, 0, folder.file("x.lacquer")).notices.at(0).id == "ground.no-part");
}

TEST_CASE("a sheet's cells follow one another by time, and begin again") {
    const test::TemporaryFolder folder;
    Finish finish = test::finish_of({{"now", "sheet.r"}});
    finish.frame_width = finish.frame_height = 2;
    const std::string path =
        write_grey(folder, "sheet.png", 6, 2, [](int x, int) { return static_cast<std::uint8_t>(x / 2 * 100); });
    finish.grounds = {{"sheet", PictureGround{.path = path, .data = true, .cells = {3, 1, 3, 4}}}};
    WorkerPool pool(1);
    Renderer renderer(pool);
    for (const auto& [time, level] : {std::pair{0.0, 0}, {0.2, 0}, {0.25, 100}, {0.7, 200}, {0.75, 0}, {100.25, 200}}) {
        INFO(time);
        const Frame frame = drawn(renderer, finish, {"now"}, time, folder.file("x.lacquer"));
        CHECK(picture_of(frame, "now").at(0, 0)[0] == static_cast<float>(level) / 255.0F);
    }
}

namespace {

// What a table gives for a colour, read through the operation.
std::array<float, 3> looked_up(const std::string& cube, const std::string& colour) {
    const test::TemporaryFolder folder;
    test::write_file(folder.file("a.cube"), cube);
    Finish finish =
        test::finish_of({{"plain", "vec4(" + colour + ", 1)"}, {"graded", "look_table(plain, grade, 1, 0)"}});
    finish.grounds = {{"grade", TableGround{folder.file("a.cube")}}};
    const DrawnStep graded = test::draw(finish, "graded", 4, 4);
    const float* at = graded.picture.at(2, 2);
    return {at[0], at[1], at[2]};
}

}  // namespace

TEST_CASE("a table gives its entries, mixes evenly between them, and reaches as far as it says") {
    // Half of each colour, whatever the size: a straight line has the same values at every number of entries.
    for (const int n : {2, 3, 4, 5, 17}) {
        for (const double most : {1.0, 4.0}) {
            for (const bool three : {false, true}) {
                INFO(n << " entries, to " << most << ", " << (three ? 3 : 1) << " dimensions");
                std::string cube =
                    fmt::format("LUT_{}D_SIZE {}\nDOMAIN_MAX {} {} {}\n", three ? 3 : 1, n, most, most, most);
                const int count = three ? n * n * n : n;
                for (int i = 0; i < count; ++i) {
                    const auto entry = [&](int k) { return most / 2 * k / (n - 1); };
                    cube += three ? fmt::format("{} {} {}\n", entry(i % n), entry(i / n % n), entry(i / n / n))
                                  : fmt::format("{} {} {}\n", entry(i), entry(i), entry(i));
                }
                const auto found = looked_up(cube, "0.3, 0.9, 3");
                CHECK(found[0] == Approx(0.15).margin(1e-4));
                CHECK(found[1] == Approx(0.45).margin(1e-4));
                CHECK(found[2] == Approx(most == 1 ? 0.5 : 1.5).margin(1e-4));
            }
        }
    }
    const auto below =
        looked_up("LUT_1D_SIZE 3\nDOMAIN_MIN -1 -1 -1\nDOMAIN_MAX 1 1 1\n0 0 0\n5 5 5\n6 6 6\n", "-0.5, 0, 1");
    CHECK(below[0] == Approx(2.5).margin(1e-4));
    CHECK(below[1] == Approx(5).margin(1e-4));
    CHECK(below[2] == Approx(6).margin(1e-4));
}

TEST_CASE("every demo on a scene draws the same on captures of it, put in its place") {
    const test::TemporaryFolder folder;
    WorkerPool pool(2);
    for (const char* name : {"moving-wall", "two-places", "touched-chart", "object-outlines"}) {
        INFO(name);
        Finish finish = test::demo_named(name);
        RenderRequest request;
        request.time = finish.length * 0.4;
        request.width = finish.frame_width / 4;
        request.height = finish.frame_height / 4;
        request.steps = {""};
        request.finish_path = test::demo_path(name);
        request.checked = test::checked(finish);
        Renderer renderer(pool);
        const Result<Frame> live = renderer.render(request, Cancel());
        REQUIRE(live);
        Finish on_captures = finish;
        for (const Ground& ground : finish.grounds) {
            const auto* scene = ground.as<SceneGround>();
            if (scene == nullptr) continue;
            const SceneView view = seen_view(finish, *scene);
            const std::string path = folder.file(std::string(name) + "-" + ground.name + ".exr");
            REQUIRE(write_capture(path, cast_world(find_place(view.place)->world(view.hour, request.time),
                                                   camera_at(view.camera, view.path, request.time), request.width,
                                                   request.height, {true, true, true, true, true}, pool, Cancel())));
            const Result<Finish> replaced = replace_ground(on_captures, ground.name, {"", CaptureGround{path}});
            REQUIRE(replaced);
            on_captures = *replaced;
        }
        request.checked = test::checked(on_captures);
        CHECK(request.checked->faults.empty());
        const Result<Frame> captured = renderer.render(request, Cancel());
        REQUIRE(captured);
        CHECK(captured->notices.empty());
        const Picture& a = live->steps[0].picture;
        const Picture& b = captured->steps[0].picture;
        REQUIRE(a.data.size() == b.data.size());
        CHECK(std::memcmp(a.data.data(), b.data.data(), a.data.size() * 4) == 0);
    }
}

TEST_CASE("a sprite whose file is gone is clear, and says which file that is") {
    Finish finish = test::finish_of({{"shown", "crab"}});
    finish.grounds = {{"crab", SpriteGround{.parts = {{"shell", "/nowhere/shell.png", "", "", 4, 4}}}}};
    WorkerPool pool(1);
    Renderer renderer(pool);
    const Frame frame = drawn(renderer, finish, {"shown"});
    CHECK(picture_of(frame, "shown").at(2, 2)[3] == 0);
    REQUIRE(frame.notices.size() == 1);
    CHECK(frame.notices[0].message.find("clear") != std::string::npos);
    CHECK(frame.notices[0].message.find("shell.png") != std::string::npos);
}

TEST_CASE("an animated picture shows which of its pictures is due") {
    const test::TemporaryFolder folder;
    Finish finish = test::finish_of({{"a", "moving"}});
    finish.grounds = {{"moving", PictureGround{.path = test::moving_png(folder, "moving.png"), .data = true}}};
    const auto red_at = [&](double time) { return test::draw(finish, "a", 4, 2, time).picture.at(3, 0)[0]; };
    CHECK(red_at(0.1) == 10.0F / 255);
    CHECK(red_at(0.3) == 200.0F / 255);
    CHECK(red_at(0.86) == 10.0F / 255);
}
