// The example host, built as its first lines say, draws what the application draws.
#include <catch2/catch.hpp>
#include <cmath>
#include <fstream>
#include <sstream>

#include "core/ship/moment.h"
#include "core/ship/set.h"
#include "tests/ship/played_tapes.h"
#include "tests/support/finishes.h"

using namespace lacquer;

namespace {

// Portable float map: three floats a pixel, the lowest row first (P. Debevec, "PFM", common practice, no source).
Picture read_float_map(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    std::string mark;
    int width = 0;
    int height = 0;
    double order = 0;
    in >> mark >> width >> height >> order;
    in.get();
    REQUIRE(mark == "PF");
    REQUIRE(order < 0);
    Picture picture(width, height, 3);
    for (int y = height; y-- > 0;)
        in.read(reinterpret_cast<char*>(picture.at(0, y)), static_cast<std::streamsize>(sizeof(float)) * width * 3);
    REQUIRE(in);
    return picture;
}

// Ships a demo, builds the host for it with the words that stand for its play, and runs it.
Picture hosted(const std::string& demo, const std::string& edits, double seconds) {
    const test::TemporaryFolder folder;
    const std::string set = folder.file("set");
    const test::CommandResult shipped =
        test::run_cli("ship " + test::demo_path(demo) + " -o " + set + " --to glsl330 --to play --to grounds");
    REQUIRE(shipped.code == 0);
    const std::string source = std::string(LACQUER_SOURCE) + "/examples/host/host.c";
    const test::CommandResult built = test::run_command(
        "sed '" + edits + "' " + source + " > " + folder.file("host.c") + " && cd " + folder.path().string() +
        " && cc -std=c99 -O1 -Wall -Wextra -Werror -Iset/play host.c -o host $(pkg-config --cflags --libs egl epoxy "
        "libcjson spng) -lm");
    INFO(built.output);
    REQUIRE(built.code == 0);
    const test::CommandResult ran =
        test::run_command("cd " + folder.path().string() + " && ./host set " + std::to_string(seconds) + " frame.pfm");
    INFO(ran.output);
    REQUIRE(ran.code == 0);
    return read_float_map(folder.file("frame.pfm"));
}

double share_off(const Picture& hosted, const std::string& demo, const Tape& tape, double seconds) {
    const ShipMaterial material = test::material_of(test::demo_named(demo), test::demo_path(demo));
    WorkerPool pool(2);
    MomentSource source(material, std::make_shared<const Tape>(tape), pool);
    const Finish& finish = material.finish();
    const Result<MomentPictures> wanted = source.pictures({seconds, finish.frame_width, finish.frame_height}, Cancel());
    REQUIRE(wanted);
    const Picture& picture = wanted->finished.picture;
    REQUIRE(hosted.width == picture.width);
    REQUIRE(hosted.height == picture.height);
    std::size_t off = 0;
    for (int y = 0; y < picture.height; ++y) {
        for (int x = 0; x < picture.width; ++x) {
            bool is_off = false;
            for (int c = 0; c < 3; ++c) is_off = is_off || std::fabs(hosted.at(x, y)[c] - picture.at(x, y)[c]) > 1e-3F;
            off += is_off ? 1 : 0;
        }
    }
    return static_cast<double>(off) / (picture.width * picture.height);
}

}  // namespace

TEST_CASE("the example host plays the strike as the application does") {
    Tape tape;
    add_to_tape(tape, Cue{"hit", 0.5, 0.8, 20});
    CHECK(share_off(hosted("squall-strike", "", 0.7), "squall-strike", tape, 0.7) < 2e-3);
    CHECK(share_off(hosted("squall-strike", "", 0.25), "squall-strike", tape, 0.25) == 0);
}

TEST_CASE("the example host swaps what goes on from tick to tick") {
    CHECK(share_off(
              hosted("wake",
                     "s/squall_strike/wake/g; s/#define PLAY_HIT(state).*/#define PLAY_HIT(state) (void)(state)/", 0.5),
              "wake", test::demo_named("wake").tape, 0.5) < 2e-3);
}
