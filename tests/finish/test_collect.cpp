// A finish and all its files in one folder.
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/base/file.h"
#include "core/finish/collect.h"
#include "core/finish/file.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

Ground picture(const char* name, const std::string& path) { return {name, PictureGround{.path = path}}; }

std::string text_of(const std::string& path) {
    const Result<std::string> read = read_whole_file(path, 1024);
    return read ? *read : "nothing";
}

}  // namespace

TEST_CASE("collecting copies every file once, and files of one name apart") {
    const test::TemporaryFolder folder;
    std::filesystem::create_directories(folder.path() / "one");
    std::filesystem::create_directories(folder.path() / "two");
    test::write_file(folder.file("one/rock.png"), "first");
    test::write_file(folder.file("two/rock.png"), "second");
    Finish finish = test::finish_of({{"a", "rock"}});
    finish.name = "Low tide";
    finish.grounds = {picture("rock", "one/rock.png"), picture("other", "two/rock.png"),
                      picture("again", "one/rock.png"), picture("gone", "nowhere.png")};
    const std::string own = folder.file("own.lacquer");
    REQUIRE(save_finish(own, finish));
    double last = 0;
    const auto done = collect(finish, own, folder.file("there"), Cancel(), [&](double share) {
        CHECK(share >= last);
        last = share;
    });
    REQUIRE(done);
    CHECK(last == 1);
    CHECK(done->copied == 2);
    CHECK(done->missing == std::vector<std::string>{"nowhere.png"});
    const auto opened = load_finish(done->path);
    REQUIRE(opened);
    const auto path_at = [&](std::size_t i) { return opened->finish.grounds[i].as<PictureGround>()->path; };
    CHECK(text_of(picture_path(done->path, path_at(0))) == "first");
    CHECK(text_of(picture_path(done->path, path_at(1))) == "second");
    CHECK(path_at(2) == path_at(0));
    CHECK(path_at(3) == "nowhere.png");
    // It can be carried elsewhere: nothing in it names where it came from.
    CHECK(path_at(0).find(folder.path().string()) == std::string::npos);
    // The finish itself is untouched, and nothing is replaced.
    CHECK(load_finish(own)->finish == finish);
    const auto twice = collect(finish, own, folder.file("there"), Cancel(), nullptr);
    REQUIRE_FALSE(twice);
    CHECK(twice.fault().id == "file.exists");
}

TEST_CASE("collecting can be stopped, and tells of a folder that cannot be made") {
    const test::TemporaryFolder folder;
    test::write_file(folder.file("rock.png"), "rock");
    test::write_file(folder.file("plain"), "a file");
    Finish finish = test::finish_of({{"a", "rock"}});
    finish.grounds = {picture("rock", "rock.png")};
    Cancel cancel;
    cancel.request();
    const auto stopped = collect(finish, folder.file("own.lacquer"), folder.file("there"), cancel, nullptr);
    REQUIRE_FALSE(stopped);
    CHECK(stopped.fault().id == "file.stopped");
    const auto nowhere = collect(finish, folder.file("own.lacquer"), folder.file("plain/there"), Cancel(), nullptr);
    REQUIRE_FALSE(nowhere);
    CHECK(nowhere.fault().id == "file.unwritable");
}
