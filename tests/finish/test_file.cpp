#include <unistd.h>
#include <catch2/catch.hpp>

#include "core/finish/file.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::TemporaryFolder;

namespace {

// One of everything.
Finish full_finish() {
    Finish finish = test::finish_of({{"a", "uv.x * radius"}, {"b", "a + \"\\ \xC3\xA9\n1"}});
    finish.name = "Sturm \"quoted\" \xE2\x80\x93 one";
    finish.brief = "line\nline";
    finish.frame_width = 640;
    finish.length = 2.5;
    finish.grounds = {
        test::picture_ground("scene", "../x.png"),
        {"map", PictureGround{.path = "/abs.exr", .data = true, .sampling = {Wrap::mirror, Filter::nearest}}},
        test::stops_ground("dusk", StopValues::colours, {{0, {0.1, 0.2, 1.0 / 3, 0}}, {1, {4, 2, 1, 1}}}),
        test::stops_ground("swell", StopValues::heights, {{0, {0, 0, 0, 1}}, {0.25, {-2, 0, 0, 1}}})};
    finish.cues = {{"hit", 0.35}};
    finish.responses = {{"blow", "strike", "hit", {{"rest", 0.1}, {"rise_easing", std::string("ease")}}}};
    for (const DialKind kind : {DialKind::number, DialKind::integer, DialKind::toggle, DialKind::colour}) {
        Dial dial;
        dial.name = "d" + std::to_string(finish.dials.size());
        dial.code_name = "code_" + dial.name;
        dial.kind = kind;
        dial.value = kind == DialKind::colour ? DialValue{2.5, 0.1, 1.0 / 3} : DialValue{1, 0, 0};
        dial.default_value = kind == DialKind::colour ? DialValue{1, 1, 1} : DialValue{0, 0, 0};
        dial.unit = "px";
        dial.note = "note";
        dial.formula = kind == DialKind::number ? "blow" : "";
        if (kind != DialKind::toggle) dial.most = 12;
        finish.dials.push_back(dial);
    }
    finish.coats[0].folded = true;
    finish.coats[0].note = "a note";
    finish.coats[0].steps[1].on = false;
    finish.tape.cues = {{"hit", 0.25, 0.5}, {"hit", 1.5, 1}};
    return finish;
}

}  // namespace

TEST_CASE("a finish goes to text and comes back as it was") {
    const Finish finish = full_finish();
    const Result<OpenedFinish> opened = finish_from_text(finish_to_text(finish), "x");
    REQUIRE(opened);
    CHECK(opened->notices.empty());
    CHECK(opened->finish == finish);
    CHECK(finish_to_text(opened->finish) == finish_to_text(finish));
}

TEST_CASE("the text has one step a line and keys in a fixed order") {
    const std::string text = finish_to_text(full_finish());
    CHECK(text.find("\n      {\"name\": \"a\", \"formula\": \"uv.x * radius\"}") != std::string::npos);
    CHECK(text.find("\"format\": 1,\n  \"name\"") != std::string::npos);
}

TEST_CASE("keys that this version does not know are kept, at every level") {
    std::string text = finish_to_text(full_finish());
    const auto put = [&](const std::string& after, const std::string& extra) {
        const std::size_t at = text.find(after);
        REQUIRE(at != std::string::npos);
        text.insert(at + after.size(), extra);
    };
    put("\"format\": 1,", "\n\"later\": {\"x\": [1, 2.5, null]},");
    put("{\"name\": \"a\",", " \"weight\": 3,");
    put("{\"name\": \"d0\",", " \"group\": \"g\",");
    put("{\"name\": \"scene\",", " \"wrap\": \"repeat\",");
    const Result<OpenedFinish> opened = finish_from_text(text, "x");
    REQUIRE(opened);
    CHECK(opened->notices.empty());
    const std::string again = finish_to_text(opened->finish);
    for (const char* kept :
         {"\"later\": {\"x\": [1, 2.5, null]}", "\"weight\": 3", "\"group\": \"g\"", "\"wrap\": \"repeat\""}) {
        CHECK(again.find(kept) != std::string::npos);
    }
}

TEST_CASE("a wrong value becomes the usual one, and is told") {
    const Result<OpenedFinish> opened = finish_from_text(
        R"({"format": 1, "name": 7, "frame": [0, 5], "length": -1, "dials": [{"name": "x", "range": [2, 1], "increment": 0, "kind": "odd"}, 5],
            "coats": [{"steps": [{"name": "a", "formula": []}]}], "tape": {"at": 1}})",
        "file.lacquer");
    REQUIRE(opened);
    CHECK(opened->finish.name == "Untitled");
    CHECK(opened->finish.frame_width == 1280);
    CHECK(opened->finish.dials.size() == 1);
    CHECK(opened->finish.coats[0].steps[0].formula.empty());
    std::string all;
    for (const Fault& notice : opened->notices) {
        CHECK(notice.id == "file.value");
        CHECK(notice.place.where == "file.lacquer");
        all += notice.message + "\n";
    }
    for (const char* path : {"'name'", "'frame'", "'length'", "'dials[1].range'", "'dials[1].increment'",
                             "'dials[1].kind'", "'dials[2]'", "'coats[1].steps[1].formula'", "'tape'"}) {
        INFO(all);
        CHECK(all.find(path) != std::string::npos);
    }
}

TEST_CASE("saving replaces the file whole, keeps its rights and follows links") {
    const TemporaryFolder folder;
    const std::string path = folder.file("a.lacquer");
    test::write_file(path, "old");
    std::filesystem::permissions(path, std::filesystem::perms::owner_read | std::filesystem::perms::owner_write |
                                           std::filesystem::perms::group_read);
    std::filesystem::create_symlink(path, folder.file("link.lacquer"));
    REQUIRE(save_finish(folder.file("link.lacquer"), full_finish()));
    CHECK(std::filesystem::is_symlink(folder.file("link.lacquer")));
    CHECK(load_finish(path)->finish == full_finish());
    const auto rights = std::filesystem::status(path).permissions();
    CHECK(rights == (std::filesystem::perms::owner_read | std::filesystem::perms::owner_write |
                     std::filesystem::perms::group_read));
    std::size_t files = 0;
    for ([[maybe_unused]] const auto& entry : std::filesystem::directory_iterator(folder.path())) ++files;
    CHECK(files == 2);
}

TEST_CASE("saving to a full or forbidden place keeps the old file and says so") {
    const TemporaryFolder folder;
    const Result<Done> missing = save_finish(folder.file("no/such/folder/a.lacquer"), full_finish());
    REQUIRE_FALSE(missing);
    CHECK(missing.fault().id == "file.unwritable");
    // A limit on file size stands in for a full disk; root may write anywhere, so rights would prove nothing.
    const std::string path = folder.file("a.lacquer");
    REQUIRE(save_finish(path, full_finish()));
    const std::string before = test::read_file(path);
    const auto full = test::run_command("bash -c 'ulimit -f 0; trap \"\" XFSZ; \"" + test::program_folder() +
                                        "/lacquer-cli\" render \"" + test::demo_path() + "\" --size 8x8 -o \"" +
                                        folder.file("x.png") + "\"'");
    CHECK(full.code == 1);
    CHECK(full.output.find("cannot be written") != std::string::npos);
    CHECK_FALSE(std::filesystem::exists(folder.file("x.png")));
    const Result<Done> device = save_finish("/dev/full/x.lacquer", full_finish());
    CHECK_FALSE(device);
    CHECK(test::read_file(path) == before);
}

TEST_CASE("picture paths are kept as seen from the finish") {
    CHECK(picture_path("/a/b/x.lacquer", "../p.png") == "/a/p.png");
    CHECK(picture_path("/a/b/x.lacquer", "/q/p.png") == "/q/p.png");
    CHECK(picture_path("", "p.png") == "p.png");
    CHECK(stored_picture_path("/a/b/x.lacquer", "/a/p.png") == "../p.png");
    CHECK(stored_picture_path("/a/b/c/d/e/x.lacquer", "/q/p.png") == "/q/p.png");
    CHECK(picture_path("/a/b/x.lacquer", stored_picture_path("/a/b/x.lacquer", "/a/c/p.png")) == "/a/c/p.png");
}

TEST_CASE("words that earlier files had are read as those of today") {
    const auto opened = finish_from_text(R"({"format": 1, "name": "Old", "frame": [64, 36], "length": 1,
        "grounds": [{"name": "tones", "curve": [[0, 0, "hold"], [1, 1]], "between": "hold"}],
        "responses": [
            {"name": "shake", "kind": "jolt", "settings": {"dying": "by_shares"}},
            {"name": "stiff", "kind": "jolt", "settings": {"dying": "straight"}},
            {"name": "swing", "kind": "wave", "settings": {"shape": "size_of_sine"}},
            {"name": "lag", "kind": "chase", "settings": {"way": "evenly"}}]})",
                                         "old");
    REQUIRE(opened);
    CHECK(opened->notices.empty());
    const auto word = [&](std::size_t response, const char* setting) {
        return std::get<std::string>(opened->finish.responses.at(response).settings.at(setting));
    };
    CHECK(word(0, "decay_form") == "exponential");
    CHECK(word(1, "decay_form") == "linear");
    CHECK(word(2, "shape") == "absolute_sine");
    CHECK(word(3, "way") == "linear");
    const Stops& stops = opened->finish.grounds.at(0).as<CurveGround>()->stops;
    CHECK(stops.list.at(0).easing == "stay");
    CHECK(stops.between == StopMix::hold);
    CHECK(finish_to_text(opened->finish).find("hold") == std::string::npos);
}
