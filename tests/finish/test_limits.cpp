// What is saved can be opened again.
#include <array>
#include <catch2/catch.hpp>
#include <cmath>
#include <limits>

#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/limits.h"
#include "core/finish/shared_dials.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

TEST_CASE("a list that is too long is read up to its limit, and told") {
    Finish finish = test::finish_of({{"first", "uv.x"}});
    for (std::size_t i = 1; i <= max_members; ++i) finish.coats[0].steps.push_back({"s" + std::to_string(i), "1"});
    CHECK(within_limits(finish).fault().id == "edit.limit");
    const auto opened = finish_from_text(finish_to_text(finish), "x");
    REQUIRE(opened);
    CHECK(opened->finish.coats[0].steps.size() == max_members);
    REQUIRE(opened->notices.size() == 1);
    CHECK(opened->notices[0].message.find("4096") != std::string::npos);
    CHECK(within_limits(opened->finish));
}

TEST_CASE("a length, a tape and a number beyond what is read are not within the limits") {
    Finish finish = test::demo_finish();
    CHECK(within_limits(finish));
    finish.length = max_length + 1;
    CHECK(within_limits(finish).fault().id == "edit.limit");
    finish.length = max_length;
    CHECK(within_limits(finish));
    finish.dials[0].most = 1e13;
    CHECK_FALSE(within_limits(finish));
    finish.dials[0].most = 1;
    CHECK(room_on(finish.tape) == max_tape_events - finish.tape.cues.size() - finish.tape.changes.size());
    for (std::size_t i = 0; i <= max_tape_events; ++i) finish.tape.cues.push_back({"hit", 1, 1});
    CHECK(room_on(finish.tape) == 0);
    CHECK_FALSE(within_limits(finish));
}

TEST_CASE("no number of any part may be one that would not be read again") {
    Finish finish = test::demo_finish();
    finish.responses = {{"lamp", "strike", "hit", {{"rest", 0.5}, {"by_hand", PathKeys{{0.25, 0.5}}}}}};
    finish.signals = {{"storm"}};
    finish.signals[0].zone.of = "boat";
    finish.tape.changes.push_back({"storm", 1, {0.5, 0, 0}});
    finish.grounds.push_back({"sky", CurveGround{{{{0, {0}}, {1, {1}}}}}});
    finish.cues[0].weakest = 0.25;
    REQUIRE(within_limits(finish));
    using Write = void (*)(Finish&, double);
    constexpr std::array<Write, 14> writes = {
        [](Finish& to, double number) { to.responses[0].settings["rest"] = number; },
        [](Finish& to, double number) {
            to.responses[0].settings["by_hand"] = PathKeys{{0.25, number}};
        },
        [](Finish& to, double number) { to.signals[0].value[0] = number; },
        [](Finish& to, double number) { to.signals[0].least = number; },
        [](Finish& to, double number) { to.signals[0].zone.radius = number; },
        [](Finish& to, double number) { to.cues[0].strength = number; },
        [](Finish& to, double number) { to.cues[0].weakest = number; },
        [](Finish& to, double number) { to.cues[0].direction = number; },
        [](Finish& to, double number) { to.tape.changes[0].value[0] = number; },
        [](Finish& to, double number) { to.tape.cues[0].strength = number; },
        [](Finish& to, double number) { to.tape.cues[0].x = number; },
        [](Finish& to, double number) { to.dials[0].value[0] = number; },
        [](Finish& to, double number) { to.dials[0].increment = number; },
        [](Finish& to, double number) { std::get<CurveGround>(to.grounds.back().kind).stops.list[1].at = number; },
    };
    for (std::size_t i = 0; i < writes.size(); ++i) {
        INFO(i);
        for (const double number : {1e30, -1.1e12, std::nan(""), std::numeric_limits<double>::infinity()}) {
            Finish changed = finish;
            writes[i](changed, number);
            CHECK_FALSE(within_limits(changed));
        }
        Finish changed = finish;
        writes[i](changed, 1e12);
        CHECK(within_limits(changed));
    }
    // What another version wrote is not ours to judge.
    finish.responses[0].extra = {{"from_later", "1e15"}};
    CHECK(within_limits(finish));
}

TEST_CASE("the fullest tape that may be recorded is saved and opened again") {
    Finish finish = test::demo_finish();
    finish.tape = Tape();
    const std::string name(max_name_length, 'n');
    for (std::size_t i = 0; i < max_tape_events; ++i) {
        const double odd = 1.0 / 3 + static_cast<double>(i) * 1e-7;
        finish.tape.cues.push_back({name, odd, odd / 3, -odd * 100, odd / 7, odd / 11, 123456789});
    }
    REQUIRE(within_limits(finish));
    const test::TemporaryFolder folder;
    REQUIRE(save_finish(folder.file("a.lacquer"), finish));
    const auto opened = load_finish(folder.file("a.lacquer"));
    REQUIRE(opened);
    CHECK(opened->notices.empty());
    CHECK(opened->finish.tape == finish.tape);
}

TEST_CASE("shared dials are only ever read from files that are called so") {
    const test::TemporaryFolder folder;
    test::write_file(folder.file(".bashrc"), "alias l=ls\n");
    Finish finish = test::demo_finish();
    finish.shared_dials = "../.bashrc";
    finish.dials[0].shared = true;
    const auto opened = finish_from_text(finish_to_text(finish), "x");
    REQUIRE(opened);
    CHECK(opened->finish.shared_dials.empty());
    CHECK(opened->notices.size() == 1);
    CHECK(save_shared_dials(folder.file(".bashrc"), finish.dials).fault().id == "file.shape");
    CHECK(load_shared_dials(folder.file(".bashrc")).fault().id == "file.shape");
    CHECK(test::read_file(folder.file(".bashrc")) == "alias l=ls\n");
}

TEST_CASE("copies of a list share what they hold until one of them is changed") {
    SharedList<int> a = {1, 2, 3};
    SharedList<int> b = a;
    const auto& as_it_is = std::as_const(a);
    CHECK(&as_it_is[0] == &std::as_const(b)[0]);
    b.push_back(4);
    CHECK(a.size() == 3);
    CHECK(b.size() == 4);
    b.erase(b.begin() + 1);
    CHECK(b == SharedList<int>{1, 3, 4});
    CHECK(SharedList<int>() == SharedList<int>(std::vector<int>()));
    Finish finish = test::demo_finish();
    const Finish snapshot = finish;
    finish.name = "other";
    CHECK(&std::as_const(finish).tape.cues[0] == &snapshot.tape.cues[0]);
}
