#include <sys/stat.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <stdexcept>
#include <thread>

#include "core/base/file.h"
#include "core/base/guarded.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::TemporaryFolder;

TEST_CASE("what is written whole is read whole, whatever the bytes") {
    const TemporaryFolder folder;
    std::string bytes;
    for (int i = 0; i < 100000; ++i) bytes += static_cast<char>(i * 31);
    REQUIRE(write_whole_file(folder.file("a"), bytes));
    CHECK(*read_whole_file(folder.file("a"), 1 << 20) == bytes);
    REQUIRE(write_whole_file(folder.file("a"), ""));
    CHECK(read_whole_file(folder.file("a"), 10)->empty());
}

TEST_CASE("a file larger than asked for is refused, not cut") {
    const TemporaryFolder folder;
    test::write_file(folder.file("a"), std::string(1001, 'x'));
    CHECK(read_whole_file(folder.file("a"), 1001));
    CHECK(read_whole_file(folder.file("a"), 1000).fault().id == "file.size");
}

TEST_CASE("a new file gets the rights that the user's mask leaves") {
    const TemporaryFolder folder;
    const mode_t before = umask(027);
    REQUIRE(write_whole_file(folder.file("a"), "x"));
    umask(before);
    struct stat made {};
    REQUIRE(stat(folder.file("a").c_str(), &made) == 0);
    CHECK((made.st_mode & 0777U) == 0640U);
}

TEST_CASE("a failed write leaves the old file and no other") {
    const TemporaryFolder folder;
    const std::string inner = folder.file("folder");
    std::filesystem::create_directory(inner);
    // A folder cannot be replaced by a file: the last step fails, and the temporary file goes.
    const Result<Done> done = write_whole_file(inner, "x");
    REQUIRE_FALSE(done);
    CHECK(done.fault().id == "file.unwritable");
    CHECK(done.fault().place.where == inner);
    CHECK(std::filesystem::is_directory(inner));
    std::size_t entries = 0;
    for ([[maybe_unused]] const auto& entry : std::filesystem::directory_iterator(folder.path())) ++entries;
    CHECK(entries == 1);
}

TEST_CASE("a pipe, a device and a folder are no files, and none of them is waited for") {
    const TemporaryFolder folder;
    REQUIRE(mkfifo(folder.file("pipe").c_str(), 0600) == 0);
    CHECK(read_whole_file(folder.file("pipe"), 10).fault().id == "file.unreadable");
    CHECK(read_whole_file("/dev/zero", 10).fault().id == "file.unreadable");
    CHECK(read_whole_file(folder.path().string(), 10).fault().id == "file.unreadable");
    CHECK(read_whole_file(folder.file("none"), 10).fault().id == "file.missing");
    std::filesystem::create_symlink(folder.file("round"), folder.file("round"));
    CHECK(read_whole_file(folder.file("round"), 10).fault().id == "file.unreadable");
}

TEST_CASE("only plain files are replaced; output goes to devices and pipes as they are") {
    const TemporaryFolder folder;
    CHECK(write_whole_file("/dev/null", "x").fault().id == "file.unwritable");
    CHECK(std::filesystem::is_character_file("/dev/null"));
    REQUIRE(write_output("/dev/null", "x"));
    CHECK(std::filesystem::is_character_file("/dev/null"));
    REQUIRE(mkfifo(folder.file("pipe").c_str(), 0600) == 0);
    std::string got;
    std::thread reader([&] { got = test::read_file(folder.file("pipe")); });
    const Result<Done> done = write_output(folder.file("pipe"), "through");
    reader.join();
    REQUIRE(done);
    CHECK(got == "through");
    CHECK(std::filesystem::is_fifo(folder.file("pipe")));
    CHECK_FALSE(write_output("/dev/full", "x"));
}

TEST_CASE("a link that leads nowhere yet stays a link, and the longest of names can be written") {
    const TemporaryFolder folder;
    std::filesystem::create_symlink("later", folder.file("link"));
    REQUIRE(write_whole_file(folder.file("link"), "x"));
    CHECK(std::filesystem::is_symlink(folder.file("link")));
    CHECK(test::read_file(folder.file("later")) == "x");
    const std::string longest(255, 'n');
    REQUIRE(write_whole_file(folder.file(longest), "x"));
    CHECK(test::read_file(folder.file(longest)) == "x");
}

TEST_CASE("a file's stamp is another when somebody has written it") {
    const TemporaryFolder folder;
    CHECK_FALSE(stamp_of(folder.file("a")));
    REQUIRE(write_whole_file(folder.file("a"), "one"));
    const auto first = stamp_of(folder.file("a"));
    CHECK(first == stamp_of(folder.file("a")));
    REQUIRE(write_whole_file(folder.file("a"), "two"));
    CHECK(first != stamp_of(folder.file("a")));
}

TEST_CASE("what is thrown behind a library's edge comes out as a fault") {
    const auto of = [](auto thrown) { return guarded([&]() -> Result<Done> { throw thrown; }); };
    CHECK(of(std::bad_alloc()).fault().id == "base.memory");
    CHECK(of(std::runtime_error("odd")).fault().id == "base.unexpected");
    CHECK(of(std::runtime_error("odd")).fault().message.find("odd") != std::string::npos);
    CHECK(of(7).fault().id == "base.unexpected");
    CHECK(guarded([]() -> Result<int> { return 3; }));
}
