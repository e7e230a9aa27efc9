#include <catch2/catch.hpp>

#include <string>

#include "core/base/recently_used.h"

using namespace lacquer;

TEST_CASE("what was used last is kept within the budget") {
    RecentlyUsed<int, std::string> table(10);
    table.put(1, "a", 4);
    table.put(2, "b", 4);
    REQUIRE(table.find(1) != nullptr);
    table.put(3, "c", 4);
    CHECK(table.find(2) == nullptr);
    CHECK(*table.find(1) == "a");
    CHECK(table.cost() == 8);
    // What is put in stays, whatever it costs.
    CHECK(table.put(4, "d", 100) == "d");
    CHECK(table.size() == 1);
    table.put(4, "e", 1);
    CHECK(*table.find(4) == "e");
    CHECK(table.cost() == 1);
    table.put(5, "f", 1);
    table.drop_if([](const std::string& value) { return value == "e"; });
    CHECK(table.find(4) == nullptr);
    CHECK(*table.find(5) == "f");
    CHECK(table.cost() == 1);
    CHECK(table.holds(5));
    CHECK_FALSE(table.holds(4));
}

TEST_CASE("what may go does, the longest unused first, until the rest is small enough") {
    RecentlyUsed<int, std::string> table(100);
    for (const auto& [key, value] : {std::pair(1, "held"), {2, "old"}, {3, "held"}, {4, "new"}})
        table.put(key, value, 10);
    const auto loose = [](const std::string& value) { return value != "held"; };
    table.shrink_to(40, loose);
    CHECK(table.size() == 4);
    table.shrink_to(39, loose);
    CHECK_FALSE(table.holds(2));
    CHECK(table.size() == 3);
    table.shrink_to(0, loose);
    CHECK_FALSE(table.holds(4));
    CHECK(table.holds(1));
    CHECK(table.holds(3));
    CHECK(table.cost() == 20);
}
