// Variants and looks that were set aside: what goes where, and that nothing is lost.
#include <catch2/catch.hpp>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/json_line.h"
#include "core/finish/json_merge.h"
#include "core/finish/json_tree.h"
#include "core/finish/limits.h"
#include "core/finish/step_edits.h"
#include "core/finish/variants.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

Json json(const std::string& text) { return *json_from_text(text, "test"); }

Finish base() {
    Finish finish =
        test::finish_of({{"pattern", "value_noise(uv * 9)"}, {"cut", "vec4(vec3(1), step(gone, pattern))"}});
    finish = test::with_dial(finish, "gone", 0, 1);
    finish = test::with_dial(finish, "size", 0, 10);
    finish.grounds.push_back(test::picture_ground("skin", "skin.png"));
    Ground crab;
    crab.name = "crab";
    SpriteGround sprite;
    for (const char* path : {"shell.png", "claw.png"}) {
        SpritePart part;
        part.path = path;
        sprite.parts.push_back(part);
    }
    crab.kind = sprite;
    finish.grounds.push_back(crab);
    finish.responses.push_back({"burn", "sweep", "", {{"from", 0.0}, {"to", 1.0}, {"seconds", 2.0}}});
    return finish;
}

// The same by way of its file.
Finish filed(const Finish& finish) {
    const Result<OpenedFinish> opened = finish_from_text(finish_to_text(finish), "test");
    REQUIRE(opened);
    for (const Fault& notice : opened->notices) FAIL(to_text(notice));
    return opened->finish;
}

Finish with_variant_on(const std::string& name) { return *add_variant(base(), name, {}); }

// An edit as the window makes it.
template <class Edit>
Finish edited(const Finish& finish, Edit edit) {
    Finish changed = finish;
    edit(changed);
    return into_variant(finish, std::move(changed));
}

}  // namespace

// RFC 7396 (JSON Merge Patch), the test cases of its appendix A.
TEST_CASE("patches are merged as the standard has it") {
    const std::vector<std::vector<std::string>> cases = {
        {R"({"a":"b"})", R"({"a":"c"})", R"({"a": "c"})"},
        {R"({"a":"b"})", R"({"b":"c"})", R"({"a": "b", "b": "c"})"},
        {R"({"a":"b"})", R"({"a":null})", R"({})"},
        {R"({"a":"b","b":"c"})", R"({"a":null})", R"({"b": "c"})"},
        {R"({"a":["b"]})", R"({"a":"c"})", R"({"a": "c"})"},
        {R"({"a":"c"})", R"({"a":["b"]})", R"({"a": ["b"]})"},
        {R"({"a":{"b":"c"}})", R"({"a":{"b":"d","c":null}})", R"({"a": {"b": "d"}})"},
        {R"({"a":[{"b":"c"}]})", R"({"a":[1]})", R"({"a": [1]})"},
        {R"(["a","b"])", R"(["c","d"])", R"(["c", "d"])"},
        {R"({"a":"b"})", R"(["c"])", R"(["c"])"},
        {R"({"e":1})", R"({"a":1})", R"({"e": 1, "a": 1})"},
        {R"({})", R"({"a":{"bb":{"ccc":null}}})", R"({"a": {"bb": {}}})"}};
    for (const auto& one : cases) {
        INFO(one[0] << " with " << one[1]);
        CHECK(one_line(merged(json(one[0]), json(one[1]))) == one[2]);
    }
}

TEST_CASE("a patch between two values makes one into the other, lists of things member by member") {
    for (const auto& [from, to] : std::vector<std::pair<std::string, std::string>>{
             {R"({"a":1,"b":{"c":2,"d":3}})", R"({"b":{"c":2,"d":4,"e":5}})"},
             {R"({"parts":[{"p":"x","q":1},{"p":"y"}]})", R"({"parts":[{"p":"x","q":2},{"p":"z"}]})"},
             {R"({"parts":[{"p":"x"}]})", R"({"parts":[{"p":"x"},{"p":"z"}]})"},
             {R"({"v":[1,2,3]})", R"({"v":[1,2,4]})"}}) {
        const Json patch = merge_patch(json(from), json(to));
        INFO(one_line(patch));
        CHECK(one_line(merged(json(from), patch)) == one_line(json(to)));
        CHECK(merge_patch(json(to), json(to)).size() == 0);
    }
    const Json one =
        merge_patch(json(R"({"parts":[{"p":"x"},{"p":"y"}]})"), json(R"({"parts":[{"p":"x"},{"p":"z"}]})"));
    CHECK(one_line(one) == R"({"parts": {"1": {"p": "z"}}})");
}

TEST_CASE("while a variant is on, changes of values, formulas, grounds and responses go into it") {
    const Finish on = with_variant_on("wet");
    CHECK(on.variant == "wet");
    Finish now = edited(on, [](Finish& f) { f.dials[0].value = {0.7, 0, 0}; });
    now = edited(now, [](Finish& f) { f.coats[0].steps.own()[0].formula = "cells(0.2)"; });
    now = edited(now, [](Finish& f) { f.responses[0].settings["seconds"] = 5.0; });
    now = edited(now, [](Finish& f) { f.grounds[1].as<SpriteGround>()->parts[1].path = "wet-claw.png"; });
    CHECK(now.dials[0].value[0] == 0.7);
    CHECK(overlay_of(now, "wet").size() == 4);
    const Finish off = switch_variant(now, "");
    Finish plain = off;
    plain.variants = {};
    CHECK(plain == base());
    CHECK(switch_variant(off, "wet") == now);
    // All else follows the base: another part of the same sprite, another setting of the same response.
    Finish other = off;
    other.grounds[1].as<SpriteGround>()->parts[0].path = "other-shell.png";
    other.responses[0].settings["to"] = 0.5;
    other.dials[1].value = {3, 0, 0};
    const Finish again = switch_variant(other, "wet");
    const auto& parts = again.grounds[1].as<SpriteGround>()->parts;
    CHECK(parts[0].path == "other-shell.png");
    CHECK(parts[1].path == "wet-claw.png");
    CHECK(number_of(again.responses[0], "to") == 0.5);
    CHECK(number_of(again.responses[0], "seconds") == 5.0);
    CHECK(again.dials[1].value[0] == 3);
    CHECK(again.coats[0].steps[0].formula == "cells(0.2)");
}

TEST_CASE("what is set back to what the base has is no difference any more; one part at a time goes to the base") {
    const Finish on = with_variant_on("wet");
    Finish now = edited(on, [](Finish& f) { f.dials[0].value = {0.7, 0, 0}; });
    now = edited(now, [](Finish& f) { f.dials[0].value = {0.9, 0, 0}; });
    CHECK(differs_from_base(now, "gone"));
    CHECK_FALSE(differs_from_base(now, "size"));
    CHECK(edited(now, [](Finish& f) { f.dials[0].value = {0, 0, 0}; }) == on);
    const Result<Finish> based = into_base(now, "gone");
    REQUIRE(based);
    CHECK_FALSE(differs_from_base(*based, "gone"));
    CHECK(switch_variant(*based, "").dials[0].value[0] == 0.9);
    const Result<Finish> followed = follow_base(now, "gone");
    REQUIRE(followed);
    CHECK(*followed == on);
    CHECK(into_variant(now, *followed) == on);
    CHECK(into_base(on, "gone").fault().id == "variant.none");
    CHECK(follow_base(on, "nobody").fault().id == "variant.none");
}

TEST_CASE("adding, deleting and renaming change the base; what a variant has of what goes is kept in it") {
    Finish now = with_variant_on("wet");
    now = edited(now, [](Finish& f) { f.coats[0].steps.own()[0].formula = "cells(0.2)"; });
    now = edited(now, [](Finish& f) { f.dials[0].value = {0.7, 0, 0}; });
    const Finish renamed = into_variant(now, *rename(now, "pattern", "order"));
    CHECK(find_step(renamed, "order")->formula == "cells(0.2)");
    const Finish off = switch_variant(renamed, "");
    CHECK(find_step(off, "order")->formula == "value_noise(uv * 9)");
    CHECK(find_step(off, "cut")->formula == "vec4(vec3(1), step(gone, order))");
    CHECK(overlay_of(renamed, "wet").steps.count("cut") == 0);

    const Finish deleted = into_variant(now, *delete_step(now, "pattern"));
    const auto entries = entries_of(overlay_of(deleted, "wet"), deleted);
    REQUIRE(entries.size() == 2);
    CHECK(entries[1].name == "pattern");
    CHECK(entries[1].missing);
    CHECK(entries[1].changes.find("cells(0.2)") != std::string::npos);
    // It opens and is saved with nothing lost, on and off, and finds its step again when there is one.
    CHECK(filed(deleted) == deleted);
    const Finish there = into_variant(deleted, *add_step_before(deleted, "cut", {"pattern", "uv.y"}));
    CHECK(find_step(there, "pattern")->formula == "cells(0.2)");
    CHECK(find_step(switch_variant(there, ""), "pattern")->formula == "uv.y");
    const Finish added = into_variant(now, *add_step(now, "", {"later", "cut"}));
    CHECK(find_step(switch_variant(added, ""), "later") != nullptr);
    CHECK(overlay_of(added, "wet").size() == 2);
}

TEST_CASE("renaming changes formulas of all variants and looks, whether they are on or not") {
    Finish finish = base();
    finish = *add_variant(finish, "wet", {{}, {{"cut", R"x({"formula": "vec4(pattern)"})x"}}, {}, {}});
    finish = switch_variant(
        *add_variant(finish, "dry", {{{"gone", R"({"value": 1, "formula": "pattern"})"}}, {}, {}, {}}), "");
    finish.set_aside.push_back({"first", 1.5, "", whole_overlay(finish), {{"gone", {0.25, 0, 0}}}, {}});
    CHECK(filed(finish) == finish);
    CHECK(rename(finish, "gone", "lost")->set_aside[0].held.count("lost") == 1);
    const Result<Finish> renamed = rename(finish, "pattern", "order");
    REQUIRE(renamed);
    CHECK(renamed->variants[0].overlay.steps.at("cut") == R"x({"formula": "vec4(order)"})x");
    CHECK(renamed->variants[1].overlay.dials.at("gone") == R"({"value": 1, "formula": "order"})");
    CHECK(renamed->set_aside[0].overlay.steps.count("order") == 1);
    CHECK(renamed->set_aside[0].overlay.steps.at("cut").find("order") != std::string::npos);
}

TEST_CASE("variants are copied, renamed, moved, deleted, and made finishes of their own") {
    Finish finish = edited(with_variant_on("wet"), [](Finish& f) { f.dials[0].value = {0.7, 0, 0}; });
    finish = *copy_variant(finish, "wet");
    CHECK(finish.variant == "wet_2");
    CHECK(finish.dials[0].value[0] == 0.7);
    CHECK(rename_variant(finish, "wet_2", "Wet").fault().id == "variant.name");
    CHECK(rename_variant(finish, "wet_2", "  ").fault().id == "variant.name");
    finish = *rename_variant(finish, "wet_2", "Very wet");
    CHECK(finish.variant == "very_wet");
    CHECK(move_variant(finish, "very_wet", 1).fault().id == "edit.end");
    finish = *move_variant(finish, "very_wet", -1);
    CHECK(finish.variants[0].name == "very_wet");
    const Result<Finish> own = variant_as_finish(finish, "very_wet");
    REQUIRE(own);
    CHECK(own->variants.empty());
    CHECK(own->variant.empty());
    CHECK(own->dials[0].value[0] == 0.7);
    finish = *delete_variant(finish, "very_wet");
    CHECK(finish.variant.empty());
    CHECK(finish.dials[0].value[0] == 0);
    CHECK(delete_variant(finish, "nobody").fault().id == "variant.unknown");
}

TEST_CASE("a look is taken up whole: what was added to a dial since then goes") {
    const Finish finish = base();
    const SetAside look{"first", 1.5, "", whole_overlay(finish), {}, {}};
    Finish changed = finish;
    changed.dials[0].value = {0.4, 0, 0};
    changed.dials[0].formula = "burn";
    changed.coats[0].steps.own()[0].formula = "uv.x";
    changed.coats[0].steps.own()[1].on = false;
    changed.responses[0].settings["delay"] = 1.0;
    changed.grounds[0] = test::picture_ground("skin", "other.png");
    CHECK(with_whole(changed, look.overlay) == finish);
}

TEST_CASE("a finish with 1,000 variants and 1,000 looks comes back from its file as it was") {
    Finish finish = test::demo_named("squall-strike");
    const Overlay whole = whole_overlay(finish);
    for (int i = 0; i < 1000; ++i) {
        finish.variants.push_back(
            {"kind_" + std::to_string(i), "", {{{"radius", R"({"value": 1.2})"}}, {}, {}, {}}, {}});
        finish.set_aside.push_back({"look " + std::to_string(i), 0.5, std::string(8000, 'A'), whole, {}, {}});
    }
    finish = switch_variant(finish, "kind_7");
    CHECK(filed(finish) == finish);
}

TEST_CASE("hostile variants and looks are told and left out, and nothing else is lost") {
    const auto opened = [](const std::string& parts) {
        Result<OpenedFinish> finish = finish_from_text(
            R"({"format": 1, "name": "x", "dials": [{"name": "gone", "value": 0.5}], )" + parts + "}", "test");
        REQUIRE(finish);
        CHECK_FALSE(finish->notices.empty());
        return finish->finish;
    };
    CHECK(opened(R"("variants": [{"name": "Not A Name"}])").variants[0].name == "not_a_name");
    CHECK(opened(R"("variants": [{"name": "a"}, {"name": "a"}])").variants.size() == 2);
    CHECK(opened(R"("variants": [{"name": "a", "dials": [1]}])").variants[0].overlay.empty());
    CHECK(opened(R"("variants": [{"name": "a", "dials": {"gone": 3}}])").variants[0].overlay.empty());
    CHECK(opened(R"("variant": "nobody")").variant.empty());
    CHECK(opened(R"("set_aside": [{"words": 7, "time": "x"}])").set_aside.size() == 1);
    CHECK(opened(R"("set_aside": [{"held": {"gone": "much"}}])").set_aside[0].held.empty());
    // A patch that would make something else of the thing is held to what a variant may change.
    Result<OpenedFinish> sly = finish_from_text(
        R"({"format": 1, "dials": [{"name": "gone", "value": 0.5}], "variant": "a",
            "variants": [{"name": "a", "dials": {"gone": {"name": "other", "kind": "colour", "value": "big"}}}]})",
        "test");
    REQUIRE(sly);
    CHECK(sly->finish.dials[0].name == "gone");
    CHECK(sly->finish.dials[0].kind == DialKind::number);
}

TEST_CASE("what a file could not hold of variants and looks is refused") {
    Finish finish;
    finish.coats.resize(1);
    for (int i = 0; i < 1024; ++i) finish.coats[0].steps.push_back({"s" + std::to_string(i), "1"});
    finish.set_aside.push_back({"look", 0, "", whole_overlay(finish), {}, {}});
    CHECK(within_limits(finish));
    CHECK(filed(finish) == finish);
    finish.coats[0].steps.push_back({"one_more", "1"});
    finish.set_aside.push_back({"look", 0, "", whole_overlay(finish), {}, {}});
    CHECK_FALSE(within_limits(finish));
    Finish many;
    for (int i = 0; i <= 4096; ++i) many.variants.push_back({"v" + std::to_string(i), "", {}, {}});
    CHECK_FALSE(within_limits(many));
}
