// What holds for each operation that comes along: it says what it is, draws the same by either back end, has no dead
// argument, and is harmless whatever it is handed.
#include <algorithm>
#include <catch2/catch.hpp>
#include <chrono>
#include <cmath>
#include <set>

#include "core/catalogue/catalogue.h"
#include "tests/support/operations.h"

using namespace lacquer;
using test::SampleDrawer;
using test::ShownCall;

namespace {

bool alike(const Picture& a, const Picture& b) {
    if (a.data.size() != b.data.size()) return false;
    for (std::size_t i = 0; i < a.data.size(); ++i) {
        const bool same = std::isnan(a.data[i]) ? std::isnan(b.data[i]) : std::fabs(a.data[i] - b.data[i]) <= 1e-4F;
        if (!same) return false;
    }
    return true;
}

std::string number_text(double number) { return "(" + std::to_string(number) + ")"; }

// Formulas that fit an argument and differ from each other.
std::vector<std::string> tries_for(const OperationArgument& argument) {
    const std::string vector = argument.width > 1 ? "vec" + std::to_string(argument.width) : std::string();
    std::vector<std::string> tries;
    if (argument.range) {
        const auto [least, most] = *argument.range;
        const auto count = argument.choices.empty() ? 5 : static_cast<int>(argument.choices.size());
        for (int i = 0; i < count; ++i) tries.push_back(vector + number_text(least + (most - least) * i / (count - 1)));
        return tries;
    }
    if (argument.picture && argument.width == 2) return {"vec2(hill, blotch) * 9", "vec2(blotch, 0.5)"};
    if (argument.picture && argument.width == 3) return {"vec3(0, 1, 0) * blotch", "shore_normal.zxy"};
    if (argument.picture) return {argument.width == 1 ? "blotch" : "crab", argument.width == 1 ? "hill" : "chart"};
    if (argument.role == "mask") return {"blotch", "hill"};
    if (argument.role == "coordinate") {
        return argument.width == 3 ? std::vector<std::string>{"vec3(uv.yx * 3, 0.4)"}
                                   : std::vector<std::string>{"vec2(0.2, 0.7)", "uv * 0.6 + 0.1"};
    }
    if (argument.role == "displacement") return {"vec2(0.07, -0.05)"};
    switch (argument.width) {
        case 1:
            return {"uv.x - 0.5"};
        case 2:
            return {"vec2(0.3, 0.9)"};
        case 3:
            return {"vec3(0.2, 0.9, 0.4)", "vec3(1.4, 0.1, 0)"};
        default:
            return {"chart", "crab"};
    }
}

}  // namespace

TEST_CASE("every operation says what it is") {
    const auto& catalogue = built_in_catalogue();
    for (const Fault& fault : catalogue->faults) FAIL(to_text(fault));
    CHECK(catalogue->operations.size() >= 75);
    std::set<std::string> titles;
    for (const auto& [name, operation] : catalogue->operations) {
        INFO(name);
        CHECK(titles.insert(operation.title).second);
        CHECK(operation.about.back() == '.');
        CHECK_FALSE(operation.shown.empty());
        for (const OperationArgument& argument : operation.arguments) {
            INFO(argument.name);
            CHECK_FALSE(argument.words.empty());
            // A number that can be dragged needs to know how far.
            if (argument.role == "number" && argument.width == 1 && !argument.fallback.empty() &&
                argument.fallback != "time") {
                CHECK(argument.range.has_value());
            }
        }
        for (std::size_t at = operation.says.find('{'); at != std::string::npos;
             at = operation.says.find('{', at + 1)) {
            const std::string said = operation.says.substr(at + 1, operation.says.find('}', at) - at - 1);
            INFO(said);
            CHECK(std::any_of(operation.arguments.begin(), operation.arguments.end(),
                              [&](const OperationArgument& argument) { return argument.name == said; }));
        }
    }
}

TEST_CASE("every operation draws the same by either back end") {
    SampleDrawer strips(Backend::cpu);
    SampleDrawer shaders(Backend::gpu);
    for (const auto& [name, operation] : built_in_catalogue()->operations) {
        const Picture a = strips.draw(operation.shown);
        const Picture b = shaders.draw(operation.shown);
        REQUIRE(a.data.size() == b.data.size());
        std::size_t off = 0;
        for (std::size_t i = 0; i < a.data.size(); ++i) off += std::fabs(a.data[i] - b.data[i]) <= 1e-3F ? 0 : 1;
        INFO(name << ": " << off << " of " << a.data.size() << " are off");
        // Where a threshold lies between two roundings, a value may flip.
        CHECK(static_cast<double>(off) < 0.01 * static_cast<double>(a.data.size()));
    }
}

TEST_CASE("every argument of every operation changes the picture somewhere in its range") {
    SampleDrawer drawer(Backend::cpu);
    for (const auto& [name, operation] : built_in_catalogue()->operations) {
        const ShownCall call = test::shown_call(operation);
        const Picture plain = drawer.draw(call.text());
        for (std::size_t i = 0; i < operation.arguments.size(); ++i) {
            const auto tries = tries_for(operation.arguments[i]);
            INFO(name << ", " << operation.arguments[i].name);
            CHECK(std::any_of(tries.begin(), tries.end(),
                              [&](const std::string& text) { return !alike(plain, drawer.draw(call.with(i, text))); }));
        }
    }
}

TEST_CASE("every operation gives finite values at the ends of its ranges, and an answer for any number") {
    SampleDrawer drawer(Backend::cpu);
    for (const auto& [name, operation] : built_in_catalogue()->operations) {
        const ShownCall call = test::shown_call(operation);
        for (std::size_t i = 0; i < operation.arguments.size(); ++i) {
            const OperationArgument& argument = operation.arguments[i];
            INFO(name << ", " << argument.name);
            if (argument.range) {
                for (const std::string& text : tries_for(argument)) {
                    const Picture picture = drawer.draw(call.with(i, text));
                    INFO(text);
                    CHECK(std::all_of(picture.data.begin(), picture.data.end(),
                                      [](float x) { return std::isfinite(x); }));
                }
            }
            if (argument.picture) continue;
            for (const char* number : {"(0.0 / 0.0)", "(1.0 / 0.0)", "(-1.0 / 0.0)", "(-1e30)", "1e30", "1e-30"}) {
                const std::string text =
                    argument.width > 1 ? "vec" + std::to_string(argument.width) + "(" + number + ")" : number;
                const auto begin = std::chrono::steady_clock::now();
                (void)drawer.draw(call.with(i, text));
                // Loops have bounds, whatever a count or a radius says.
                CHECK(std::chrono::steady_clock::now() - begin < std::chrono::seconds(20) * test::slowness);
            }
        }
    }
}

TEST_CASE("what goes by colours keeps their opacity") {
    SampleDrawer drawer(Backend::cpu);
    const Picture crab = drawer.draw("crab");
    std::size_t looked = 0;
    for (const auto& [name, operation] : built_in_catalogue()->operations) {
        const bool by_colour = operation.group == "Colour" || operation.group == "Maths";
        if (!by_colour || operation.arguments.empty() || operation.arguments[0].picture) continue;
        const int width = operation.arguments[0].width;
        if (width != 0 && width != 4) continue;
        const Picture made = drawer.draw(test::shown_call(operation).with(0, "crab"));
        REQUIRE(made.channels == 4);
        INFO(name);
        ++looked;
        for (std::size_t i = 3; i < made.data.size(); i += 4) REQUIRE(made.data[i] == crab.data[i]);
    }
    CHECK(looked > 15);
}
