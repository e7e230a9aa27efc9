// The real program with real files.
#include <catch2/catch.hpp>

#include "core/finish/file.h"
#include "core/finish/json_tree.h"
#include "core/picture/files.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::CommandResult;
using test::run_cli;
using test::TemporaryFolder;

TEST_CASE("render writes the picture, the same every time") {
    const TemporaryFolder folder;
    const std::string words = "render '" + test::demo_path() + "' --at 0.4 --cue hit:0.8@0.1 --size 320x180 -o '";
    const CommandResult done = run_cli(words + folder.file("a.png") + "'");
    INFO(done.output);
    REQUIRE(done.code == 0);
    REQUIRE(run_cli(words + folder.file("b.png") + "' --threads 1 --kernels scalar").code == 0);
    CHECK(test::read_file(folder.file("a.png")) == test::read_file(folder.file("b.png")));
    const Result<Picture> picture = read_picture(folder.file("a.png"), PictureMeaning::colour);
    REQUIRE(picture);
    CHECK(picture->width == 320);
}

TEST_CASE("without a graphics driver this processor draws, and says why") {
    const TemporaryFolder folder;
    const std::string words =
        "render '" + test::demo_path() + "' --size 32x18 --backend gpu -o '" + folder.file("a.png") + "'";
    // No driver's description can be found.
    const CommandResult done = run_cli(words, "__EGL_VENDOR_LIBRARY_FILENAMES=/nowhere");
    INFO(done.output);
    CHECK(done.code == 3);
    CHECK(done.output.find("there is no GL that draws without a window") != std::string::npos);
    CHECK(read_picture(folder.file("a.png"), PictureMeaning::colour));
}

TEST_CASE("a 1080p finish with three stored pictures stays under 300 MB") {
    const TemporaryFolder folder;
    Image8 image{1920, 1080, {}};
    for (int i = 0; i < 1920 * 1080 * 4; ++i) image.data.push_back(static_cast<std::uint8_t>(i * 7 % 256));
    REQUIRE(write_png(folder.file("scene.png"), image));
    Finish finish = test::finish_of({{"a", "texture(scene, uv + 0.01)"},
                                     {"b", "texture(a, uv + 0.01)"},
                                     {"c", "texture(b, uv + 0.01)"},
                                     {"d", "texture(c, uv + 0.01)"}});
    finish.frame_width = 1920;
    finish.frame_height = 1080;
    finish.grounds.push_back(test::picture_ground("scene", "scene.png"));
    REQUIRE(save_finish(folder.file("f.lacquer"), finish));
    const double megabytes = test::peak_megabytes(test::program_folder() + "/lacquer-cli",
                                                  {"render", folder.file("f.lacquer"), "-o", folder.file("a.png")});
    INFO(megabytes << " MB");
    CHECK(megabytes > 50);
#if !defined(__SANITIZE_ADDRESS__) && !defined(__SANITIZE_THREAD__)
    CHECK(megabytes < 300);
#endif
}

TEST_CASE("a step, a dial and a scale can be asked for") {
    const TemporaryFolder folder;
    const std::string base = "render '" + test::demo_path() + "' -o '" + folder.file("a.png") + "' ";
    REQUIRE(run_cli(base + "--size 64x36 --step reach").code == 0);
    const Result<Picture> reach = read_picture(folder.file("a.png"), PictureMeaning::data);
    CHECK(reach->at(32, 18)[0] < 0.05F);
    REQUIRE(run_cli(base + "--size 640x360 --scale 0.1 --step reach").code == 0);
    CHECK(read_picture(folder.file("a.png"), PictureMeaning::data)->width == 64);
    REQUIRE(run_cli(base + "--size 64x36 --dial presence=1 --dial radius=0 --dial tint=1,0,0 --step rim").code == 0);
    CHECK(read_picture(folder.file("a.png"), PictureMeaning::data)->at(1, 1)[0] > 0.5F);
}

TEST_CASE("what is wrong with a command is said in a line") {
    const TemporaryFolder folder;
    const std::string out = " -o '" + folder.file("a.png") + "'";
    const std::string demo = "render '" + test::demo_path() + "'";
    struct Row {
        std::string words, says;
    };
    for (const Row& row :
         {Row{"dance", "there is no 'dance'"}, Row{"render" + out, "FILE is required"},
          Row{demo, "no picture to write"}, Row{demo + out + " --size 0x5", "isn't a size"},
          Row{demo + out + " --size 99999x99999", "isn't a size"}, Row{demo + out + " --cue hit:2", "isn't a cue"},
          Row{demo + out + " --cue hot:1@0", "did you mean hit?"}, Row{demo + out + " --step rin", "did you mean rim?"},
          Row{demo + out + " --dial radios=1", "did you mean radius?"}, Row{demo + out + " --at soon", "--at"},
          Row{demo + out + " --scale 0", "--scale"}, Row{demo + out + " --colour red", "--colour"},
          Row{demo + out + " --at", "--at"}, Row{demo + out + " --kernels MMX", "no kernels"},
          Row{demo + out + " --threads -2", "--threads"}, Row{"render /nowhere.lacquer" + out, "no such file"},
          Row{demo + " -o /nowhere/a.png --size 8x8", "cannot be written"}}) {
        const CommandResult result = run_cli(row.words);
        INFO(row.words << "\n" << result.output);
        CHECK(result.code != 0);
        CHECK(result.output.find(row.says) != std::string::npos);
    }
    CHECK_FALSE(std::filesystem::exists(folder.file("a.png")));
    for (const char* verb : {"render", "rates", "values", "explain", "responses", "catalogue", "scene", "completion"}) {
        const CommandResult help = run_cli(std::string(verb) + " --help");
        INFO(help.output);
        CHECK(help.code == 0);
        CHECK(help.output.find("--help") != std::string::npos);
        CHECK(run_cli("--help").output.find(verb) != std::string::npos);
    }
    CHECK(run_cli("help").code == 0);
    CHECK(run_cli("").code == 2);
}

TEST_CASE("a finish with nothing in it, and one with a fault in its last step, are told") {
    const TemporaryFolder folder;
    test::write_file(folder.file("empty.lacquer"), "{\"format\": 1}");
    CHECK(run_cli("render '" + folder.file("empty.lacquer") + "' -o x.png").output.find("nothing to draw") !=
          std::string::npos);
    test::write_file(folder.file("bad.lacquer"),
                     R"({"format": 1, "coats": [{"name": "c", "steps": [{"name": "a", "formula": "uv.q"}]}]})");
    const CommandResult bad = run_cli("render '" + folder.file("bad.lacquer") + "' -o x.png");
    CHECK(bad.code == 1);
    CHECK(bad.output.find("bad.lacquer, step a, line 1, column 4") != std::string::npos);
}

TEST_CASE("explain follows a finish from formulas to strips") {
    const CommandResult result = run_cli("explain '" + test::demo_path() + "'");
    REQUIRE(result.code == 0);
    for (const char* part : {"Edge mask / reach", "float = length(centred)", "dial radius = blow", "pass draws",
                             "lowered", "constants folded", "common parts shared", "unused dropped", "each pixel",
                             "gradient_noise_3", "tint * (0.25", "gets opacity 1"}) {
        INFO(part);
        CHECK(result.output.find(part) != std::string::npos);
    }
}

TEST_CASE("there is no Qt in the program") {
    CHECK(test::run_command("ldd '" + test::program_folder() + "/lacquer-cli' | grep -ci qt").output == "0\n");
}

TEST_CASE("the page about responses is what the program says of them") {
    const auto told = test::run_command(test::program_folder() + "/lacquer-cli responses");
    CHECK(told.code == 0);
    CHECK(told.output == test::read_file(LACQUER_SOURCE "/docs/responses.md"));
    CHECK(test::run_command(test::program_folder() + "/lacquer-cli responses strike").code == 1);
}

TEST_CASE("what moves is printed over time, by its own tape or another") {
    const std::string verb = test::program_folder() + "/lacquer-cli values ";
    const auto own = test::run_command(verb + test::demo_path("ailing-crab") + " --frames 10");
    REQUIRE(own.code == 0);
    CHECK(own.output.starts_with("seconds,health,ebb,vigour\n0,100,1,1\n"));
    CHECK(std::count(own.output.begin(), own.output.end(), '\n') == 82);
    const auto jolted = test::run_command(verb + test::demo_path("squall-strike") + " --frames 2 --tape " +
                                          LACQUER_SOURCE + "/demo/tapes/gale-night.tape");
    CHECK(jolted.output.find(",0 0,") != std::string::npos);  // the jolt has two numbers
    CHECK(std::count(jolted.output.begin(), jolted.output.end(), '\n') == 22);
    for (const char* wrong : {"--frames 0 ", "--frames many ", "--tape nowhere.tape "})
        CHECK(test::run_command(verb + wrong + test::demo_path("ailing-crab")).code == 1);
}

TEST_CASE("inspect ends with 0, with 1 where a promise is broken, with 3 for warnings, and prints a table or JSON") {
    const TemporaryFolder folder;
    Finish finish = test::with_dial(test::finish_of({{"cut", "vec4(vec3(1), step(gone * gone, uv.x))"}}), "gone", 0, 1);
    finish.frame_width = 96;
    finish.frame_height = 54;
    finish.dials[0].promises = {"seen"};
    const std::string path = folder.file("cut.lacquer");
    const auto inspected = [&](const std::string& words = "") {
        REQUIRE(save_finish(path, finish));
        return run_cli("inspect '" + path + "' " + words);
    };
    const CommandResult good = inspected();
    INFO(good.output);
    CHECK(good.code == 0);
    CHECK(good.output.find("* Seen") != std::string::npos);
    CHECK(good.output.find("Pace         falls short") != std::string::npos);
    finish.dials[0].promises = {"pace"};
    CHECK(inspected().code == 1);
    finish.dials[0].promises = {"gait"};
    CHECK(inspected().code == 1);
    finish.dials[0].promises = {};
    finish.coats[0].steps[0].name = "step_1";
    finish.variants.push_back(
        {"even", "", {{}, {{"step_1", R"x({"formula": "vec4(vec3(1), step(gone, uv.x))"})x"}}, {}, {}}, {}});
    const CommandResult told = inspected("--all-dials --variant all --json");
    INFO(told.output);
    CHECK(told.code == 3);
    const Result<Json> json = json_from_text(told.output, "inspect");
    REQUIRE(json);
    REQUIRE(json->size() == 2);
    const auto verdict = [&](std::size_t variant, const std::string& id) {
        for (const Json& one : json->list()[variant].find("dials")->list()[0].find("measures")->list()) {
            if (one.find("measure")->text() == id) return one.find("verdict")->text();
        }
        return std::string("none");
    };
    CHECK(verdict(0, "pace") == "falls_short");
    CHECK(verdict(1, "pace") == "passes");
    CHECK(json->list()[1].find("variant")->text() == "even");
    // Faults fall short, too, and a picture that is missing is told.
    finish.coats[0].steps[0].formula = "nope(uv.x)";
    CHECK(inspected().code == 1);
    finish.coats[0].steps[0].formula = "texture(skin, uv)";
    finish.coats[0].steps[0].name = "cut";
    finish.variants = {};
    finish.grounds.push_back(test::picture_ground("skin", "nowhere.png"));
    const CommandResult missing = inspected();
    CHECK(missing.code == 3);
    CHECK(missing.output.find("nowhere.png") != std::string::npos);
    for (const char* wrong : {"--dial nobody", "--measure gait", "--variant nobody", "--size 0x0", "--at much"}) {
        INFO(wrong);
        CHECK(inspected(wrong).code == 1);
    }
}
