#include <catch2/catch.hpp>

#include "core/base/text.h"

using namespace lacquer;

TEST_CASE("an identifier is lower-case, starts with a letter and has at most 24 characters") {
    CHECK(is_identifier("spray_size"));
    CHECK(is_identifier("a2"));
    CHECK_FALSE(is_identifier(""));
    CHECK_FALSE(is_identifier("2a"));
    CHECK_FALSE(is_identifier("Spray"));
    CHECK_FALSE(is_identifier("spray size"));
    CHECK(is_identifier(std::string(24, 'a')));
    CHECK_FALSE(is_identifier(std::string(25, 'a')));
}

TEST_CASE("what is typed as a name becomes an identifier, and is shown with blanks") {
    CHECK(identifier_from("Spray size") == "spray_size");
    CHECK(identifier_from("  2nd rim! ") == "nd_rim");
    CHECK(identifier_from("???").empty());
    CHECK(is_identifier(identifier_from(std::string(60, 'x'))));
    CHECK(shown_name("spray_size") == "spray size");
}

TEST_CASE("the nearest name is found if it is near") {
    const std::vector<std::string> names = {"radius", "softness", "rim"};
    CHECK(nearest_name("radios", names) == "radius");
    CHECK(nearest_name("rm", names) == "rim");
    CHECK_FALSE(nearest_name("lighthouse", names));
    CHECK_FALSE(nearest_name(std::string(100000, 'r'), names));
}

TEST_CASE("numbers are written short and read back as they were") {
    CHECK(shortest_number(0.1) == "0.1");
    CHECK(shortest_number(1e300) == "1e+300");
    for (const double number : {0.0, 1.0 / 3, -2.5e-7, 123456789.125})
        CHECK(parse_number(shortest_number(number)) == number);
    CHECK(plain_number(0.5, 3) == "0.5");
    CHECK(plain_number(-0.0001, 2) == "0");
    CHECK(plain_number(14, 1) == "14");
    CHECK_FALSE(parse_number("1.5x"));
    CHECK_FALSE(parse_number(""));
    CHECK_FALSE(parse_number("inf"));
    CHECK(parse_number(" +2 ") == 2.0);
}

TEST_CASE("counts go with their word") {
    CHECK(counted(1, "step") == "1 step");
    CHECK(counted(2, "step") == "2 steps");
    CHECK(counted(0, "pass", "passes") == "0 passes");
}
