// The rehearse screen by mouse and keys: pads, faders, places, lanes, recording, loops, and the same as the command
// line.
#include <QAction>
#include <QLabel>
#include <QLineEdit>
#include <QSignalSpy>
#include <catch2/catch.hpp>
#include <cmath>
#include <cstring>
#include <sstream>

#include "core/finish/file.h"
#include "core/finish/tape_file.h"
#include "core/picture/files.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/pages/field_form.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rates_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/rehearse/signal_faders.h"
#include "desktop/stage/stage_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

void rehearse(BenchWindow& bench) {
    bench.key(Qt::Key_2, Qt::ControlModifier);
    bench.settle();
    REQUIRE(bench.window().rehearses());
}

LanesView& lanes(BenchWindow& bench) { return bench.window().rehearse().lanes(); }
QWidget* plot(BenchWindow& bench) { return lanes(bench).viewport(); }
const Cues& cues(BenchWindow& bench) { return bench.document().finish().tape.cues; }

// Lets time pass by the window's own clock.
void let_pass(BenchWindow& bench, double seconds) {
    const double end = bench.clock + seconds;
    while (bench.clock < end - 1e-9) {
        bench.clock = std::min(bench.clock + 0.01, end);
        const double wanted = bench.clock;
        bool ticked = false;
        const auto connection =
            QObject::connect(&bench.playing(), &Playing::time_changed, [&ticked] { ticked = true; });
        bench.wait_for([&] { return ticked || !bench.playing().playing(); });
        QObject::disconnect(connection);
        if (!bench.playing().playing() || bench.clock > wanted) return;
    }
}

double dial(BenchWindow& bench, const std::string& name) { return setting_from(bench.playing().values().at(name))[0]; }

}  // namespace

TEST_CASE("the rehearse screen has the stage, pads, faders and lanes; the bench has its stage back") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    CHECK(bench.find<QAction>("rehearse")->isChecked());
    CHECK(bench.window().stage().isVisible());
    CHECK(lanes(bench).isVisible());
    CHECK_FALSE(bench.window().ladder().isVisible());
    // All lanes of what moves are there: driven dials, and the jolt, which steps read without a dial.
    for (const char* name : {"radius", "presence", "flicker", "shake"}) {
        INFO(name);
        CHECK_FALSE(lanes(bench).lane_area(name).isEmpty());
        CHECK(lanes(bench).traces().contains(name));
    }
    CHECK(lanes(bench).traces().at("shake").lines.size() == 2);
    bench.key(Qt::Key_1, Qt::ControlModifier);
    bench.settle();
    CHECK_FALSE(bench.window().rehearses());
    CHECK(bench.window().stage().isVisible());
    CHECK(bench.window().ladder().isVisible());
}

TEST_CASE("a tape plays in the window as on the command line: lanes and picture", "[smoke]") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    const std::string tape = LACQUER_SOURCE "/demo/tapes/gale-night.tape";
    bench.to_open = qs(tape);
    bench.action("open_tape");
    REQUIRE(cues(bench).size() == 8);
    CHECK(bench.document().finish().length == 10);
    lanes(bench).show_all_time();
    const auto told = test::run_command(test::program_folder() + "/lacquer-cli values " + test::demo_path() +
                                        " --tape " + tape + " --frames 100");
    REQUIRE(told.code == 0);
    std::istringstream lines(told.output);
    std::string line;
    std::getline(lines, line);
    std::vector<std::string> names;
    std::istringstream heading(line);
    for (std::string name; std::getline(heading, name, ',');) names.push_back(name);
    REQUIRE(names[0] == "seconds");
    std::size_t compared = 0;
    const TimeView view = lanes(bench).view();
    while (std::getline(lines, line)) {
        std::istringstream row(line);
        std::string figure;
        std::getline(row, figure, ',');
        const double seconds = std::stod(figure);
        for (std::size_t i = 1; i < names.size() && std::getline(row, figure, ','); ++i) {
            const auto trace = lanes(bench).traces().find(names[i]);
            if (trace == lanes(bench).traces().end()) continue;
            const auto& points = trace->second.lines[0];
            const double place = (seconds - view.from) / (view.to - view.from) * static_cast<double>(points.size() - 1);
            if (std::fabs(place - std::round(place)) > 1e-6) continue;
            REQUIRE(static_cast<double>(points[static_cast<std::size_t>(std::lround(place))]) ==
                    Approx(std::stod(figure)).margin(1e-4));
            ++compared;
        }
    }
    CHECK(compared >= 8);
    for (const double time : {0.7, 2.05, 4.4}) {
        INFO(time);
        bench.playing().set_time(time);
        bench.settle();
        const std::string file = bench.folder().file("frame.png");
        const auto drawn = test::run_command(test::program_folder() + "/lacquer-cli render " + test::demo_path() +
                                             " --tape " + tape + " --at " + std::to_string(time) + " -o " + file);
        REQUIRE(drawn.code == 0);
        const QImage picture = QImage(qs(file)).convertToFormat(QImage::Format_RGBA8888);
        REQUIRE(bench.drawing().stage().image.size() == picture.size());
        const QImage shown = bench.drawing().stage().image.convertToFormat(QImage::Format_RGBA8888);
        CHECK(std::memcmp(shown.constBits(), picture.constBits(), static_cast<std::size_t>(shown.sizeInBytes())) == 0);
    }
}

TEST_CASE("frames of a tape are written one by one, numbered") {
    const test::TemporaryFolder folder;
    const auto result = test::run_command(
        test::program_folder() + "/lacquer-cli render " + test::demo_path() + " --tape " + LACQUER_SOURCE +
        "/demo/tapes/gale-night.tape --frames 0.5 --scale 0.1 -o " + folder.file("gale.png"));
    INFO(result.output);
    REQUIRE(result.code == 0);
    for (const char* name : {"gale-0000.png", "gale-0005.png"}) CHECK(std::filesystem::exists(folder.file(name)));
    CHECK_FALSE(std::filesystem::exists(folder.file("gale-0006.png")));
}

TEST_CASE("pads on the rehearse screen: pressed, random, chosen, and one that adds a cue") {
    BenchWindow bench(test::demo_path());
    bench.action("clear_tape");
    rehearse(bench);
    CuePads& pads = bench.window().rehearse().pads();
    bench.playing().set_time(1);
    bench.click(&pads, pads.pad_area(0).topLeft() + QPoint(20, 12));
    REQUIRE(cues(bench).size() == 1);
    CHECK(cues(bench)[0] == Cue{"hit", 1, 0.8, 20});
    // With Shift the weakest of random ones is dragged.
    QTest::mouseClick(&pads, Qt::LeftButton, Qt::ShiftModifier, pads.strength_area(0).center() - QPoint(20, 0));
    const CueKind kind = bench.document().finish().cues[0];
    REQUIRE(kind.weakest);
    CHECK(*kind.weakest < kind.strength);
    bench.playing().set_random([] { return 0.25; });
    bench.key(Qt::Key_1);
    REQUIRE(cues(bench).size() == 2);
    CHECK(cues(bench)[1].strength == Approx(*kind.weakest + 0.25 * (kind.strength - *kind.weakest)));
    bench.click(&pads, pads.pad_area(1).center());
    CHECK(bench.document().finish().cues.size() == 2);
    CHECK(bench.window().rehearse().shows_page());
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(bench.window().rehearse().shows_page());
    bench.key(Qt::Key_2);
    CHECK(cues(bench).back().name == bench.document().finish().cues[1].name);
}

TEST_CASE("while it plays, pads play live and leave the tape as it is; the next round is without them") {
    BenchWindow bench(test::demo_path());
    bench.action("clear_tape");
    rehearse(bench);
    bench.key(Qt::Key_Space);
    let_pass(bench, 0.5);
    bench.key(Qt::Key_1);
    let_pass(bench, 0.2);
    CHECK(dial(bench, "radius") < 1);
    CHECK(cues(bench).empty());
    CHECK(bench.playing().played().cues.size() == 1);
    // The picture follows what is live.
    bench.wait_for([&] { return bench.drawing().settled(); });
    bench.key(Qt::Key_K, Qt::ControlModifier);
    CHECK(cues(bench).size() == 1);
    CHECK_FALSE(bench.playing().has_live());
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(cues(bench).empty());
    bench.key(Qt::Key_1);
    CHECK(bench.playing().has_live());
    bench.playing().set_loop(0, 2);
    let_pass(bench, 2);
    CHECK(bench.playing().played().cues.empty());
    CHECK(dial(bench, "radius") == 1.4F);
    bench.key(Qt::Key_Space);
}

TEST_CASE("what is recorded goes on the tape as one change, at the times at which it was pressed") {
    BenchWindow bench(test::demo_path());
    bench.action("clear_tape");
    rehearse(bench);
    bench.action("add_signal");
    bench.key(Qt::Key_Escape);
    bench.playing().set_time(0);
    bench.key(Qt::Key_Space, Qt::ShiftModifier);
    REQUIRE(bench.playing().recording());
    let_pass(bench, 0.5);
    bench.key(Qt::Key_1);
    let_pass(bench, 0.25);
    bench.playing().set_signal("health", {40, 0, 0});
    // A dial that is moved meanwhile takes nothing away.
    bench.playing().set_dial("softness", {0.3, 0, 0});
    let_pass(bench, 0.25);
    bench.key(Qt::Key_1);
    CHECK(cues(bench).empty());
    bench.key(Qt::Key_Space);
    CHECK_FALSE(bench.playing().recording());
    REQUIRE(cues(bench).size() == 2);
    CHECK(cues(bench)[0].at == Approx(0.5).margin(0.011));
    CHECK(cues(bench)[1].at == Approx(1).margin(0.021));
    REQUIRE(bench.document().finish().tape.changes.size() == 1);
    CHECK(bench.document().finish().tape.changes[0].value[0] == 40);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.document().finish().tape.empty());
    CHECK(find_dial(bench.document().finish(), "softness")->value[0] == 0.3);
}

TEST_CASE("leaving in the middle of a recording asks about it, and loses nothing") {
    BenchWindow bench(test::demo_path());
    bench.action("clear_tape");
    bench.to_save = qs(bench.folder().file("mine.lacquer"));
    bench.action("save_finish_as");
    bench.action("record");
    bench.key(Qt::Key_1);
    bench.unsaved = Unsaved::stay;
    const int asked = bench.questions;
    bench.action("new_finish");
    CHECK(bench.questions == asked + 1);
    CHECK(cues(bench).size() == 1);
    bench.playing().set_playing(false);
}

TEST_CASE("slow motion, a loop over a part, and stopping at the end") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    bench.key(Qt::Key_J);
    bench.key(Qt::Key_J);
    CHECK(bench.playing().speed() == 0.25);
    bench.key(Qt::Key_Space);
    let_pass(bench, 1);
    CHECK(bench.playing().time() == Approx(0.25).margin(0.01));
    bench.key(Qt::Key_Space);
    bench.key(Qt::Key_J);
    bench.key(Qt::Key_J);
    CHECK(bench.playing().speed() == 1);
    // Shift and drag on the rule chooses the part.
    QWidget* view = plot(bench);
    QTest::mousePress(view, Qt::LeftButton, Qt::ShiftModifier, QPoint(lanes(bench).x_of(2), 8));
    QMouseEvent move(QEvent::MouseMove, QPoint(lanes(bench).x_of(3), 8),
                     view->mapToGlobal(QPoint(lanes(bench).x_of(3), 8)), Qt::NoButton, Qt::LeftButton,
                     Qt::ShiftModifier);
    QApplication::sendEvent(view, &move);
    QTest::mouseRelease(view, Qt::LeftButton, Qt::ShiftModifier, QPoint(lanes(bench).x_of(3), 8));
    CHECK(bench.playing().loop_from() == Approx(2).margin(0.02));
    CHECK(bench.playing().loop_to() == Approx(3).margin(0.02));
    bench.playing().set_time(2.9);
    bench.key(Qt::Key_Space);
    let_pass(bench, 0.3);
    CHECK(bench.playing().time() == Approx(2.2).margin(0.03));
    bench.action("loop");
    let_pass(bench, 1);
    CHECK_FALSE(bench.playing().playing());
    CHECK(bench.playing().time() == Approx(3).margin(0.02));
    QTest::mouseClick(view, Qt::LeftButton, Qt::ShiftModifier, QPoint(lanes(bench).x_of(1), 8));
    CHECK(bench.playing().loop_to() == bench.document().finish().length);
}

TEST_CASE("cues in the lanes are moved, made stronger, copied, typed and taken off") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    const Cues before = cues(bench);
    QWidget* view = plot(bench);
    const int y = lanes(bench).lane_area("").center().y() + 8;
    const auto at = [&](double seconds) { return QPoint(lanes(bench).x_of(seconds), y); };
    bench.drag(view, at(3), at(2));
    CHECK(cues(bench)[1].at == Approx(2).margin(0.02));
    CHECK(cues(bench)[1].strength == before[1].strength);
    CHECK(lanes(bench).has_choice());
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(cues(bench) == before);  // a drag is one change
    bench.click(view, at(3));
    bench.key(Qt::Key_Right, Qt::ShiftModifier);
    CHECK(cues(bench)[1].at == Approx(3 + 10.0 / 60));
    bench.key(Qt::Key_Up);
    CHECK(cues(bench)[1].strength == Approx(0.5));
    bench.key(Qt::Key_Return);
    bench.type("1.25 s, 0.75");
    bench.key(Qt::Key_Return);
    CHECK(cues(bench)[1].at == 1.25);
    CHECK(cues(bench)[1].strength == 0.75);
    bench.key(Qt::Key_C, Qt::ControlModifier);
    CHECK(cues(bench).size() == before.size() + 1);
    bench.key(Qt::Key_Delete);
    CHECK(cues(bench).size() == before.size());
    // A frame about several chooses them all.
    bench.drag(view, QPoint(lanes(bench).x_of(0.2), y - 24), QPoint(lanes(bench).x_of(3.8), y));
    CHECK(lanes(bench).chosen().size() == 3);
    bench.key(Qt::Key_Escape);
    CHECK(lanes(bench).chosen().empty());
    QTest::mouseDClick(view, Qt::LeftButton, {}, at(5));
    CHECK(cues(bench).back().at == Approx(5).margin(0.02));
}

TEST_CASE("time in the lanes: scrubbed, nearer by the wheel, and all of it again") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    QWidget* view = plot(bench);
    bench.drag(view, QPoint(lanes(bench).x_of(1), 8), QPoint(lanes(bench).x_of(3.6), 8));
    CHECK(bench.playing().time() == Approx(3.6).margin(0.02));
    const QPoint place(lanes(bench).x_of(3), 100);
    QWheelEvent wheel(place, view->mapToGlobal(place), {}, {0, 240}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                      false);
    QApplication::sendEvent(view, &wheel);
    CHECK(lanes(bench).view().to - lanes(bench).view().from == Approx(3).margin(1e-6));
    CHECK(lanes(bench).x_of(3) == Approx(place.x()).margin(1));
    bench.action("time_farther");
    bench.action("all_time");
    CHECK(lanes(bench).view().shows_all(bench.document().finish().length));
}

TEST_CASE("a response is changed by dragging a number, and its lane changes with it") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    bench.click(plot(bench), QPoint(40, lanes(bench).lane_area("radius").center().y()));
    REQUIRE(bench.window().rehearse().shows_page());
    const auto before = lanes(bench).traces().at("radius").lines;
    const std::size_t changes = bench.document().history().size();
    auto* label = bench.find<QWidget>("play_form")->findChild<QLabel*>(QStringLiteral("label_fall"));
    REQUIRE(label != nullptr);
    bench.drag(label, QPoint(4, 4), QPoint(24, 4));
    const double fall = *number_of(bench.document().finish().responses[0], "fall");
    CHECK(fall > 1.1);
    CHECK(lanes(bench).traces().at("radius").lines != before);
    CHECK(bench.document().history().size() == changes + 1);
    // An argument can be a formula, and a wrong one is told on the spot.
    auto* field = bench.find<QWidget>("play_form")->findChild<QLineEdit*>(QStringLiteral("field_most"));
    REQUIRE(field != nullptr);
    field->setFocus();
    field->selectAll();
    bench.type("softnes / 2");
    bench.key(Qt::Key_Return);
    auto* words = bench.find<QWidget>("play_form")->findChild<QLabel*>(QStringLiteral("field_words"));
    CHECK(words->text().contains(QStringLiteral("did you mean softness?")));
}

TEST_CASE("signals: faders, switches, and a place that is dragged through a zone") {
    BenchWindow bench(test::demo_path());
    Finish finish = bench.document().finish();
    finish.tape = Tape();
    finish.signals = {{"hull", SignalKind::integer, 0, 100, {100, 0, 0}},
                      {"storm", SignalKind::toggle},
                      {"keeper", SignalKind::place, 0, 1, {0.2, 0.5, 0}},
                      {"in_spray", SignalKind::toggle, 0, 1, {}, "", "", {"keeper", 0.7, 0.5, 0.2}}};
    bench.document().edit(finish, QStringLiteral("signals"));
    rehearse(bench);
    bench.playing().set_time(2);
    SignalFaders& faders = bench.window().rehearse().faders();
    const QRect hull = faders.groove(0);
    bench.drag(&faders, QPoint(hull.right(), hull.center().y()),
               QPoint(hull.left() + hull.width() / 4, hull.center().y()));
    CHECK(dial(bench, "hull") == Approx(25).margin(1));
    CHECK(setting_from(bench.playing().values().at("hull.share"))[0] == Approx(0.25).margin(0.01));
    bench.click(&faders, faders.groove(1).topLeft() + QPoint(8, 4));
    CHECK(dial(bench, "storm") == 1);
    const std::size_t before = bench.document().finish().tape.changes.size();
    StageView& stage = bench.window().stage();
    const QPoint from = stage.place_point("keeper");
    const QPoint to = stage.screen_point(QPoint(static_cast<int>(0.7 * 1280), 360));
    bench.drag(&stage, from, to);
    CHECK(dial(bench, "keeper") == Approx(0.7).margin(0.01));
    CHECK(dial(bench, "in_spray") == 1);
    CHECK(bench.document().finish().tape.changes.size() == before + 2);
    bench.drag(&stage, stage.place_point("keeper"), from);
    CHECK(dial(bench, "in_spray") == 0);
    // On the tape they can be moved.
    const QRect lane = lanes(bench).lane_area("storm");
    bench.drag(plot(bench), QPoint(lanes(bench).x_of(2), lane.center().y()),
               QPoint(lanes(bench).x_of(4), lane.center().y()));
    const Changes moved = changes_of(bench.document().finish().tape, "storm");
    REQUIRE(moved.size() == 1);
    CHECK(moved[0].at == Approx(4).margin(0.03));
}

TEST_CASE("a click in the picture plays the chosen cue there, on the object that is there") {
    BenchWindow bench(test::demo_path("touched-chart"));
    bench.action("clear_tape");
    rehearse(bench);
    bench.playing().set_time(1);
    bench.settle();
    StageView& stage = bench.window().stage();
    const QPoint pixel(static_cast<int>(0.47 * 1280), static_cast<int>(0.55 * 720));
    bench.click(&stage, stage.screen_point(pixel));
    bench.wait_for([&] { return !cues(bench).empty(); });
    CHECK(cues(bench)[0].x == Approx(0.47).margin(0.003));
    CHECK(cues(bench)[0].y == Approx(0.55).margin(0.003));
    CHECK(cues(bench)[0].object == 7);  // the chart on the table
    CHECK(cues(bench)[0].at == 1);
}

TEST_CASE("the frame-rate check runs from its button and is green for the demo") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    bench.action("check_rates");
    bench.wait_for([&] { return bench.drawing().rates() != nullptr; });
    CHECK(bench.drawing().rates()->same());
    const QString told = bench.window().rehearse().rates().lines().join(QLatin1Char('\n'));
    CHECK(told.contains(QStringLiteral("✓")));
    CHECK_FALSE(told.contains(QStringLiteral("✗")));
    // What was changed since is not checked yet.
    bench.playing().set_dial("softness", {0.3, 0, 0});
    CHECK(bench.drawing().rates() == nullptr);
}

TEST_CASE("tapes are saved and taken; an odd one is refused with the reason") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    bench.to_save = qs(bench.folder().file("mine"));
    bench.action("save_tape");
    Faults notices;
    const auto read = load_tape(bench.folder().file("mine.tape"), notices);
    REQUIRE(read);
    CHECK(read->tape == bench.document().finish().tape);
    test::write_file(bench.folder().file("odd.tape"), "not a tape");
    bench.to_open = qs(bench.folder().file("odd.tape"));
    const Tape before = bench.document().finish().tape;
    bench.action("open_tape");
    CHECK(bench.document().finish().tape == before);
    CHECK(bench.last_said.contains(QStringLiteral("odd.tape")));
}

TEST_CASE("a dial that is shared is changed in one finish and followed by the other") {
    BenchWindow one(test::demo_path());
    one.to_save = qs(one.folder().file("one.lacquer"));
    one.action("save_finish_as");
    one.to_save = qs(one.folder().file("weather"));
    CHECK(one.document().share_dial("softness", true).isEmpty());
    CHECK(one.document().finish().shared_dials == "weather.dials");
    one.action("save_finish");
    REQUIRE(std::filesystem::exists(one.folder().file("weather.dials")));

    Finish empty;
    empty.name = "Two";
    empty.shared_dials = "weather.dials";
    REQUIRE(save_finish(one.folder().file("two.lacquer"), empty));
    BenchWindow two(one.folder().file("two.lacquer"));
    two.action("take_shared");
    if (QWidget* menu = QApplication::activePopupWidget()) menu->close();
    const Dial* taken = find_dial(two.document().finish(), "softness");
    REQUIRE(taken != nullptr);
    CHECK(taken->value[0] == 0.45);

    one.playing().set_dial("softness", {0.2, 0, 0});
    one.action("save_finish");
    two.wait_for([&] { return find_dial(two.document().finish(), "softness")->value[0] == 0.2; });
    CHECK(two.last_said.contains(QStringLiteral("changed elsewhere")));
}

TEST_CASE("a shared dial that is turned right after it was saved keeps its value") {
    BenchWindow bench(test::demo_path());
    bench.to_save = qs(bench.folder().file("one.lacquer"));
    bench.action("save_finish_as");
    bench.to_save = qs(bench.folder().file("weather"));
    CHECK(bench.document().share_dial("softness", true).isEmpty());
    bench.settle();
    QSignalSpy told(&bench.document(), &Document::files_changed);
    bench.action("save_finish");
    bench.playing().set_dial("softness", {0.2, 0, 0});
    // The document hears of the file that it wrote itself.
    bench.wait_for([&] { return !told.isEmpty(); });
    bench.settle_disk();
    CHECK(find_dial(bench.document().finish(), "softness")->value[0] == 0.2);
}

TEST_CASE("what is done on the bench is not done to what is out of sight") {
    BenchWindow bench(test::demo_path());
    rehearse(bench);
    const Finish before = bench.document().finish();
    bench.key(Qt::Key_Delete, Qt::ShiftModifier);
    bench.key(Qt::Key_A);
    CHECK(bench.document().finish() == before);
    CHECK(bench.last_said.contains(QStringLiteral("on the bench")));
}
