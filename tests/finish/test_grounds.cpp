// Grounds with several pictures: their names, how they are read, and edits of them.
#include <catch2/catch.hpp>

#include "core/finish/checked.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/ground_edits.h"
#include "core/finish/ground_pictures.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

Ground scene_ground(const std::string& name) {
    return {name, SceneGround{view_of_place(*find_place("harbour"), Hour::dusk)}};
}

Ground marks_ground(const std::string& name, const std::string& of, std::vector<int> ids) {
    return {name, MarksGround{of, std::move(ids)}};
}

Finish on_scene(const std::string& formula) {
    Finish finish = test::finish_of({{"made", formula}});
    finish.grounds = {scene_ground("bay"), marks_ground("marked", "bay", {3, 9})};
    return finish;
}

SceneGround& scene_of(Finish& finish) { return *finish.grounds[0].as<SceneGround>(); }

const CheckedStep& checked_step(const CheckedFinish& checked) { return checked.steps.back(); }

}  // namespace

TEST_CASE("each picture of a scene has its own type") {
    const std::pair<const char*, Type> formulas[] = {{"bay", Type::vec4},
                                                     {"bay_depth", Type::number},
                                                     {"bay_normal", Type::vec3},
                                                     {"bay_position", Type::vec3},
                                                     {"bay_id", Type::number},
                                                     {"marked", Type::number},
                                                     {"texture(bay_depth, uv * 0.5) + marked", Type::number}};
    for (const auto& [formula, type] : formulas) {
        INFO(formula);
        const CheckedFinish checked = check_finish(std::make_shared<const Finish>(on_scene(formula)));
        REQUIRE(checked_step(checked).typed);
        CHECK(checked_step(checked).typed->type == type);
    }
}

TEST_CASE("ids and depth are read at the nearest pixel, colours as the ground says") {
    const Finish finish = on_scene("bay");
    const Ground& scene = finish.grounds[0];
    CHECK(sampling_of(scene, GroundLayer::colour).filter == Filter::linear);
    for (const GroundLayer layer : {GroundLayer::depth, GroundLayer::id, GroundLayer::normal, GroundLayer::position})
        CHECK(sampling_of(scene, layer).filter == Filter::nearest);
    CHECK(find_ground_picture(finish, "bay_id")->ground == &finish.grounds[0]);
    CHECK_FALSE(find_ground_picture(finish, "bay_speed"));
    CHECK(object_name(scene, 3) == "lighthouse");
    CHECK(object_name(scene, 99) == "object 99");
}

TEST_CASE("scenes, captures and marks come back from a file as they were") {
    Finish finish = on_scene("bay * marked");
    scene_of(finish).view.path = {{0, {{1, 2, 3}, {4, 5, 6}, 35}}, {2.5, {{-1, 2, 3}, {4, 5.25, 6}, 50}}};
    scene_of(finish).sampling.wrap = Wrap::mirror;
    CaptureGround capture{.path = "shot.exr", .opacity = FileOpacity::straight};
    capture.layers.depth = "mist";
    capture.layers.id = no_layer;
    finish.grounds.push_back({"shot", capture});
    const std::vector<SpritePart> parts{{"shell", "a.png", "", "faces.png", 32, 20.5, 1, 0.8},
                                        {"claw", "b.exr", "left", "", 1, 2, 0.5, 1, -30, true}};
    finish.grounds.push_back({"crab", SpriteGround{64, 48, parts, FileOpacity::multiplied}});
    finish.grounds.push_back({"sheet", PictureGround{.path = "s.png", .cells = {4, 2, 7, 12}}});
    Ground night = scene_ground("night");
    night.as<SceneGround>()->of = "bay";
    finish.grounds.push_back(night);
    const std::vector<Stop> stops{{0, {0, 0, 0, 1}, "ease_in"}, {1, {1, 1, 1, 1}}};
    finish.grounds.push_back({"tones", GradientGround{{stops, StopMix::oklab}}});
    finish.grounds.push_back({"grade", TableGround{"grade.cube"}});
    const auto opened = finish_from_text(finish_to_text(finish), "x");
    REQUIRE(opened);
    CHECK(opened->notices.empty());
    CHECK(opened->finish == finish);
}

TEST_CASE("what a file says wrongly of a scene is told, and the rest opens") {
    const auto notice = [](const std::string& ground) {
        const auto opened = finish_from_text("{\"format\": 1, \"grounds\": [" + ground + "]}", "x");
        REQUIRE(opened);
        REQUIRE(opened->finish.grounds.size() == 1);
        return opened->notices.empty() ? std::string() : opened->notices.front().message;
    };
    CHECK(notice(R"({"name": "a", "scene": "attic"})").find("harbour") != std::string::npos);
    CHECK(notice(R"({"name": "a", "scene": "harbour", "hour": "noon"})").find("dusk") != std::string::npos);
    CHECK(notice(R"({"name": "a", "scene": "harbour", "field": 400})").find("degrees") != std::string::npos);
    CHECK(notice(R"({"name": "a", "scene": "harbour", "path": [[1, 2]]})").find("8 numbers") != std::string::npos);
    CHECK(
        notice(R"({"name": "a", "scene": "harbour", "path": [[1,0,0,0,0,0,1,40],[1,0,0,0,0,0,1,40]]})").find("order") !=
        std::string::npos);
    CHECK(notice(R"({"name": "a", "marks": [1, "x"], "of": "b"})").find("numbers") != std::string::npos);
    CHECK(notice(R"({"name": "a", "marks": [-4], "of": "b"})").find("numbers") != std::string::npos);
    CHECK(notice(R"({"name": "a", "capture": "x.exr", "layers": 3})").find("object") != std::string::npos);
    CHECK(notice(R"({"name": "a", "marks": [2, 1, 2], "of": "b"})").empty());
    CHECK(notice(R"({"name": "a", "sprite": [], "size": [0, 4]})").find("64 million") != std::string::npos);
    CHECK(notice(R"({"name": "a", "sprite": [{"part": "x", "scale": -1}]})").find("scale") != std::string::npos);
    CHECK(notice(R"({"name": "a", "curve": [[0, 1, "ease_out"], [1, 0]]})").empty());
    CHECK(notice(R"({"name": "a", "curve": [[0, 1, "wobble"], [1, 0]]})").find("easings") != std::string::npos);
    CHECK(notice(R"({"name": "a", "curve": [[0, 1, 2], [1, 0]]})").find("2 numbers") != std::string::npos);
    CHECK(notice(R"({"name": "a", "picture": "x.png", "cells": [0, 1, 1, 1]})").find("columns") != std::string::npos);
}

TEST_CASE("a scene is renamed with all of its layers, and marks stay with it") {
    const auto renamed = rename(on_scene("bay * bay_depth + texture(bay, uv)"), "bay", "cove");
    REQUIRE(renamed);
    CHECK(find_step(*renamed, "made")->formula == "cove * cove_depth + texture(cove, uv)");
    CHECK(renamed->grounds[1].as<MarksGround>()->of == "cove");
}

TEST_CASE("names of layers are taken") {
    const Finish finish = on_scene("bay");
    CHECK(is_name_taken(finish, "bay_normal"));
    const GroundEdit twice = add_ground(finish, scene_ground("bay"));
    CHECK(twice.name == "bay_2");
    Finish clash = finish;
    clash.coats[0].steps.push_back(test::finish_of({{"bay_id", "1"}}).coats[0].steps[0]);
    const CheckedFinish checked = check_finish(std::make_shared<const Finish>(clash));
    REQUIRE_FALSE(checked.faults.empty());
    CHECK(checked.faults.front().id == "finish.duplicate");
    const GroundEdit beside = add_ground(clash, scene_ground("a_place_with_a_long_name"));
    CHECK(check_finish(std::make_shared<const Finish>(beside.finish)).faults.size() == checked.faults.size());
}

TEST_CASE("marks take objects in and out, and tell when they are gone") {
    const Finish finish = on_scene("marked");
    const auto more = toggle_mark(finish, "marked", 5);
    REQUIRE(more);
    CHECK(more->grounds[1].as<MarksGround>()->ids == std::vector<int>{3, 5, 9});
    CHECK(*toggle_mark(*more, "marked", 5) == finish);
    CHECK(toggle_mark(finish, "bay", 5).fault().id == "edit.unknown");
}

TEST_CASE("the camera stands still or goes along keys") {
    const Finish finish = on_scene("bay");
    const Camera there{{1, 1, 1}, {0, 0, 0}, 40};
    const auto still = set_camera(finish, "bay", there, 2);
    REQUIRE(still);
    CHECK(still->grounds[0].as<SceneGround>()->view.camera == there);
    CHECK(still->grounds[0].as<SceneGround>()->view.path.empty());
    const auto first = put_camera_key(*still, "bay", 1);
    REQUIRE(first);
    REQUIRE(first->grounds[0].as<SceneGround>()->view.path.size() == 1);
    const Camera later{{5, 1, 1}, {0, 0, 0}, 40};
    const auto second = set_camera(*first, "bay", later, 3);
    REQUIRE(second);
    REQUIRE(second->grounds[0].as<SceneGround>()->view.path.size() == 2);
    // At a key's own moment, that key is changed.
    const auto changed = set_camera(*second, "bay", there, 3);
    REQUIRE(changed);
    CHECK(changed->grounds[0].as<SceneGround>()->view.path.size() == 2);
    CHECK(changed->grounds[0].as<SceneGround>()->view.path[1].camera == there);
    CHECK(set_camera(finish, "marked", there, 0).fault().id == "edit.unknown");
    CHECK(put_camera_key(finish, "nothing", 0).fault().id == "edit.unknown");
}

TEST_CASE("a scene that follows another's camera is looked at from there") {
    Finish finish = on_scene("bay");
    SceneGround night = scene_of(finish);
    night.view.hour = Hour::storm;
    night.view.camera.eye = {9, 9, 9};
    night.of = "bay";
    CHECK(seen_view(finish, night).camera == scene_of(finish).view.camera);
    CHECK(seen_view(finish, night).hour == Hour::storm);
    night.of = "marked";
    CHECK(seen_view(finish, night).camera.eye == Vec3{9, 9, 9});
}

TEST_CASE("a ground is deleted or replaced, and those who read it are known") {
    const Finish finish = on_scene("bay * bay_depth");
    CHECK(readers_of(finish, "bay") == std::vector<std::string>{"made"});
    CHECK(readers_of(finish, "marked").empty());
    CHECK(readers_of(finish, "nothing").empty());
    Ground picture = test::picture_ground("other", "x.png");
    const auto replaced = replace_ground(finish, "bay", picture);
    REQUIRE(replaced);
    CHECK(replaced->grounds[0].name == "bay");
    CHECK(replaced->grounds[0].as<PictureGround>() != nullptr);
    CHECK(replace_ground(finish, "nothing", picture).fault().id == "edit.unknown");
    const auto without = delete_ground(finish, "bay");
    REQUIRE(without);
    CHECK(without->grounds.size() == 1);
    CHECK(delete_ground(finish, "nothing").fault().id == "edit.unknown");
}
