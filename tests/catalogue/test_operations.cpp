// Operation files: what their heads may say, and what goes wrong.
#include <catch2/catch.hpp>

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

}  // namespace

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
        {std::string(head) + "//! stage own native sums\n" + function, "operation.head", 5},
        {std::string(head) + "//! stage own native sums of own with own\n" + function, "operation.head", 5},
        {std::string(head) + "//! stage own native sums of own by own\n" + function, "operation.head", 1},
        {std::string(head) + "//! stage own\n//! stage own native sums of own by other\n" + function, "operation.head",
         1},
        {std::string(head) + "//! value x 5 number : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 pressure : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 number in 3..1 : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 number\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 choice = 0 : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 choice of one : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 2 choice of one, two : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! value x 1 choice of one, , two : w\n" + function, "operation.head", 5},
        {std::string(head) + "//! stage own size 3\n" + function, "operation.head", 5},
        {std::string(head) + "//! stage own repeat 0\n" + function, "operation.head", 5},
        {std::string(head) + "//! stage other\n" + function, "operation.head", 1},
        {std::string(head) + function, "operation.head", 1},
        {std::string(head) + "return 1;", "operation.head", 1},
        {std::string(head) + "//! value x 1 number : w\nfloat own(float x) { return x }\n", "lang.expected", 6},
        {std::string(head) + "//! value x 1 number : w\nfloat own(float x) { return y; }\n", "lang.unknown-name", 6},
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

TEST_CASE("operations may call each other, in any order but not in a circle") {
    const auto file = [](const std::string& name, const std::string& body) {
        return OperationFile{
            name, std::string(head) + "//! value x 1 number : w\nfloat " + name + "(float x) { " + body + " }\n",
            name + ".glsl"};
    };
    const auto good =
        make_catalogue({file("a", "return b(x) + 1;"), file("b", "return c(x) * 2;"), file("c", "return x;")});
    CHECK(good->faults.empty());
    CHECK(drawn(finish_of({{"step", "a(uv.x)"}}), good, Backend::cpu).steps[0].picture.at(95, 0)[0] ==
          2 * (95.5F / 96) + 1);
    const auto circle = make_catalogue({file("a", "return b(x);"), file("b", "return a(x);"), file("c", "return x;")});
    CHECK(circle->faults.size() == 2);
    CHECK(circle->operations.size() == 1);
    CHECK(circle->broken.at("a").id == "lang.unknown-function");
    // A helper may be called like an operation that somebody adds later.
    std::vector<OperationFile> files = built_in_operation_files();
    files.push_back(file("share", "return x;"));
    CHECK(make_catalogue(files)->faults.empty());
    // One that replaces another is what the others call only if they came later.
    files.push_back(file("luminance", "return x * 0;"));
    CHECK(make_catalogue(files)->faults.empty());
}

TEST_CASE("a choice is a number with names") {
    const auto catalogue = make_catalogue(
        {{"own",
          std::string(head) +
              "//! value x 1 choice = 1 of left, to the right, both : w\nfloat own(float x) { return x; }\n",
          "own.glsl"}});
    REQUIRE(catalogue->faults.empty());
    const OperationArgument& argument = catalogue->operations.at("own").arguments[0];
    CHECK(argument.choices == std::vector<std::string>{"left", "to the right", "both"});
    CHECK(argument.fallback == "1");
    CHECK(argument.range == std::pair<double, double>(0, 2));
}

TEST_CASE("docs/operations.md is what the operations' files say") {
    const test::CommandResult made =
        test::run_command(test::program_folder() + "/lacquer-cli catalogue --operations /nowhere");
    CHECK(made.code == 0);
    const bool same = made.output == test::read_file(std::string(LACQUER_SOURCE) + "/docs/operations.md");
    INFO("lacquer-cli catalogue > docs/operations.md writes it again");
    CHECK(same);
}

TEST_CASE("the pictures beside docs/operations.md are what the operations draw, and the sheet holds all of them") {
    const test::TemporaryFolder folder;
    const std::string cli = test::program_folder() + "/lacquer-cli catalogue --operations /nowhere";
    REQUIRE(test::run_command(cli + " --pictures " + folder.path().string() + " --sheet " + folder.file("sheet.png"))
                .code == 0);
    INFO("lacquer-cli catalogue --pictures docs/operations draws them again");
    for (const auto& [name, operation] : built_in_catalogue()->operations) {
        INFO(name);
        const auto kept =
            read_picture(std::string(LACQUER_SOURCE) + "/docs/operations/" + name + ".png", PictureMeaning::data);
        const auto made = read_picture(folder.file(name + ".png"), PictureMeaning::data);
        REQUIRE(kept);
        REQUIRE(made);
        CHECK(kept->data == made->data);
    }
    const auto sheet = read_picture(folder.file("sheet.png"), PictureMeaning::data);
    REQUIRE(sheet);
    CHECK(sheet->width > 8 * 240);
    CHECK(sheet->height > 14 * 135);
    CHECK(test::run_command(cli + " --sheet " + folder.file("none/sheet.png")).code == 1);
}
