// Whole finishes by either back end.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/finish/file.h"
#include "core/picture/files.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::checked;
using test::finish_of;

namespace {

Frame drawn(const RenderRequest& request, Backend backend) {
    WorkerPool pool(2);
    Renderer renderer(pool);
    const auto notice = renderer.use(backend);
    if (notice) FAIL(to_text(*notice));
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    for (const Fault& fault : frame->notices) FAIL(to_text(fault));
    return std::move(*frame);
}

double share_off(const Frame& a, const Frame& b, float tolerance) {
    std::size_t off = 0;
    std::size_t values = 0;
    REQUIRE(a.steps.size() == b.steps.size());
    for (std::size_t k = 0; k < a.steps.size(); ++k) {
        for (std::size_t i = 0; i < a.steps[k].picture.data.size(); ++i) {
            ++values;
            off += std::fabs(a.steps[k].picture.data[i] - b.steps[k].picture.data[i]) <= tolerance ? 0 : 1;
        }
    }
    return static_cast<double>(off) / static_cast<double>(values);
}

}  // namespace

TEST_CASE("the demo is the same picture by strips and by shaders, at rest to the bit") {
    RenderRequest request;
    request.checked = checked(test::demo_finish());
    request.finish_path = test::demo_path();
    request.frame_width = 320;
    request.frame_height = 180;
    request.steps = {"", "rim", "torn", "slip", "blurred", "light"};
    request.tape = std::make_shared<const Tape>(Tape{{{"hit", 0.1, 0.8}}, {}});
    request.time = 0.4;
    // A place to read that lies on the edge of 1/256 pixel may be rounded the other way.
    CHECK(share_off(drawn(request, Backend::cpu), drawn(request, Backend::gpu), 1e-3F) < 0.002);
    request.time = 0;
    request.steps = {""};
    CHECK(share_off(drawn(request, Backend::cpu), drawn(request, Backend::gpu), 0) == 0);
}

TEST_CASE("stored steps, expressions read as pictures and smaller copies are the same by either back end") {
    const test::TemporaryFolder folder;
    Image8 image{8, 6, {}};
    for (int i = 0; i < 8 * 6 * 4; ++i) image.data.push_back(static_cast<std::uint8_t>(i * 37 % 251));
    REQUIRE(write_png(folder.file("p.png"), image));
    Finish finish = finish_of({{"a", "value_noise(uv * 6)"},
                               {"b", "texture(a * scene.rgb, uv.yx) + texture(a, uv * 0.5)"},
                               {"c",
                                "float sum = 0; for (int i = 0; i < 8; i++) sum += texture(b, uv + float(i) * 0.01).r;"
                                " return textureLod(scene, uv, 1.5) * sum / 8;"},
                               {"d", "texelFetch(a, ivec2(pixel) / 2) + dFdx(a) + float(textureSize(scene).x)"}});
    finish.grounds.push_back(test::picture_ground("scene", folder.file("p.png")));
    RenderRequest request;
    request.checked = checked(finish);
    for (const CheckedStep& step : request.checked->steps) {
        if (step.fault) FAIL(to_text(*step.fault));
    }
    request.width = 64;
    request.height = 36;
    request.steps = {"b", "c", "d"};
    CHECK(share_off(drawn(request, Backend::cpu), drawn(request, Backend::gpu), 1e-4F) < 0.002);
}

TEST_CASE(
    "smaller copies of stored steps are the same whether this processor or the driver makes them, at odd sizes too") {
    const Finish finish = finish_of({{"one", "value_noise(uv * 40)"},
                                     {"two", "uv * uv.yx"},
                                     {"four", "vec4(fract(uv * 7), one, uv.x)"},
                                     {"a", "textureLod(one, uv.yx, 1.5) + textureLod(one, uv, 30.0)"},
                                     {"b", "textureLod(two, uv, 2.0) + texture(two, uv * 0.5)"},
                                     {"c", "textureLod(four, uv * 0.9, 2.7)"}});
    for (const auto& [width, height] : {std::pair(61, 47), std::pair(1, 13), std::pair(64, 5)}) {
        RenderRequest request;
        request.checked = checked(finish);
        request.frame_width = width;
        request.frame_height = height;
        request.steps = {"a", "b", "c"};
        CAPTURE(width, height);
        CHECK(share_off(drawn(request, Backend::cpu), drawn(request, Backend::gpu), 1e-4F) < 0.002);
    }
}

TEST_CASE("grounds are read in their own ways, and gradients and curves by at(), the same by either back end") {
    const test::TemporaryFolder folder;
    Image8 image{5, 4, {}};
    for (int i = 0; i < 5 * 4 * 4; ++i) image.data.push_back(static_cast<std::uint8_t>(i * 59 % 253));
    REQUIRE(write_png(folder.file("p.png"), image));
    for (const Wrap wrap : {Wrap::clamp, Wrap::repeat, Wrap::mirror}) {
        for (const Filter filter : {Filter::linear, Filter::nearest}) {
            Finish finish = finish_of({{"a", "texture(scene, uv * 5.3 - 2.1)"},
                                       {"b", "textureLod(scene, uv * 5.3 - 2.1, 0.7)"},
                                       {"c", "scene"},
                                       {"d", "at(dusk, uv.x * 1.5 - 0.2) * at(swell, uv.y)"}});
            finish.grounds.push_back(
                {"scene", PictureGround{.path = folder.file("p.png"), .sampling = {wrap, filter}}});
            finish.grounds.push_back(test::stops_ground(
                "dusk", StopValues::colours, {{0, {0, 0, 0, 0}}, {0.3, {1, 0.5, 0.2, 1}}, {1, {4, 2, 1, 1}}}));
            finish.grounds.push_back(
                test::stops_ground("swell", StopValues::heights, {{0, {0, 0, 0, 1}}, {1, {2, 0, 0, 1}}}));
            RenderRequest request;
            request.checked = checked(finish);
            request.width = 61;
            request.height = 47;
            request.steps = {"a", "b", "c", "d"};
            CHECK(share_off(drawn(request, Backend::cpu), drawn(request, Backend::gpu), 1e-4F) < 0.003);
        }
    }
}

TEST_CASE("a shader that the driver refuses leaves the drawing to this processor, with a notice") {
    // More pictures than a shader may read.
    std::vector<std::pair<std::string, std::string>> steps;
    std::string sum = "0";
    for (int i = 0; i < 70; ++i) {
        steps.emplace_back("s_" + std::to_string(i), "uv.x * " + std::to_string(i));
        sum += " + texture(s_" + std::to_string(i) + ", uv)";
    }
    steps.emplace_back("all", sum);
    RenderRequest request;
    request.checked = checked(finish_of(steps));
    request.width = request.height = 4;
    request.steps = {""};
    WorkerPool pool(1);
    Renderer renderer(pool);
    REQUIRE_FALSE(renderer.use(Backend::gpu));
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->notices.size() == 1);
    CHECK(frame->notices[0].id == "gpu.shader");
    const Result<Frame> again = renderer.render(request, Cancel());
    REQUIRE(again);
    CHECK(again->notices.empty());
    CHECK(again->steps[0].picture.data[0] == frame->steps[0].picture.data[0]);
    // It still draws all else.
    CHECK(renderer.drawn_by() != best_kernels().name);
}

TEST_CASE("what is too wide for the driver is drawn by this processor, and nothing else is") {
    WorkerPool pool(1);
    Renderer renderer(pool);
    REQUIRE_FALSE(renderer.use(Backend::gpu));
    const auto by = [&](const Finish& finish, int width) {
        RenderRequest request;
        request.checked = checked(finish);
        request.frame_width = width;
        request.frame_height = 2;
        request.steps = {""};
        Result<Frame> frame = renderer.render(request, Cancel());
        REQUIRE(frame);
        return std::move(*frame);
    };
    const Finish stored = finish_of({{"a", "uv.x"}, {"b", "texture(a, uv)"}});
    constexpr int wide = max_picture_side;
    const Frame frame = by(stored, wide);
    REQUIRE(frame.notices.size() == 2);
    CHECK(frame.notices[0].id == "gpu.size");
    CHECK(frame.steps[0].picture.data[wide - 1] == Approx(1).margin(1e-4));
    CHECK(by(stored, 20).notices.empty());
    CHECK(renderer.drawn_by() != best_kernels().name);
    // A picture file of that width, too.
    const test::TemporaryFolder folder;
    Image8 image{wide, 1, {}};
    image.data.assign(std::size_t{wide} * 4, 255);
    REQUIRE(write_png(folder.file("wide.png"), image));
    Finish shown = finish_of({{"a", "scene.rgb"}});
    shown.grounds = {test::picture_ground("scene", folder.file("wide.png"))};
    const Frame white = by(shown, 20);
    REQUIRE(white.notices.size() == 1);
    CHECK(white.steps[0].picture.data[0] == 1);
}

TEST_CASE("backends go by their names") {
    CHECK(backend_named("cpu") == Backend::cpu);
    CHECK(backend_named("gpu") == Backend::gpu);
    CHECK(backend_named("auto") == Backend::automatic);
    CHECK_FALSE(backend_named("both"));
}

TEST_CASE("a driver is handed each picture once, waited for once a frame, and only what is shown is read back") {
    WorkerPool pool(2);
    Renderer renderer(pool);
    REQUIRE_FALSE(renderer.use(Backend::gpu));
    const std::string path = std::string(LACQUER_SOURCE) + "/demo/finishes/everyday-crossfade.lacquer";
    const Result<OpenedFinish> opened = load_finish(path);
    REQUIRE(opened);
    // Stored steps, and smaller copies of one, besides pictures.
    Finish finish = opened->finish;
    Step last;
    last.name = "soft";
    last.formula = "gaussian_blur(" + finish.coats.back().steps.back().name + ", 9)";
    finish.coats.back().steps.own().push_back(last);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.finish_path = path;
    request.steps = {""};
    request.width = 320;
    request.height = 180;
    REQUIRE(renderer.render(request, Cancel()));
    const DriverTraffic first = renderer.driver_traffic();
    CHECK(first.uploads >= 2);
    for (int frame = 1; frame <= 3; ++frame) {
        request.time = 0.1 * frame;
        REQUIRE(renderer.render(request, Cancel()));
        const DriverTraffic now = renderer.driver_traffic();
        CHECK(now.uploads == first.uploads);
        CHECK(now.bytes_up == first.bytes_up);
        CHECK(now.bytes_down == (frame + 1) * std::int64_t{320} * 180 * 4 * static_cast<std::int64_t>(sizeof(float)));
        CHECK(now.waits == frame + 1);
        CHECK(now.drawings > now.waits);
    }
}
