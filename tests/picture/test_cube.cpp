// Cube tables: the format as its published description has it, red changing fastest.
#include <fmt/core.h>

#include <catch2/catch.hpp>

#include "core/picture/cube.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

std::string fault_of(const std::string& text) {
    const auto table = cube_from_text(text, "x.cube");
    REQUIRE_FALSE(table);
    CHECK(table.fault().id == "picture.cube");
    return table.fault().message;
}

}  // namespace

TEST_CASE("a table of three dimensions: red fastest, then green, then blue") {
    std::string text =
        "# made by a test\nTITLE \"Storm light\"\nLUT_3D_SIZE 3\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 1.0 1.0 1.0\n\n";
    for (int b = 0; b < 3; ++b) {
        for (int g = 0; g < 3; ++g) {
            for (int r = 0; r < 3; ++r) text += fmt::format("{} {} {}\r\n", r * 0.5, g * 0.25, b * 0.125);
        }
    }
    const auto table = cube_from_text(text, "x.cube");
    REQUIRE(table);
    CHECK(table->title == "Storm light");
    CHECK(table->three);
    CHECK(table->size == 3);
    CHECK(table->picture.width == 9);
    CHECK(table->picture.height == 3);
    for (int b = 0; b < 3; ++b) {
        for (int g = 0; g < 3; ++g) {
            for (int r = 0; r < 3; ++r) {
                const float* entry = table->picture.at(b * 3 + r, g);
                CHECK(entry[0] == static_cast<float>(r) * 0.5F);
                CHECK(entry[1] == static_cast<float>(g) * 0.25F);
                CHECK(entry[2] == static_cast<float>(b) * 0.125F);
                CHECK(entry[3] == 1);
            }
        }
    }
}

TEST_CASE("a table of one dimension, with words that only some programs know") {
    const auto table = cube_from_text("LUT_1D_SIZE 2\nLUT_IN_VIDEO_RANGE\n0 0.1 +0.2\n1e0 2.5 -1", "x.cube");
    REQUIRE(table);
    CHECK_FALSE(table->three);
    CHECK(table->picture.width == 2);
    CHECK(table->picture.at(0, 0)[2] == 0.2F);
    CHECK(table->picture.at(1, 0)[1] == 2.5F);
}

TEST_CASE("colours that a table was made for stand in a row below it") {
    const auto row = cube_from_text("LUT_1D_SIZE 2\nDOMAIN_MIN -1 0 0\nDOMAIN_MAX 1 4 8\n0 0 0\n1 2 3", "x.cube");
    REQUIRE(row);
    CHECK(row->picture.height == 2);
    CHECK(row->picture.at(1, 0)[2] == 3);
    CHECK(row->picture.at(0, 1)[0] == -1);
    CHECK(row->picture.at(1, 1)[1] == 4);
    const auto four = cube_from_text("LUT_1D_SIZE 4\nDOMAIN_MAX 2 2 2\n0 0 0\n1 1 1\n4 4 4\n9 9 9", "x.cube");
    REQUIRE(four);
    CHECK(four->picture.width == 7);
    CHECK(four->picture.at(3, 0)[0] == 2.5F);
    CHECK(four->picture.at(6, 0)[0] == 9);
}

TEST_CASE("what is wrong with a table is said, with its line") {
    CHECK(fault_of("").find("SIZE") != std::string::npos);
    CHECK(fault_of("0 0 0\n").find("before its size (line 1)") != std::string::npos);
    CHECK(fault_of("LUT_3D_SIZE 2\n0 0 0\n").find("1 entries and should have 8") != std::string::npos);
    CHECK(fault_of("LUT_1D_SIZE 2\n0 0 0\n1 1 1\n1 1 1\n").find("more entries") != std::string::npos);
    CHECK(fault_of("LUT_3D_SIZE 1000000\n").find("from 2 to 129") != std::string::npos);
    CHECK(fault_of("LUT_3D_SIZE 2.5\n").find("whole number") != std::string::npos);
    CHECK(fault_of("LUT_1D_SIZE 2\nLUT_3D_SIZE 2\n").find("twice") != std::string::npos);
    CHECK(fault_of("LUT_1D_SIZE 2\n0 0\n").find("three numbers (line 2)") != std::string::npos);
    CHECK(fault_of("LUT_1D_SIZE 2\n0 nan 0\n").find("three numbers") != std::string::npos);
    CHECK(fault_of("LUT_1D_SIZE 2\nDOMAIN_MAX 1\n").find("domain") != std::string::npos);
    CHECK(fault_of("LUT_1D_SIZE 2\nDOMAIN_MAX 1 0 1\n0 0 0\n1 1 1\n").find("should rise") != std::string::npos);
    CHECK(fault_of("LUT_1D_SIZE 2\n0 1e300 0\n").find("three numbers") != std::string::npos);
    CHECK(fault_of(std::string("\0\1\2\xff\n", 5)).find("SIZE") != std::string::npos);
}

TEST_CASE("tables in files, and files that are none") {
    const test::TemporaryFolder folder;
    test::write_file(folder.file("a.cube"), "LUT_1D_SIZE 2\n0 0 0\n1 1 1\n");
    CHECK(read_cube(folder.file("a.cube")));
    CHECK(read_cube(folder.file("b.cube")).fault().id == "picture.missing");
    CHECK(read_cube(folder.path().string()).fault().id == "picture.unreadable");
}

TEST_CASE("one range of input for all three parts is a domain") {
    for (const std::string kind : {"1", "3"}) {
        std::string text = "LUT_" + kind + "D_SIZE 2\nLUT_" + kind + "D_INPUT_RANGE -0.5 4.0\n";
        for (int i = 0; i < (kind == "1" ? 2 : 8); ++i) text += "0 0.5 1\n";
        const auto table = cube_from_text(text, "x.cube");
        REQUIRE(table);
        CHECK(table->least == std::array<float, 3>{-0.5F, -0.5F, -0.5F});
        CHECK(table->most == std::array<float, 3>{4, 4, 4});
    }
    CHECK(fault_of("LUT_3D_SIZE 2\nLUT_3D_INPUT_RANGE 0\n").find("two numbers") != std::string::npos);
    CHECK(fault_of("LUT_1D_SIZE 2\nLUT_1D_INPUT_RANGE 1 0\n0 0 0\n1 1 1\n").find("should rise") != std::string::npos);
}
