// Every operation, applied to the step at hand.
#include <catch2/catch.hpp>

#include "core/finish/try_on.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::finish_of;

namespace {

Finish small_finish() {
    Finish finish =
        finish_of({{"mask", "length(uv - 0.5)"}, {"push_by", "uv * 0.1"}, {"picture", "scene"}, {"last", "mask * 2"}});
    finish.grounds.push_back(test::picture_ground("scene", "none.png"));
    return finish;
}

const TryOn& of(const std::vector<TryOn>& all, const std::string& operation) {
    for (const TryOn& tried : all) {
        if (tried.operation == operation) return tried;
    }
    FAIL("no " + operation);
    return all.front();
}

}  // namespace

TEST_CASE("every operation of the catalogue can be tried on a mask, on places and on a picture") {
    const auto checked = test::checked(small_finish());
    for (const char* step : {"mask", "push_by", "picture"}) {
        const auto all = try_on(*checked, step, TryOnUse::add_below);
        CHECK(all.size() == built_in_catalogue()->operations.size());
        for (const TryOn& tried : all) {
            INFO(step << " " << tried.formula << " " << tried.why_not);
            CHECK(tried.fits);
        }
    }
}

TEST_CASE("the step fills the argument that it suits, others their defaults or what stands nearest") {
    const auto checked = test::checked(small_finish());
    const auto on_mask = try_on(*checked, "last", TryOnUse::add_below);
    CHECK(of(on_mask, "threshold").formula == "threshold(last)");
    CHECK(of(on_mask, "blur_by_mask").formula == "blur_by_mask(scene, last)");
    const auto on_places = try_on(*checked, "push_by", TryOnUse::add_below);
    CHECK(of(on_places, "polar").formula == "polar(push_by)");
    const auto on_picture = try_on(*checked, "picture", TryOnUse::add_below);
    CHECK(of(on_picture, "polar").formula == "texture(picture, polar())");
    CHECK(of(on_picture, "gaussian_blur").formula == "gaussian_blur(picture)");
}

TEST_CASE("in another operation's place, arguments that mean the same carry over") {
    Finish finish = small_finish();
    finish.coats[0].steps[2].formula = "gaussian_blur(scene, 12)";
    const auto all = try_on(*test::checked(finish), "picture", TryOnUse::replace);
    const TryOn& blur = of(all, "blur_by_mask");
    CHECK(blur.formula.starts_with("blur_by_mask(scene, "));
    CHECK(of(all, "gaussian_blur").formula == "gaussian_blur(scene, 12)");
    CHECK(of(all, "disc_blur").formula.starts_with("disc_blur(scene"));
}

TEST_CASE("a choice is taken as a step below or in the step's place") {
    const Finish finish = small_finish();
    const auto checked = test::checked(finish);
    const TryOn choice = of(try_on(*checked, "mask", TryOnUse::add_below), "threshold");
    const auto below = take_try_on(finish, "mask", choice, TryOnUse::add_below);
    REQUIRE(below);
    CHECK(below->second == "threshold");
    CHECK(find_step(below->first, below->second)->formula == "threshold(mask)");
    CHECK(find_step(below->first, "last")->formula == "mask * 2");
    TryOn other = choice;
    other.formula = "threshold(mask, 0.2)";
    const auto instead = take_try_on(finish, "last", other, TryOnUse::replace);
    REQUIRE(instead);
    CHECK(find_step(instead->first, "last")->formula == "threshold(mask, 0.2)");
    CHECK(take_try_on(finish, "none", choice, TryOnUse::replace).fault().id == "edit.unknown");
}

TEST_CASE("an empty finish can be tried on too") {
    const auto all = try_on(*test::checked(finish_of({})), "", TryOnUse::add_below);
    for (const TryOn& tried : all) {
        INFO(tried.formula << " " << tried.why_not);
        CHECK(tried.fits);
    }
}
