// Headers with widths, and widths that nobody need say.
#include <catch2/catch.hpp>

#include "core/finish/edits.h"
#include "core/finish/ticked_edits.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::checked;
using test::finish_of;

TEST_CASE("a header says a step's name and how many numbers it has") {
    const Finish finish = finish_of({{"flow", "1"}, {"seen", "flow + previous(flow)"}});
    const Result<Finish> said = set_header(finish, "flow", "Slow smoke : 4");
    REQUIRE(said);
    const Step* step = find_step(*said, "slow_smoke");
    REQUIRE(step != nullptr);
    CHECK(step->ticking.width == 4);
    CHECK(header_text(*step) == "slow smoke: 4");
    CHECK(said->coats[0].steps[1].formula == "slow_smoke + previous(slow_smoke)");
    const Result<Finish> unsaid = set_header(*said, "slow_smoke", "slow smoke");
    REQUIRE(unsaid);
    CHECK(find_step(*unsaid, "slow_smoke")->ticking.width == 0);
    for (const char* wrong : {"flow: 5", "flow: 0", "flow:", "flow: 12", "flow: x"}) {
        INFO(wrong);
        const Result<Finish> refused = set_header(finish, "flow", wrong);
        REQUIRE_FALSE(refused);
        CHECK(refused.fault().id == "edit.width");
    }
    CHECK_FALSE(set_header(finish, "flow", ": 2"));
}

TEST_CASE("what a formula asks of the last tick is given the fewest numbers that fit") {
    const auto width_after = [](const std::vector<std::pair<std::string, std::string>>& steps, const char* asks,
                                const char* named) {
        const Finish declared = declare_past(*checked(finish_of(steps)), asks);
        return find_step(declared, named)->ticking.width;
    };
    CHECK(width_after({{"flow", "previous(flow) * 0.9 + 0.1"}}, "flow", "flow") == 1);
    CHECK(width_after({{"flow", "previous(flow) * 0.9 + uv"}}, "flow", "flow") == 2);
    CHECK(width_after({{"flow", "gaussian_blur(previous(flow), 2)"}}, "flow", "flow") == 1);
    CHECK(width_after({{"a", "previous(flow) * 2"}, {"flow", "vec3(a)"}}, "a", "flow") == 3);
    CHECK(width_after({{"a", "previous(flow).rgb"}, {"flow", "vec4(a, 1)"}}, "a", "flow") == 3);
    CHECK(width_after({{"flow", "previous(flow) + nothing"}}, "flow", "flow") == 0);
    CHECK(width_after({{"flow", "uv"}}, "flow", "flow") == 0);
}
