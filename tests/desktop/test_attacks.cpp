// The window against files that mean harm, other programs, and a clumsy hand.
#include <sys/wait.h>
#include <unistd.h>

#include <QClipboard>
#include <QGuiApplication>
#include <QListWidget>
#include <catch2/catch.hpp>

#include "core/base/hash.h"
#include "core/finish/shared_dials.h"
#include "desktop/drawing/drawing_marks.h"
#include "desktop/ladder/ladder_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// A finish on disk that shares its first dial in this file.
std::string sharing_finish(const std::string& path, const std::string& dials) {
    Finish finish = test::demo_finish();
    finish.shared_dials = dials;
    finish.dials[0].shared = true;
    REQUIRE(save_finish(path, finish));
    return path;
}

}  // namespace

TEST_CASE("saving never writes over shared dials that could not be read") {
    const test::TemporaryFolder folder;
    const std::string conflict = "<<<<<<< ours\n{\"format\": 1, \"dials\": []}\n";
    test::write_file(folder.file("own.dials"), conflict);
    BenchWindow bench(sharing_finish(folder.file("a.lacquer"), "own.dials"));
    bench.playing().set_dial("grain", {0.9, 0, 0});
    REQUIRE(bench.document().save());
    CHECK(bench.last_said.contains(QStringLiteral("but not its shared dials")));
    CHECK(test::read_file(folder.file("own.dials")) == conflict);
    CHECK(find_dial(load_finish(folder.file("a.lacquer"))->finish, "grain")->value[0] == 0.9);
}

TEST_CASE("a finish writes shared dials beside it unasked, and elsewhere only when that is allowed") {
    const test::TemporaryFolder folder;
    std::filesystem::create_directory(folder.file("inner"));
    BenchWindow bench(sharing_finish(folder.file("inner/a.lacquer"), "../far.dials"));
    bench.playing().set_dial("grain", {0.9, 0, 0});
    REQUIRE(bench.document().save());
    CHECK(bench.questions == 1);
    CHECK_FALSE(std::filesystem::exists(folder.file("far.dials")));
    bench.may_write_shared = true;
    bench.playing().set_dial("grain", {0.8, 0, 0});
    REQUIRE(bench.document().save());
    CHECK(load_shared_dials(folder.file("far.dials"))->size() == 1);
    BenchWindow near(sharing_finish(folder.file("inner/b.lacquer"), "near.dials"));
    near.playing().set_dial("grain", {0.9, 0, 0});
    REQUIRE(near.document().save());
    CHECK(near.questions == 0);
    CHECK(load_shared_dials(folder.file("inner/near.dials"))->size() == 1);
}

TEST_CASE("a finish that another program has changed is asked about before it is saved over") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("a.lacquer");
    REQUIRE(save_finish(path, test::demo_finish()));
    BenchWindow bench(path);
    BenchWindow second(path);
    second.playing().set_dial("grain", {0.3, 0, 0});
    REQUIRE(second.document().save());
    CHECK(second.questions == 0);
    bench.playing().set_dial("grain", {0.9, 0, 0});
    CHECK_FALSE(bench.document().save());
    CHECK(bench.questions == 1);
    CHECK(bench.document().edited());
    CHECK(find_dial(load_finish(path)->finish, "grain")->value[0] == 0.3);
    bench.changed_on_disk = ChangedOnDisk::save_elsewhere;
    // Elsewhere is not the same place once more.
    bench.to_save = qs(path);
    CHECK_FALSE(bench.document().save());
    CHECK(bench.questions == 2);
    CHECK(bench.document().edited());
    CHECK(bench.last_said.contains(QStringLiteral("changed by another program")));
    CHECK(find_dial(load_finish(path)->finish, "grain")->value[0] == 0.3);
    bench.to_save.clear();
    CHECK_FALSE(bench.document().save());
    CHECK(bench.document().edited());
    bench.to_save = qs(folder.file("b.lacquer"));
    REQUIRE(bench.document().save());
    CHECK(find_dial(load_finish(path)->finish, "grain")->value[0] == 0.3);
    CHECK(find_dial(load_finish(folder.file("b.lacquer"))->finish, "grain")->value[0] == 0.9);
    second.playing().set_dial("grain", {0.4, 0, 0});
    test::write_file(path, "{}");
    second.changed_on_disk = ChangedOnDisk::replace;
    REQUIRE(second.document().save());
    CHECK(find_dial(load_finish(path)->finish, "grain")->value[0] == 0.4);
}

TEST_CASE("more than a file holds is refused with a word, and recording stops at a full tape") {
    const test::TemporaryFolder folder;
    Finish finish = test::demo_finish();
    finish.tape = Tape();
    for (std::size_t i = 0; i + 2 < max_tape_events; ++i) finish.tape.cues.push_back({"hit", 5, 0.01});
    REQUIRE(save_finish(folder.file("a.lacquer"), finish));
    BenchWindow bench(folder.file("a.lacquer"));
    bench.playing().set_recording(true);
    for (int i = 0; i < 4; ++i) bench.playing().press_cue({"hit", 1, 1});
    CHECK(bench.last_said.contains(QStringLiteral("full")));
    bench.playing().set_recording(false);
    bench.playing().set_playing(false);
    CHECK(bench.document().finish().tape.cues.size() == max_tape_events);
    bench.playing().press_cue({"hit", 2, 1});
    CHECK(bench.last_said.contains(QStringLiteral("at most")));
    CHECK(bench.document().finish().tape.cues.size() == max_tape_events);
}

TEST_CASE("an empty clipboard pastes nothing") {
    BenchWindow bench(test::demo_path());
    QGuiApplication::clipboard()->clear();
    bench.key(Qt::Key_V, Qt::ControlModifier);
    bench.document().select("torn");
    const std::string before = bench.formula_of("torn");
    bench.key(Qt::Key_E);
    bench.key(Qt::Key_V, Qt::ControlModifier);
    bench.key(Qt::Key_Insert, Qt::ShiftModifier);
    bench.key(Qt::Key_Escape);
    CHECK(bench.formula_of("torn") == before);
}

TEST_CASE("a finish during whose drawing the program ended is not drawn by itself again until it changes") {
    const test::TemporaryFolder folder;
    const std::string path = folder.file("a.lacquer");
    REQUIRE(save_finish(path, test::demo_finish()));
    mark_drawing(path);
    CHECK_FALSE(ended_while_drawing(path));  // this program still runs
    unmark_drawing(path);
    const pid_t child = fork();
    if (child == 0) {
        mark_drawing(path);
        _exit(0);
    }
    int status = 0;
    REQUIRE(waitpid(child, &status, 0) == child);
    CHECK(ended_while_drawing(path));
    CHECK(ended_while_drawing(path));
    REQUIRE(save_finish(path, test::demo_finish()));
    CHECK_FALSE(ended_while_drawing(path));
}

TEST_CASE("random keys and clicks find nothing that brings the window down") {
    for (const char* demo : {"object-outlines", "dissolve", "squall-strike"}) {
        BenchWindow bench(test::demo_path(demo));
        std::uint32_t state = 5;
        const auto next = [&](std::uint32_t most) {
            state = pcg(state);
            return state % most;
        };
        for (int i = 0; i < 150; ++i) {
            if (next(3) == 0) {
                QWidget* stage = bench.window().findChild<QWidget*>(QStringLiteral("stage"));
                REQUIRE(stage != nullptr);
                bench.click(stage, {static_cast<int>(next(static_cast<std::uint32_t>(stage->width()))),
                                    static_cast<int>(next(static_cast<std::uint32_t>(stage->height())))});
            } else {
                constexpr std::string_view keys = "LKCOIDGXMPRVZ12 ";
                bench.key(keys[next(keys.size())]);
                if (next(4) == 0) bench.key(Qt::Key_Escape);
            }
            QCoreApplication::processEvents();
        }
        bench.playing().set_playing(false);
        bench.settle();
    }
}

TEST_CASE("the core sample reads every kind of step that is handed out as it was stored") {
    Finish finish = test::finish_of({{"plain", "uv.x"},
                                     {"two", "uv"},
                                     {"moved", "texture(plain, uv * 0.5)"},
                                     {"both", "texture(two, uv * 0.5)"},
                                     {"mask", "moved * both.x"}});
    WorkerPool pool(2);
    Renderer renderer(pool);
    RenderRequest request;
    request.checked = test::checked(finish);
    request.frame_width = 64;
    request.frame_height = 36;
    for (int i = 0; i < 100; ++i) request.points.push_back({i % 64, i % 36});
    request.steps = {"plain", "two", "moved", "both", "mask"};
    const Result<Frame> frame = renderer.render(request, Cancel());
    REQUIRE(frame);
    REQUIRE(frame->steps.size() == 5);
    CHECK(frame->steps[0].picture.channels == 1);
    CHECK(frame->steps[1].picture.channels == 2);
    CHECK(frame->steps[0].picture.at(5, 0)[0] == 5.5F / 64);
    CHECK(frame->steps[1].picture.at(5, 0)[1] == 5.5F / 36);
}
