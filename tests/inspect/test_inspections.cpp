// Each complaint is provoked, told at the right place, and gone after its mend. What is provoked is common practice of
// the trade, no source.
#include <catch2/catch.hpp>

#include "core/inspect/inspection.h"
#include "core/picture/files.h"
#include "core/render/view.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::finish_of;
using test::with_dial;
using test::with_scene;

namespace {

Warnings warnings_of(const Finish& finish, const std::string& path = {}) {
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.finish_path = path;
    for (const CheckedStep& step : request.checked->steps) {
        INFO(step.name);
        if (step.fault) FAIL(to_text(*step.fault));
    }
    return inspect(request, renderer, Cancel());
}

const Warning* find(const Warnings& warnings, const std::string& id) {
    for (const Warning& warning : warnings) {
        if (warning.id == id) return &warning;
    }
    return nullptr;
}

std::string ids(const Warnings& warnings) {
    std::string text;
    for (const Warning& warning : warnings) text += warning.id + " at " + warning.where + ": " + warning.message + "\n";
    return text;
}

// Provokes the complaint, takes its first mend, and sees it gone; gives the mended finish.
Finish mended(const Finish& finish, const std::string& id, const std::string& where, const std::string& path = {}) {
    const Warnings before = warnings_of(finish, path);
    INFO(ids(before));
    const Warning* warning = find(before, id);
    REQUIRE(warning != nullptr);
    CHECK(warning->where == where);
    CHECK_FALSE(warning->message.empty());
    REQUIRE_FALSE(warning->mends.empty());
    const Result<Finish> after = warning->mends.front().apply(finish);
    REQUIRE(after);
    const Warnings now = warnings_of(*after, path);
    INFO(ids(now));
    CHECK(find(now, id) == nullptr);
    return *after;
}

Response response(const std::string& name, const std::string& kind, std::map<std::string, Setting> settings) {
    return {name, kind, "hit", std::move(settings)};
}

}  // namespace

TEST_CASE("everything drifted up and to the left: a push that nobody centred") {
    const Finish finish =
        with_scene(finish_of({{"cloud", "clouds(0.3)"}, {"pushed", "texture(scene, uv + cloud * 0.05)"}}));
    const Finish better = mended(finish, "inspect.one-way-push", "pushed");
    CHECK(find_step(better, "pushed")->formula == "texture(scene, uv + (cloud * 2.0 - 1.0) * 0.05)");
    // An operation that is handed a displacement is looked at as well.
    const Finish by_name =
        with_scene(finish_of({{"cloud", "clouds(0.3)"}, {"pushed", "push(scene, vec2(cloud), 0.1)"}}));
    const Finish centred = mended(by_name, "inspect.one-way-push", "pushed");
    CHECK(find_step(centred, "pushed")->formula == "push(scene, vec2((cloud * 2.0 - 1.0)), 0.1)");
    const Finish by_choice =
        with_scene(finish_of({{"cloud", "clouds(0.3)"}, {"pushed", "push(scene, vec2(cloud), 0.1, 1)"}}));
    CHECK(find(warnings_of(by_choice), "inspect.one-way-push") == nullptr);
    // A shift of everything by the same amount is meant.
    CHECK(find(warnings_of(with_scene(finish_of({{"shifted", "texture(scene, uv + 0.1)"}}))), "inspect.one-way-push") ==
          nullptr);
}

TEST_CASE("the picture is cropped or squeezed: read at places that serve distance") {
    const Finish finish = with_scene(finish_of({{"places", "centred()"}, {"view", "texture(scene, places)"}}));
    const Finish better = mended(finish, "inspect.corrected-reading", "view");
    CHECK(find_step(better, "view")->formula == "texture(scene, uv)");
}

TEST_CASE("opacity and masks misbehave outside 0..1") {
    const Finish finish =
        with_scene(finish_of({{"mask", "uv.x * 2.0"}, {"view", "mix(scene, vec4(1, 0, 0, 1), mask)"}}));
    const Finish better = mended(finish, "inspect.outside-range", "view");
    CHECK(find_step(better, "view")->formula == "mix(scene, vec4(1, 0, 0, 1), clamp(mask, 0.0, 1.0))");
    const Warnings told = warnings_of(finish);
    CHECK(find(told, "inspect.outside-range")->message.find("50 %") != std::string::npos);
    mended(with_scene(finish_of({{"view", "vec4(scene.rgb, uv.x + 0.5)"}})), "inspect.outside-range", "view");
}

TEST_CASE("at the start some pixels already burn; the end is cut off") {
    // Cellular distances lie near 0 in places, and the rim is wider than what is left of the range.
    const std::string cut = "vec4(scene.rgb, step(amount - 0.04, value_noise(uv * 40)))";
    const Finish early = with_dial(with_scene(finish_of({{"gone", cut}})), "amount", 0.1, 1.2);
    const Finish better = mended(early, "inspect.unclean-start", "amount");
    CHECK(find_dial(better, "amount")->least < 0.1);
    const Finish late = with_dial(with_scene(finish_of({{"gone", cut}})), "amount", 0, 0.95);
    const Finish whole = mended(late, "inspect.unclean-end", "amount");
    CHECK(find_dial(whole, "amount")->most > 0.95);
}

TEST_CASE("what other steps change is not laid on a dial that begins clean") {
    Finish finish = with_dial(with_scene(finish_of({{"fogged", "mix(scene, vec4(1), fog * (1 - scene.r * 0.1))"},
                                                    {"framed", "uv.x < 0.1 ? vec4(1, 0, 0, 1) : fogged"}})),
                              "fog", 0, 1);
    CHECK(find(warnings_of(finish), "inspect.unclean-start") == nullptr);
}

TEST_CASE("a sweep whose range is widened takes along the response that drives it") {
    const std::string cut = "vec4(scene.rgb, step(amount - 0.04, value_noise(uv * 40)))";
    Finish late = with_dial(with_scene(finish_of({{"gone", cut}})), "amount", 0, 0.95, "burn");
    late.cues.push_back({"hit"});
    late.responses.push_back(response("burn", "sweep", {{"from", 0.0}, {"to", 0.95}, {"seconds", 2.0}}));
    const Finish whole = mended(late, "inspect.unclean-end", "amount");
    CHECK(std::get<double>(whole.responses[0].settings.at("to")) == find_dial(whole, "amount")->most);
}

TEST_CASE("it snaps: a value that jumps when a hit lands") {
    Finish finish = with_dial(finish_of({{"a", "uv.x * amount"}}), "amount", 0, 1, "blow");
    finish.cues.push_back({"hit"});
    finish.tape.cues.push_back({"hit", 1.0, 1.0});
    finish.responses.push_back(
        response("blow", "strike", {{"rest", 0.0}, {"least", 0.5}, {"most", 1.0}, {"rise", 0.0}, {"fall", 1.0}}));
    const Finish better = mended(finish, "inspect.jump", "amount");
    CHECK(std::get<double>(better.responses[0].settings.at("rise")) == 0.08);
}

TEST_CASE("two runs fight over one parameter") {
    Finish finish = with_dial(finish_of({{"a", "uv.x * amount"}}), "amount", 0, 2, "blow + echo");
    finish.cues.push_back({"hit"});
    for (const char* name : {"blow", "echo"}) finish.responses.push_back(response(name, "strike", {}));
    const Finish better = mended(finish, "inspect.two-runs", "amount");
    CHECK(find_dial(better, "amount")->formula == "blow");
}

TEST_CASE("ugly colours show where the picture should be clear") {
    // A sprite whose file hides red under zero opacity.
    Finish finish = finish_of({{"lit", "vec4(sprite.rgb * 1.0, 1)"}});
    const test::TemporaryFolder folder;
    Picture sprite(64, 64, 4);
    for (int y = 0; y < 64; ++y) {
        for (int x = 0; x < 64; ++x) {
            const bool inside = x > 16 && x < 48 && y > 16 && y < 48;
            const std::array<float, 4> colour =
                inside ? std::array<float, 4>{0, 0, 1, 1} : std::array<float, 4>{1, 0, 0, 0};
            std::copy(colour.begin(), colour.end(), sprite.at(x, y));
        }
    }
    WorkerPool pool(1);
    REQUIRE(write_png(folder.file("sprite.png"), to_image(sprite, Type::vec4, pool)));
    finish.frame_width = finish.frame_height = 64;
    finish.grounds.push_back(test::picture_ground("sprite", folder.file("sprite.png")));
    const Finish better = mended(finish, "inspect.hidden-colours", "sprite");
    CHECK(find_step(better, "lit")->formula == "vec4(sprite_bled.rgb * 1.0, 1)");
    const DrawnStep drawn = test::draw(better, "lit", 64, 64);
    CHECK(drawn.picture.at(4, 32)[0] < 0.01F);
    CHECK(drawn.picture.at(4, 32)[2] > 0.9F);
}

TEST_CASE("a picture fills a frame larger than it is, or of another shape") {
    const test::TemporaryFolder folder;
    const auto on = [&](int width, int height, const std::string& formula) {
        Image8 image{width, height, {}};
        image.data.resize(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4);
        std::fill(image.data.begin(), image.data.end(), std::uint8_t{200});
        REQUIRE(write_png(folder.file("own.png"), image));
        Finish finish = finish_of({{"shown", formula}});
        finish.frame_width = 320;
        finish.frame_height = 180;
        finish.grounds.push_back(test::picture_ground("scene", folder.file("own.png")));
        return finish;
    };
    CHECK(find(warnings_of(on(320, 180, "scene * 0.5")), "inspect.magnified") == nullptr);
    CHECK(find(warnings_of(on(640, 360, "scene * 0.5")), "inspect.magnified") == nullptr);
    const Warnings small = warnings_of(on(160, 90, "scene * 0.5"));
    const Warning* larger = find(small, "inspect.magnified");
    REQUIRE(larger != nullptr);
    CHECK(larger->where == "scene");
    CHECK(larger->message.find("2 times") != std::string::npos);
    // Where it is read at places of its own, nobody can say how large it is shown.
    CHECK(find(warnings_of(on(160, 90, "texture(scene, uv * 0.3)")), "inspect.magnified") == nullptr);
    const Finish squeezed = on(300, 300, "texture(scene, uv) * 0.5");
    const Finish better = mended(squeezed, "inspect.other-shape", "scene");
    CHECK(find_step(better, "scene_fitted")->formula == "fit(scene)");
    CHECK(find_step(better, "shown")->formula == "texture(scene_fitted, uv) * 0.5");
}

TEST_CASE("something is divided by zero") {
    const Finish finish = finish_of({{"a", "uv.x - uv.x"}, {"b", "1.0 / a - 1.0 / a"}, {"c", "b * 2.0"}});
    const Warnings told = warnings_of(finish);
    INFO(ids(told));
    const Warning* warning = find(told, "inspect.not-finite");
    REQUIRE(warning != nullptr);
    CHECK(warning->where == "b");  // c only passes it on
    const Finish one = finish_of({{"a", "uv.x - uv.x"}, {"b", "uv.y / a"}});
    CHECK(find_step(mended(one, "inspect.not-finite", "b"), "b")->formula == "uv.y / max(a, 0.0001)");
}

TEST_CASE("stand-ins are told of until they are real, and steps without a name of their own") {
    Finish finish = finish_of({{"depth_here", "uv.y"}, {"step", "length(uv)"}});
    finish.coats[0].steps[0].stand_in = true;
    mended(finish, "inspect.stand-in", "depth_here");
    const Finish named = mended(finish, "inspect.unnamed", "step");
    CHECK(find_step(named, "length_1") != nullptr);
}

TEST_CASE("a finish in order has nothing to tell") {
    const Warnings told = warnings_of(test::demo_finish(), test::demo_path());
    INFO(ids(told));
    CHECK(told.empty());
}
