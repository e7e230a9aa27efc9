// Files that are not where a finish says.
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/finish/file.h"
#include "core/finish/find_pictures.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

Finish reading(const std::vector<std::string>& paths) {
    Finish finish = test::finish_of({{"a", "uv.x"}});
    for (const std::string& path : paths) {
        finish.grounds.push_back(test::picture_ground("p" + std::to_string(finish.grounds.size()), path));
    }
    return finish;
}

void put(const test::TemporaryFolder& folder, const std::string& name) {
    std::filesystem::create_directories(std::filesystem::path(folder.file(name)).parent_path());
    test::write_file(folder.file(name), "x");
}

}  // namespace

TEST_CASE("what is there is left alone, and what is missing is named once") {
    const test::TemporaryFolder folder;
    put(folder, "here.png");
    const Finish finish = reading({"here.png", "gone.png", "gone.png", ""});
    const std::string path = folder.file("f.lacquer");
    CHECK(missing_files(finish, path) == std::vector<std::string>{"gone.png"});
    CHECK(find_by_name(finish, path, folder_of(path)).finish == finish);
}

TEST_CASE("a file of the same name is found in folders below, whatever their names hold") {
    const test::TemporaryFolder folder;
    put(folder, "new place 'ü'/sprites/crab.png");
    const std::string path = folder.file("f.lacquer");
    const Finish finish = reading({"/old/computer/crab.png"});
    const FoundFiles found = find_by_name(finish, path, folder_of(path));
    REQUIRE(found.moved.size() == 1);
    CHECK(found.finish.grounds[0].as<PictureGround>()->path == "new place 'ü'/sprites/crab.png");
    CHECK(missing_files(found.finish, path).empty());
}

TEST_CASE("of several the one whose folders agree most is taken") {
    const test::TemporaryFolder folder;
    for (const char* name : {"a/crab.png", "b/day/crab.png", "b/night/crab.png"}) put(folder, name);
    const std::string path = folder.file("f.lacquer");
    const FoundFiles found = find_by_name(reading({"/old/night/crab.png"}), path, folder_of(path));
    CHECK(found.finish.grounds.at(0).as<PictureGround>()->path == "b/night/crab.png");
}

TEST_CASE("links to folders are not followed, and a folder that is not there holds nothing") {
    const test::TemporaryFolder folder;
    const test::TemporaryFolder other;
    put(other, "crab.png");
    std::filesystem::create_directory_symlink(other.path(), folder.file("link"));
    const std::string path = folder.file("f.lacquer");
    CHECK(find_by_name(reading({"crab.png"}), path, folder_of(path)).moved.empty());
    CHECK(find_by_name(reading({"crab.png"}), path, folder.file("nowhere")).moved.empty());
    CHECK(find_by_name(reading({"crab.png"}), "", "").moved.empty());
}

TEST_CASE("parts of a sprite and captures are found, too") {
    const test::TemporaryFolder folder;
    put(folder, "in/shell.png");
    put(folder, "in/shot.exr");
    Finish finish = reading({});
    finish.grounds = {{"crab", SpriteGround{.parts = {{"shell", "shell.png", "", "", 0, 0, 1, 1}}}},
                      {"shot", CaptureGround{"elsewhere/shot.exr"}}};
    const std::string path = folder.file("f.lacquer");
    const FoundFiles found = find_by_name(finish, path, folder_of(path));
    CHECK(found.finish.grounds[0].as<SpriteGround>()->parts[0].path == "in/shell.png");
    CHECK(found.finish.grounds[1].as<CaptureGround>()->path == "in/shot.exr");
}
