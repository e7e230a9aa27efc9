// Source: M. Jarzynski and M. Olano, "Hash Functions for GPU Rendering", JCGT 9(3), 2020. The values are the listings'
// formulas, evaluated from memory.
#include <catch2/catch.hpp>

#include "core/base/hash.h"
#include "tests/support/finishes.h"

using namespace lacquer;

TEST_CASE("pcg gives the listing's values") {
    CHECK(pcg(0) == 129708002U);
    CHECK(pcg(1) == 2831084092U);
    CHECK(pcg(2) == 2055130248U);
    CHECK(pcg(0xffffffffU) == 3861530882U);
}

TEST_CASE("pcg3d gives the listing's values") {
    CHECK(pcg3d({0, 0, 0}) == std::array<std::uint32_t, 3>{2611992518U, 2833812075U, 1058359340U});
    CHECK(pcg3d({1, 2, 3}) == std::array<std::uint32_t, 3>{4204755366U, 1223881804U, 1500469937U});
}

TEST_CASE("the strip machine's hashes are these very words") {
    const DrawnStep one = test::draw(test::finish_of({{"a", "hash(pixel.x)"}}), "a", 3, 1);
    for (std::uint32_t x = 0; x < 3; ++x) CHECK(one.picture.data[x] == unit_from_hash(pcg(x)));
    const DrawnStep three = test::draw(test::finish_of({{"a", "hash3(vec3(1, 2, 3))"}}), "a", 1, 1);
    CHECK(three.picture.data[0] == unit_from_hash(4204755366U));
    CHECK(three.picture.data[1] == unit_from_hash(1223881804U));
    CHECK(three.picture.data[2] == unit_from_hash(1500469937U));
}
