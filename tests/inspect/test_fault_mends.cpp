// Repairs for what the language complains of.
#include <catch2/catch.hpp>

#include "core/inspect/inspection.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// The words of all mends of the last step's fault; each is taken and must leave the step without one.
std::vector<std::string> mends(const Finish& finish, const std::string& step) {
    const auto checked = test::checked(finish);
    const CheckedStep* found = find_step(*checked, step);
    REQUIRE(found->fault);
    std::vector<std::string> words;
    for (const Mend& mend : mends_of_fault(*checked, step, *found->fault)) {
        words.push_back(mend.words);
        const Result<Finish> after = mend.apply(finish);
        REQUIRE(after);
        INFO(mend.words);
        CHECK_FALSE(find_step(*test::checked(*after), step)->fault);
    }
    return words;
}

bool has(const std::vector<std::string>& all, const std::string& one) {
    return std::find(all.begin(), all.end(), one) != all.end();
}

}  // namespace

TEST_CASE("numbers of different widths can be mixed after one click") {
    const auto one = mends(test::finish_of({{"spray", "uv"}, {"rim", "mix(vec4(1), vec4(0), spray)"}}), "rim");
    CHECK(has(one, "write spray.x"));
    CHECK(has(one, "write length(spray)"));
    CHECK_FALSE(mends(test::finish_of({{"a", "uv"}, {"b", "vec3(1)"}, {"c", "a * b"}}), "c").empty());
}

TEST_CASE("a name that is nearly right is put right") {
    CHECK(has(mends(test::finish_of({{"spray", "uv"}, {"rim", "spry.x"}}), "rim"), "use spray"));
    CHECK(has(mends(test::finish_of({{"rim", "smothstep(0.0, 1.0, uv.x)"}}), "rim"), "use smoothstep"));
}

TEST_CASE("a step that names one further down is moved below it") {
    CHECK(has(mends(test::finish_of({{"rim", "spray.x"}, {"spray", "uv"}}), "rim"), "move it below spray"));
}

TEST_CASE("where nothing helps nothing is offered") {
    CHECK(mends(test::finish_of({{"rim", "1 +"}}), "rim").empty());
    CHECK(mends(test::finish_of({{"rim", "zzzzqqq"}}), "rim").empty());
}
