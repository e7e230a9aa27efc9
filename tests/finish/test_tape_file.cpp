// Tapes as JSON Lines, and what play adds to the finish's own file.
#include "core/finish/tape_file.h"

#include <catch2/catch.hpp>

#include "core/base/file.h"
#include "core/finish/file.h"
#include "core/finish/shared_dials.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

Tape some_tape() {
    Tape tape;
    tape.cues = {{"hit", 0.5, 0.8, 30, 0.25, 0.75, 4}, {"touch", 1.25, 1}};
    tape.changes = {{"hull", 0.25, {90, 0, 0}}, {"keeper", 0.75, {0.5, 0.25, 0}}, {"tint", 2, {1, 0.5, 0.25}}};
    return tape;
}

}  // namespace

TEST_CASE("a tape comes back from its file as it was") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("night.tape");
    REQUIRE(save_tape(path, {"Gale night", 8, some_tape()}));
    Faults notices;
    const Result<NamedTape> read = load_tape(path, notices);
    REQUIRE(read);
    CHECK(notices.empty());
    CHECK(read->name == "Gale night");
    CHECK(read->length == 8);
    CHECK(read->tape == some_tape());
    const std::string text = *read_whole_file(path, 10000);
    CHECK(text.starts_with("{\"tape\": \"Gale night\", \"format\": 1, \"length\": 8"));
    CHECK(std::count(text.begin(), text.end(), '\n') == 6);
    CHECK(text.find(R"({"set": "hull", "at": 0.25, "value": 90})") < text.find(R"({"cue": "hit", "at": 0.5)"));
}

TEST_CASE("lines of a tape that cannot be used are left out and told; other files are refused") {
    Faults notices;
    const auto read = tape_from_text(
        "{\"tape\": \"x\"}\n\n{\"cue\": \"b\", \"at\": 2}\nnonsense\n{\"cue\": \"a\", \"at\": \"soon\"}\r\n"
        "{\"set\": \"hull\", \"at\": 1, \"value\": \"much\"}\n{\"cue\": \"c\", \"at\": -4, \"strength\": 7}\n[1]\n",
        "odd.tape", notices);
    REQUIRE(read);
    REQUIRE(read->tape.cues.size() >= 3);
    CHECK(read->tape.cues.back().name == "b");
    CHECK(read->tape.cues.front().at == 0);
    CHECK(read->tape.changes.empty());
    CHECK(notices.size() >= 3);
    CHECK(notices[0].place.line == 4);
    const auto fault = [](std::string_view text) {
        Faults ignored;
        const auto wrong = tape_from_text(text, "odd.tape", ignored);
        REQUIRE_FALSE(wrong);
        return wrong.fault().id;
    };
    CHECK(fault("") == "file.shape");
    CHECK(fault("{\"format\": 1}\n") == "file.shape");
    CHECK(fault("{\"tape\": \"x\", \"format\": 99}\n") == "file.format");
    CHECK(fault("not json\n") == "file.json");
    std::string long_one = "{\"tape\": \"x\"}\n";
    for (std::size_t i = 0; i <= max_tape_events; ++i) long_one += "{\"cue\":\"a\"}\n";
    notices.clear();
    const auto long_read = tape_from_text(long_one, "x", notices);
    REQUIRE(long_read);
    CHECK(long_read->tape.cues.size() == max_tape_events);
    REQUIRE(notices.size() == 1);
    CHECK(notices[0].id == "file.size");
    CHECK(notices[0].place.line == static_cast<int>(max_tape_events) + 2);
}

TEST_CASE("of a flood of bad lines the first are told, and how many more there are") {
    std::string text = "{\"tape\": \"x\"}\n{\"cue\": \"a\", \"at\": 1}\n";
    for (int i = 0; i < 100000; ++i) text += "bad\n";
    Faults notices;
    const auto read = tape_from_text(text, "x", notices);
    REQUIRE(read);
    CHECK(read->tape.cues.size() == 1);
    CHECK(notices.size() == 21);
    CHECK(notices.back().message == "99980 more lines could not be used");
}

TEST_CASE("signals, cues, keys and the tape come back from a finish's file as they were") {
    Finish finish;
    finish.cues = {{"hit", 0.8, 0.2, 45}, {"calm", 0.5}};
    finish.signals = {{"hull", SignalKind::integer, 0, 250, {200, 0, 0}, "t", "of the boat"},
                      {"keeper", SignalKind::place, 0, 1, {0.25, 0.75, 0}},
                      {"in_spray", SignalKind::toggle, 0, 1, {1, 0, 0}, "", "", {"keeper", 0.3, 0.6, 0.125}}};
    finish.responses = {{"flash",
                         "path",
                         "hit",
                         {{"keys", PathKeys{{0, 0, {}, {}},
                                            {0.25, 1, {SlopeKind::level, 0}, {SlopeKind::level, 0}},
                                            {0.5, 0.5, {SlopeKind::by_hand, -2.5}, {SlopeKind::stay, 0}},
                                            {1, 0, {SlopeKind::straight, 0}, {}}}}}},
                        {"rain", "gate", "hit", {{"when", std::string("in_spray")}, {"until", std::string("calm")}}}};
    finish.tape = some_tape();
    finish.shared_dials = "harbour.dials";
    const Result<OpenedFinish> read = finish_from_text(finish_to_text(finish), "again");
    REQUIRE(read);
    CHECK(read->notices.empty());
    CHECK(read->finish == finish);
}

TEST_CASE("odd values about play become usual ones, with a notice") {
    const Result<OpenedFinish> read = finish_from_text(
        R"({"format": 1, "signals": [{"name": "a", "kind": "mood"}, {"name": "b", "range": [3, 1]},
            {"name": "c", "value": "much"}], "cues": [{"name": "h", "strength": 9, "weakest": 4}],
            "responses": [{"name": "p", "kind": "path", "settings": {"keys": [[0, 1], [1]]}}],
            "tape": [{"set": "a", "at": 1, "value": []}, {"cue": "h", "at": -3}]})",
        "odd");
    REQUIRE(read);
    CHECK(read->notices.size() == 5);
    CHECK(read->finish.cues[0].strength == 1);
    CHECK(read->finish.cues[0].weakest == 1);
    CHECK(read->finish.tape.changes.empty());
    CHECK(read->finish.tape.cues[0].at == 0);
    CHECK(read->finish.signals.size() == 3);
}

TEST_CASE("shared dials live in one file and change everywhere") {
    const test::TemporaryFolder folder;
    const std::string shared = folder.file("harbour.dials");
    Dial wind;
    wind.name = wind.code_name = "wind";
    wind.value = {0.25, 0, 0};
    wind.shared = true;
    Finish one;
    one.shared_dials = "harbour.dials";
    one.dials = {wind};
    REQUIRE(save_shared_dials(shared, shared_dials_of(one, {})));
    REQUIRE(save_finish(folder.file("one.lacquer"), one));
    Finish two = *take_shared_dial(Finish(), *load_shared_dials(shared), "wind");
    two.shared_dials = "harbour.dials";
    two.dials[0].group = "weather";
    REQUIRE(save_finish(folder.file("two.lacquer"), two));
    CHECK(two.dials[0].value[0] == 0.25);

    one.dials[0].value = {0.75, 0, 0};
    Dial own;
    own.name = "own";
    REQUIRE(save_shared_dials(shared, shared_dials_of(one, *load_shared_dials(shared))));
    const Result<OpenedFinish> again = load_finish(folder.file("two.lacquer"));
    REQUIRE(again);
    CHECK(again->notices.empty());
    CHECK(again->finish.dials[0].value[0] == 0.75);
    CHECK(again->finish.dials[0].group == "weather");  // where it stands is this finish's own

    // One that is gone from the file stays as it is, as a dial of the finish.
    REQUIRE(save_shared_dials(shared, {}));
    const Result<OpenedFinish> alone = load_finish(folder.file("two.lacquer"));
    REQUIRE(alone);
    CHECK(alone->notices.size() == 1);
    CHECK_FALSE(alone->finish.dials[0].shared);
    // The file itself missing: the values that the finish was saved with.
    std::remove(shared.c_str());
    const Result<OpenedFinish> without = load_finish(folder.file("two.lacquer"));
    REQUIRE(without);
    CHECK(without->notices.size() == 1);
    CHECK(without->finish.dials[0].value[0] == 0.25);
    CHECK_FALSE(take_shared_dial(Finish(), {}, "wind"));
    CHECK(take_shared_dial(Finish(), {}, "wind").fault().id == "edit.unknown");
}

TEST_CASE("files that hold no shared dials are refused") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("odd.dials");
    const auto fault = [&](const char* text) {
        REQUIRE(write_whole_file(path, text));
        const auto read = load_shared_dials(path);
        REQUIRE_FALSE(read);
        return read.fault().id;
    };
    CHECK(fault("{}") == "file.shape");
    CHECK(fault("[]") == "file.shape");
    CHECK(fault("{\"format\": 99, \"dials\": []}") == "file.format");
    CHECK(fault("{\"format\": 1, \"dials\": 3") == "file.json");
    CHECK(load_shared_dials(folder.file("none.dials")).fault().id == "file.missing");
}
