// What is played on an open finish, as the command line and the library do it.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/finish/played_finish.h"
#include "core/render/played_request.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

PlayedFinish demo() { return play_finish(test::demo_finish(), test::demo_path(), built_in_catalogue()); }

}  // namespace

TEST_CASE("a finish is played with its own tape until another is taken, or cues are pressed") {
    PlayedFinish played = demo();
    CHECK(played.tape.tape == played.finish().tape);
    played.tape.tape = Tape();
    REQUIRE(press_cue(played, {"hit", 0.5, 2.5}));
    REQUIRE(played.tape.tape.cues.size() == 1);
    CHECK(std::as_const(played.tape.tape).cues[0].strength == 1);
    const std::string dial = played.finish().dials[0].name;
    REQUIRE(change_at(played, {dial, 0.25, {0.5}}));
    REQUIRE(hold_dial(played, dial, {0.125}));
    const RenderRequest request = request_of(played, 0.75);
    CHECK(request.time == 0.75);
    CHECK(request.held.at(dial)[0] == 0.125);
    CHECK(request.tape->cues.size() == 1);
    REQUIRE(let_go_of_dial(played, dial));
    CHECK(played.held.empty());
}

TEST_CASE("what cannot be played is told, and changes nothing") {
    PlayedFinish played = demo();
    played.tape.tape = Tape();
    CHECK(press_cue(played, {"hitt", 0}).fault().mend.find("hit") != std::string::npos);
    CHECK(press_cue(played, {"hitt", 0}).fault().id == "play.unknown");
    CHECK(press_cue(played, {"hit", -1}).fault().id == "play.value");
    CHECK(press_cue(played, {"hit", std::nan("")}).fault().id == "play.value");
    CHECK(press_cue(played, {"hit", 0, 1, INFINITY}).fault().id == "play.value");
    CHECK(change_at(played, {"nothing", 0, {1}}).fault().id == "play.unknown");
    CHECK(hold_dial(played, "nothing", {1}).fault().id == "play.unknown");
    CHECK(hold_dial(played, played.finish().dials[0].name, {std::nan("")}).fault().id == "play.value");
    CHECK(let_go_of_dial(played, "nothing").fault().id == "play.unknown");
    CHECK(use_variant(played, "nothing").fault().id == "play.unknown");
    Faults notices;
    CHECK_FALSE(use_tape(played, "nowhere.tape", notices));
    CHECK(played.tape.tape == Tape());
    CHECK(played.held.empty());
    for (std::size_t i = 0; i < max_tape_events; ++i) played.tape.tape.cues.push_back({"hit", 1, 1});
    CHECK(press_cue(played, {"hit", 1}).fault().id == "play.full");
}

TEST_CASE("a variant is switched on and off again") {
    Finish finish = test::demo_finish();
    finish.variants = {{"night"}};
    PlayedFinish played = play_finish(std::move(finish), test::demo_path(), built_in_catalogue());
    REQUIRE(use_variant(played, "night"));
    CHECK(played.finish().variant == "night");
    REQUIRE(use_variant(played, ""));
    CHECK(played.finish().variant.empty());
}
