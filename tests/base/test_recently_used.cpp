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
    table.put(6, "g", 5);
    table.set_budget(5);
    CHECK(table.find(5) == nullptr);
    CHECK(*table.find(6) == "g");
}
