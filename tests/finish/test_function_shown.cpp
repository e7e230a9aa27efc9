// Pictures of built-in functions.
#include <catch2/catch.hpp>
#include <set>

#include "core/finish/function_shown.h"
#include "core/finish/shown.h"
#include "tests/support/finishes.h"

using namespace lacquer;

TEST_CASE("every function that is shown draws a picture with something in it") {
    int shown = 0;
    for (const BuiltinRow& row : builtin_rows()) {
        const std::string formula = shown_formula(row);
        if (formula.empty()) continue;
        INFO(formula);
        const Finish finish = finish_on_samples(formula);
        const auto checked = test::checked(finish);
        const CheckedStep* step = find_step(*checked, "shown");
        if (step->fault) FAIL(to_text(*step->fault));
        const Picture picture = test::draw(finish, "shown", 32, 18).picture;
        const std::set<float> values(picture.data.begin(), picture.data.end());
        CHECK(values.size() > 2);
        ++shown;
    }
    CHECK(shown > 50);
}
