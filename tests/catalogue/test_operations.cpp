// Operation files: what their heads may say, what goes wrong, and that each that comes along draws.
#include <catch2/catch.hpp>
#include <cmath>

#include "core/catalogue/catalogue.h"
#include "core/picture/files.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::finish_of;

namespace {

constexpr const char* head = "//! title T\n//! group G\n//! about A.\n//! says s\n";

Fault fault_of(const std::string& text) {
    const auto catalogue = make_catalogue({{"own", text, "own.glsl"}});
    REQUIRE(catalogue->faults.size() == 1);
    CHECK(catalogue->broken.contains("own"));
    return catalogue->faults.front();
}

Frame drawn(const Finish& finish, const std::shared_ptr<const Catalogue>& catalogue, Backend backend) {
    RenderRequest request;
    request.checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish), catalogue));
    for (const CheckedStep& step : request.checked->steps) {
        if (step.fault) FAIL(step.name << ": " << to_text(*step.fault));
    }
    request.frame_width = 96;
    request.frame_height = 64;
    request.steps = {""};
    WorkerPool pool(2);
    Renderer renderer(pool);
    REQUIRE_FALSE(renderer.use(backend));
    Result<Frame> frame = renderer.render(request, Cancel());
    if (!frame) FAIL(to_text(frame.fault()));
    return std::move(*frame);
}

// A call with something fitting for every argument that must be given.
std::string call_of(const Operation& operation) {
    std::string call = operation.name + "(";
    for (const OperationArgument& argument : operation.arguments) {
        if (!argument.fallback.empty()) break;
        call += call.back() == '(' ? "" : ", ";
        call += argument.picture || argument.width == 0 ? "view" : argument.width == 1 ? "view.r" : "view.rg - 0.5";
    }
    return call + ")";
}

}  // namespace

TEST_CASE("the operations that come along are read without a fault and draw the same by either back end") {
    const auto& catalogue = built_in_catalogue();
    for (const Fault& fault : catalogue->faults) FAIL(to_text(fault));
    CHECK(catalogue->operations.size() >= 12);
    for (const auto& [name, operation] : catalogue->operations) {
        INFO(name);
        CHECK(operation.about.back() == '.');
        const Finish finish =
            finish_of({{"view", "vec4(value_noise(uv * 9), value_noise(uv * 5), uv.x, 0.5 + 0.5 * uv.y)"},
                       {"made", call_of(operation)}});
        const Frame strips = drawn(finish, catalogue, Backend::cpu);
        const Frame shaders = drawn(finish, catalogue, Backend::gpu);
        const Picture& a = strips.steps[0].picture;
        const Picture& b = shaders.steps[0].picture;
        std::size_t off = 0;
        for (std::size_t i = 0; i < a.data.size(); ++i) off += std::fabs(a.data[i] - b.data[i]) <= 1e-3F ? 0 : 1;
        // Where a threshold lies between two roundings, a value may flip.
        CHECK(static_cast<double>(off) / static_cast<double>(a.data.size()) < 0.005);
    }
}

TEST_CASE("what is wrong in an operation's head is told with its line") {
    struct Case {
        std::string text;
        std::string id;
        int line;
    };
    const std::string function = "float own(float x) { return x; }\n";
    const std::vector<Case> cases = {
        {function, "operation.head", 1},
        {std::string(head) + "//! colour red\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 5 number : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 pressure : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 number in 3..1 : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 number\n" + function, "operation.head", 5},
        {std::string(head) + "//! stage own size 3\n" + function, "operation.head", 5},
        {std::string(head) + "//! stage own repeat 0\n" + function, "operation.head", 5},
        {std::string(head) + "//! stage other\n" + function, "operation.head", 1},
        {std::string(head) + function, "operation.head", 1},
        {std::string(head) + "return 1;", "operation.head", 1},
        {std::string(head) + "//! value x 1 number : w\nfloat own(float x) { return x }\n", "lang.expected", 6},
        {std::string(head) + "//! value x 1 number : w\nfloat own(float x) { return y; }\n", "lang.unknown-name", 0},
        {std::string(70000, 'x'), "operation.head", 1}};
    for (const Case& c : cases) {
        const Fault fault = fault_of(c.text);
        INFO(to_text(fault));
        CHECK(fault.id == c.id);
        CHECK(fault.place.line == c.line);
        CHECK(fault.place.where == "own.glsl");
    }
    CHECK(make_catalogue({{"sin", std::string(head) + function, "sin.glsl"}})->faults.front().id == "operation.name");
}

TEST_CASE("any bytes as an operation's file give an operation or a fault") {
    std::uint32_t state = 11;
    const std::string letters = "//! value picture stage same sampler2D own(float x){return texture}\n;:=..14";
    for (int n = 0; n < 3000; ++n) {
        std::string text = n % 2 == 0 ? head : "";
        for (int i = 0; i < n % 90; ++i) {
            state = state * 1664525U + 1013904223U;
            text += letters[(state >> 16U) % letters.size()];
        }
        const auto catalogue = make_catalogue({{"own", text, "own.glsl"}});
        CHECK(catalogue->operations.size() + catalogue->faults.size() == 1);
    }
}

TEST_CASE("operations with pictures and stages fill a step, others stand anywhere") {
    const auto fault_in = [](const std::string& formula) {
        const auto checked = test::checked(finish_of({{"a", "uv.x"}, {"b", formula}}));
        const CheckedStep* step = find_step(*checked, "b");
        return step->fault ? step->fault->id : std::string("fine");
    };
    CHECK(fault_in("gaussian_blur(a) * 2") == "finish.whole-step");
    CHECK(fault_in("gaussian_blur()") == "lang.count");
    CHECK(fault_in("gaussian_blur(a, 1, 2)") == "lang.count");
    CHECK(fault_in("gaussian_blur(time, 2)") == "lang.picture");
    CHECK(fault_in("glow(a)") == "lang.picture");
    CHECK(fault_in("gaussian_blur(a, uv)") == "lang.width");
    CHECK(fault_in("gaussian_blur(a * 2 + uv.y, 3)") == "fine");
    CHECK(fault_in("threshold(a, 0.3) * polar().x") == "fine");
    CHECK(fault_in("thresold(a, 0.3)") == "lang.unknown-function");
    const auto checked =
        test::checked(finish_of({{"a", "vec4(uv, 0, 1)"}, {"b", "threshold(a, 0.5)"}, {"c", "band(a.xy)"}}));
    CHECK(find_step(*checked, "b")->typed->type == Type::vec4);
    CHECK(find_step(*checked, "c")->typed->type == Type::vec2);
}

TEST_CASE("a folder's operations join those that come along, and replace them by name") {
    const test::TemporaryFolder folder;
    CHECK(catalogue_with_folder(folder.file("none")) == built_in_catalogue());
    const std::string own = std::string(head) + "//! value x 1 number : w\nfloat own(float x) { return x * 3; }\n";
    test::write_file(folder.file("own.glsl"), own);
    test::write_file(folder.file("disc.glsl"), "oops");
    test::write_file(folder.file("notes.txt"), "not an operation");
    const auto catalogue = catalogue_with_folder(folder.path().string());
    CHECK(catalogue->operations.size() == built_in_catalogue()->operations.size());
    REQUIRE(catalogue->faults.size() == 1);
    CHECK(catalogue->broken.contains("disc"));
    const Frame frame = drawn(finish_of({{"a", "own(uv.x)"}}), catalogue, Backend::cpu);
    CHECK(frame.steps[0].picture.at(95, 0)[0] == 3 * (95.5F / 96));
    const auto checked = check_finish(std::make_shared<const Finish>(finish_of({{"a", "disc()"}})), catalogue);
    REQUIRE(checked.steps[0].fault);
    CHECK(checked.steps[0].fault->id == "finish.operation");
}

TEST_CASE("docs/operations.md is what the operations' files say") {
    const test::CommandResult made =
        test::run_command(test::program_folder() + "/lacquer-cli catalogue --operations /nowhere");
    CHECK(made.code == 0);
    CHECK(made.output == test::read_file(std::string(LACQUER_SOURCE) + "/docs/operations.md"));
}
