#include <sys/stat.h>

#include <catch2/catch.hpp>

#include "core/base/file.h"
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
