// Gradients and curves as tables; the values are hand-worked.
#include <catch2/catch.hpp>

#include "core/picture/sample.h"
#include "core/picture/table.h"

using namespace lacquer;

namespace {

float height_at(const Picture& table, float t) { return sample(view_of(table), table_place(t), 0.5F)[0]; }

}  // namespace

TEST_CASE("a table has its ends exactly and goes straight between its stops") {
    const Picture table = table_of({{0, {2, 0, 0, 1}}, {1, {4, 0, 0, 1}}});
    CHECK(height_at(table, 0) == 2.0F);
    CHECK(height_at(table, 1) == 4.0F);
    CHECK(height_at(table, 0.5F) == Approx(3).margin(1e-5));
    CHECK(height_at(table, 0.123F) == Approx(2.246).margin(1e-5));
    CHECK(height_at(table, -7) == 2.0F);
    CHECK(height_at(table, 7) == 4.0F);
}

TEST_CASE("beyond its outermost stops a table stays, and stops may come in any order") {
    const Picture table = table_of({{0.75, {1, 0, 0, 0.5}}, {0.25, {3, 0, 0, 0.5}}});
    CHECK(height_at(table, 0) == 3.0F);
    CHECK(height_at(table, 1) == 1.0F);
    CHECK(height_at(table, 0.5F) == Approx(2).margin(1e-4));
    CHECK(table.at(500, 0)[3] == 0.5F);
}

TEST_CASE("two stops at one place make an edge") {
    const Picture table = table_of({{0, {1, 0, 0, 1}}, {0.5, {1, 0, 0, 1}}, {0.5, {9, 0, 0, 1}}, {1, {9, 0, 0, 1}}});
    CHECK(height_at(table, 0.499F) == 1.0F);
    CHECK(height_at(table, 0.501F) == 9.0F);
}

TEST_CASE("a table without stops is black") {
    const Picture table = table_of({});
    CHECK(table.at(0, 0)[0] == 0.0F);
    CHECK(table.at(table_width - 1, 0)[3] == 1.0F);
}
