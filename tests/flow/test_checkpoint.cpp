// States as files: whole, broken, and those of something else.
#include <catch2/catch.hpp>
#include <filesystem>
#include <random>

#include "core/flow/checkpoint.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

Checkpoint some_checkpoint() {
    auto picture = std::make_shared<Picture>(3, 2, 2);
    for (std::size_t i = 0; i < picture->data.size(); ++i) picture->data[i] = static_cast<float>(i) * 0.1F;
    return {{7, 9}, {42, {{"flow", {picture, {}}}, {"heat", {picture, {}}}}, {{"flow", {picture, {}}}}}};
}

}  // namespace

TEST_CASE("a checkpoint is read as it was written, and anything else is a fault") {
    const std::string bytes = to_bytes(some_checkpoint());
    const Result<Checkpoint> read = checkpoint_from(bytes, "a");
    REQUIRE(read);
    CHECK(read->state.tick == 42);
    CHECK(read->stamp[1] == 9);
    CHECK(read->state.now.size() == 2);
    CHECK(read->state.before.at("flow").here->data[11] == 1.1F);
    for (std::size_t length = 0; length < bytes.size(); ++length) {
        const Result<Checkpoint> cut = checkpoint_from(std::string_view(bytes).substr(0, length), "a");
        REQUIRE_FALSE(cut);
        REQUIRE(cut.fault().id == "flow.checkpoint");
    }
    CHECK_FALSE(checkpoint_from(bytes + "x", "a"));
    // Whatever stands in it, nothing is read beyond its end and no more room is made than it has bytes.
    std::mt19937 random(11);
    for (int i = 0; i < 3000; ++i) {
        std::string other = bytes;
        for (int k = 0; k < 3; ++k)
            other[std::uniform_int_distribution<std::size_t>(21, other.size() - 1)(random)] =
                static_cast<char>(std::uniform_int_distribution<int>(0, 255)(random));
        (void)checkpoint_from(other, "a");
    }
}

TEST_CASE("a long take goes on from a checkpoint on another machine with the same pixels") {
    const test::TemporaryFolder folder;
    const std::string demo = test::demo_path("wake");
    const std::string kept = folder.file("kept");
    const auto draw = [&](const std::string& more) {
        return test::run_cli("render " + demo + " --size 160x90 " + more);
    };
    REQUIRE(draw("--at 2 -o " + folder.file("half.png") + " --to-checkpoint " + kept).code == 0);
    REQUIRE(draw("--at 3 -o " + folder.file("on.png") + " --from-checkpoint " + kept).code == 0);
    REQUIRE(draw("--at 3 -o " + folder.file("whole.png")).code == 0);
    CHECK(test::read_file(folder.file("on.png")) == test::read_file(folder.file("whole.png")));
    const auto other = test::run_cli("render " + demo + " --size 80x45 --at 3 -o " + folder.file("x.png") +
                                     " --from-checkpoint " + kept);
    CHECK(other.code == 1);
    CHECK(other.output.find("another finish, tape or size") != std::string::npos);
    const auto none = test::run_cli("render " + test::demo_path() + " -o " + folder.file("x.png") +
                                    " --to-checkpoint " + folder.file("none"));
    CHECK(none.code == 1);
    CHECK(none.output.find("goes on from tick to tick") != std::string::npos);
    test::write_file(folder.file("broken"), "lacquer checkpoint 1\nno");
    CHECK(draw("--at 3 -o " + folder.file("x.png") + " --from-checkpoint " + folder.file("broken")).code == 1);
}

TEST_CASE("what a checkpoint isn't of says so by its id") {
    Finish finish = test::finish_of({{"a", "1"}});
    WorkerPool pool(1);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.steps = {""};
    CHECK(renderer.checkpoint(request, Cancel()).fault().id == "flow.none");
    CHECK(renderer.take_checkpoint(request, some_checkpoint()).fault().id == "flow.none");
    finish = test::finish_of({{"a", "1"}, {"flow", "previous(a)"}});
    request.checked = test::checked(finish);
    CHECK(renderer.take_checkpoint(request, some_checkpoint()).fault().id == "flow.other");
    // Those with the right stamp whose pictures are not what a tick leaves.
    request.frame_width = request.frame_height = 4;
    const Result<Checkpoint> good = renderer.checkpoint(request, Cancel());
    REQUIRE(good);
    CHECK(renderer.take_checkpoint(request, *good));
    for (const auto& [width, channels] : {std::pair{4, 3}, {4, 2}, {1, 1}, {9, 1}}) {
        auto picture = std::make_shared<Picture>(width, 4, channels);
        std::fill(picture->data.begin(), picture->data.end(), 0.0F);
        Checkpoint forged = *good;
        forged.state.now["flow"].here = picture;
        const auto now = renderer.take_checkpoint(request, forged);
        REQUIRE_FALSE(now);
        CHECK(now.fault().id == "flow.other");
        forged = *good;
        forged.state.before = good->state.now;
        forged.state.before["flow"].here = picture;
        CHECK_FALSE(renderer.take_checkpoint(request, forged));
    }
}
