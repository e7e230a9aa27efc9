#include "tests/support/finishes.h"

#include <catch2/catch.hpp>

#include "core/base/hash.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/variants.h"

namespace lacquer::test {

Finish finish_of(const std::vector<std::pair<std::string, std::string>>& steps) {
    Finish finish = empty_finish();
    for (const auto& [name, formula] : steps) {
        finish.coats[0].steps.push_back(Step{name, formula, "", true, false, {}});
    }
    return finish;
}

Finish with_dial(Finish finish, const std::string& name, double least, double most, const std::string& formula) {
    Dial dial;
    dial.name = dial.code_name = name;
    dial.least = least;
    dial.most = most;
    dial.value = dial.default_value = {least, 0, 0};
    dial.formula = formula;
    finish.dials.push_back(dial);
    return finish;
}

Finish with_scene(Finish finish) {
    finish.grounds.push_back(
        picture_ground("scene", std::string(LACQUER_SOURCE) + "/demo/pictures/lighthouse-storm.png"));
    return finish;
}

Ground picture_ground(const std::string& name, const std::string& path) { return {name, PictureGround{path}}; }

Ground stops_ground(const std::string& name, StopValues values, std::vector<Stop> stops) {
    Stops own{std::move(stops)};
    if (values == StopValues::heights) return {name, CurveGround{std::move(own)}};
    return {name, GradientGround{std::move(own)}};
}

std::shared_ptr<const CheckedFinish> checked(const Finish& finish) {
    return std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish)));
}

std::shared_ptr<RenderStores> shared_stores() {
    static const auto stores = std::make_shared<RenderStores>();
    return stores;
}

DrawnStep draw(const Finish& finish, const std::string& step, int width, int height, double time) {
    WorkerPool pool(2);
    Renderer renderer(pool, std::nullopt, shared_stores());
    RenderRequest request;
    request.checked = checked(finish);
    request.time = time;
    request.frame_width = width;
    request.frame_height = height;
    request.steps = {step};
    Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->steps.size() == 1);
    return std::move(frame->steps.front());
}

std::string demo_path() { return demo_path("squall-strike"); }
Finish demo_finish() { return demo_named("squall-strike"); }

Finish demo_named(const std::string& name) {
    Result<OpenedFinish> opened = load_finish(demo_path(name));
    if (!opened) FAIL(to_text(opened.fault()));
    const std::size_t colon = name.find(':');
    if (colon == std::string::npos) return std::move(opened->finish);
    const std::string variant = name.substr(colon + 1);
    if (find_variant(opened->finish, variant) == nullptr) FAIL("there is no variant " << variant);
    return switch_variant(std::move(opened->finish), variant);
}

std::string demo_path(const std::string& name) {
    return std::string(LACQUER_SOURCE) + "/demo/finishes/" + name.substr(0, name.find(':')) + ".lacquer";
}

Pass pass_of(const std::string& text, const Scope& scope) {
    const Result<Typed> typed = compile_step(text, scope);
    if (!typed) FAIL(to_text(typed.fault()));
    Pass pass;
    pass.name = "draws";
    pass.steps = {{"value", std::make_shared<const Typed>(*typed)}};
    pass.outputs = {"value"};
    return pass;
}

Picture test_picture(int width, int height) {
    Picture picture(width, height, 4);
    for (std::size_t i = 0; i < picture.data.size(); ++i) {
        picture.data[i] = unit_from_hash(pcg(static_cast<std::uint32_t>(i)));
    }
    return picture;
}

}  // namespace lacquer::test
