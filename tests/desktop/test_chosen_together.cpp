// Several things at once: chosen by mouse and keys, moved, copied into another finish, dropped, deleted.
#include <QApplication>
#include <QClipboard>
#include <QDropEvent>
#include <QMimeData>
#include <QTest>
#include <QUrl>
#include <filesystem>

#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/step_edits.h"
#include "desktop/dials/dials_view.h"
#include "desktop/kit/chosen_names.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/rehearse/time_rule.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/notice_bar.h"
#include "desktop/stage/stage_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

const Finish& open_finish(BenchWindow& bench) { return bench.document().finish(); }

QPoint row_of(BenchWindow& bench, const char* step) {
    const QRect area = bench.window().ladder().visible_area(step);
    REQUIRE_FALSE(area.isNull());
    return {area.left() + 100, area.top() + 10};
}

void move_to(QWidget* widget, QPoint at) {
    QMouseEvent move(QEvent::MouseMove, at, widget->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(widget, &move);
}

}  // namespace

TEST_CASE("several steps are selected by mouse and keys, and moved, switched, copied, grouped and deleted together") {
    BenchWindow bench(test::demo_path());
    QWidget* ladder = bench.ladder_view();
    const auto names = [&] { return bench.document().selection(); };
    using Names = std::vector<std::string>;
    bench.click(ladder, row_of(bench, "reach"));
    QTest::mouseClick(ladder, Qt::LeftButton, Qt::ShiftModifier, row_of(bench, "torn"));
    CHECK(names() == Names{"reach", "spray", "torn"});
    QTest::mouseClick(ladder, Qt::LeftButton, Qt::ControlModifier, row_of(bench, "spray"));
    CHECK(names() == Names{"reach", "torn"});
    bench.key(Qt::Key_O);
    CHECK_FALSE(find_step(open_finish(bench), "reach")->on);
    CHECK_FALSE(find_step(open_finish(bench), "torn")->on);
    CHECK(find_step(open_finish(bench), "spray")->on);
    bench.key(Qt::Key_C, Qt::ControlModifier);
    const std::string text = QApplication::clipboard()->text().toStdString();
    CHECK(text.find("\"torn\"") != std::string::npos);
    CHECK(text.find("\"reach\"") != std::string::npos);
    bench.key(Qt::Key_Z, Qt::ControlModifier);

    bench.document().select("reach");
    bench.key(Qt::Key_Down, Qt::ShiftModifier);
    CHECK(names() == Names{"reach", "spray"});
    bench.key(Qt::Key_Up, Qt::AltModifier);
    CHECK(open_finish(bench).coats[0].steps[0].name == "reach");
    CHECK(open_finish(bench).coats[0].steps[1].name == "spray");
    CHECK(names() == Names{"reach", "spray"});
    // At the border nothing moves: the order among them stays.
    bench.key(Qt::Key_Up, Qt::AltModifier);
    CHECK(open_finish(bench).coats[0].steps[0].name == "reach");
    bench.document().undo();

    bench.key(Qt::Key_G, Qt::ControlModifier | Qt::AltModifier);
    bench.type("Own");
    bench.key(Qt::Key_Return);
    REQUIRE(open_finish(bench).coats.size() == 3);
    CHECK(open_finish(bench).coats[1].name == "Own");
    CHECK(open_finish(bench).coats[1].steps.size() == 2);
    bench.document().undo();
    bench.document().undo();

    bench.document().select("reach");
    bench.document().select_to("spray");
    const std::size_t before = step_count(open_finish(bench));
    bench.key(Qt::Key_Delete, Qt::ShiftModifier);
    CHECK(step_count(open_finish(bench)) == before - 2);
    CHECK(bench.document().selected() == "torn");
    CHECK(bench.document().history().undo_words() == "Deleted 2 steps");
    bench.key(Qt::Key_A, Qt::ControlModifier);
    CHECK(names().size() == before - 2);
}

TEST_CASE("a step dragged onto a heading goes into its coat, and Escape calls off any drag") {
    BenchWindow bench(test::demo_path());
    QWidget* ladder = bench.ladder_view();
    const QPoint from = row_of(bench, "reach");
    const QPoint heading = bench.window().ladder().heading_area(1).center();
    const Finish before = open_finish(bench);
    QTest::mousePress(ladder, Qt::LeftButton, {}, from);
    move_to(ladder, from + QPoint(0, 8));
    move_to(ladder, heading);
    bench.key(Qt::Key_Escape);
    QTest::mouseRelease(ladder, Qt::LeftButton, {}, heading);
    CHECK(open_finish(bench) == before);
    bench.drag(ladder, from, heading);
    CHECK(open_finish(bench).coats[1].steps.back().name == "reach");
    bench.document().undo();

    // A dial, a driven dial that is only held, and time.
    QWidget* dials = bench.dials_view();
    const auto drag_dial = [&](const char* name) {
        const QRect track = bench.window().dials().track_area(name);
        QTest::mousePress(dials, Qt::LeftButton, {}, track.center());
        move_to(dials, track.center() + QPoint(30, 0));
        QCoreApplication::processEvents();
    };
    drag_dial("haze");
    CHECK_FALSE(open_finish(bench) == before);
    bench.key(Qt::Key_Escape);
    CHECK(open_finish(bench) == before);
    move_to(dials, QPoint(20, 20));
    QTest::mouseRelease(dials, Qt::LeftButton, {}, QPoint(20, 20));
    CHECK(open_finish(bench) == before);
    CHECK(bench.last_said == QStringLiteral("Called off"));
    drag_dial("radius");
    CHECK_FALSE(bench.playing().held().empty());
    bench.key(Qt::Key_Escape);
    CHECK(bench.playing().held().empty());
    TimeRule& rule = bench.window().time_rule();
    QTest::mousePress(&rule, Qt::LeftButton, {}, QPoint(rule.x_of(2), 36));
    CHECK(bench.playing().time() > 1);
    bench.key(Qt::Key_Escape);
    CHECK(bench.playing().time() == 0);
}

TEST_CASE("dials and grounds are chosen together, and copied into another finish") {
    BenchWindow bench(test::demo_path());
    DialsView& dials = bench.window().dials();
    dials.setFocus();
    bench.key(Qt::Key_A, Qt::ControlModifier);
    const std::size_t all = open_finish(bench).dials.size();
    CHECK(dials.all_chosen().size() == all);
    bench.key(Qt::Key_C, Qt::ControlModifier);
    bench.action("delete_dial");
    CHECK(open_finish(bench).dials.empty());
    bench.key(Qt::Key_V, Qt::ControlModifier);
    CHECK(open_finish(bench).dials.size() == all);

    bench.key(Qt::Key_G, Qt::ShiftModifier);
    const std::string scene = open_finish(bench).grounds.front().name;
    bench.window().shelf().choose(scene);
    bench.window().shelf().setFocus();
    bench.key(Qt::Key_C, Qt::ControlModifier);
    bench.action("new_finish");
    bench.window().ladder().setFocus();
    bench.key(Qt::Key_V, Qt::ControlModifier);
    REQUIRE(open_finish(bench).grounds.size() == 1);
    bench.settle();
    CHECK(bench.drawing().stage().notices.empty());
}

TEST_CASE("several cues are chosen on their pads, copied into another finish, and deleted as one change") {
    BenchWindow bench(test::demo_path());
    Finish three = open_finish(bench);
    three.cues = {{"hit"}, {"gust"}, {"bell"}};
    bench.document().edit(three, QStringLiteral("three cues"));
    bench.action("rehearse");
    CuePads& pads = bench.window().rehearse().pads();
    const auto click = [&](int cue) {
        QTest::mouseClick(&pads, Qt::LeftButton, Qt::ControlModifier, pads.pad_area(cue).topLeft() + QPoint(20, 10));
    };
    const std::size_t pressed = open_finish(bench).tape.cues.size();
    click(1);
    click(2);
    CHECK(bench.playing().chosen_cues().all() == std::vector<std::string>{"gust", "bell"});
    CHECK(open_finish(bench).tape.cues.size() == pressed);
    bench.key(Qt::Key_C, Qt::ControlModifier);
    CHECK(bench.last_said.contains(QStringLiteral("2 cues")));
    const QString text = QGuiApplication::clipboard()->text();
    CHECK(text.contains(QStringLiteral("gust")));
    CHECK(text.contains(QStringLiteral("bell")));
    CHECK_FALSE(text.contains(QStringLiteral("\"hit\"")));
    const auto order = [&] {
        std::string all;
        for (const CueKind& cue : open_finish(bench).cues) all += cue.name + ' ';
        return all;
    };
    bench.key(Qt::Key_Left, Qt::ControlModifier | Qt::AltModifier);
    CHECK(order() == "gust bell hit ");
    bench.key(Qt::Key_Left, Qt::ControlModifier | Qt::AltModifier);
    CHECK(order() == "gust bell hit ");
    CHECK(bench.last_said.contains(QStringLiteral("'gust' is first already")));
    bench.key(Qt::Key_Right, Qt::ControlModifier | Qt::AltModifier);
    CHECK(order() == "hit gust bell ");
    bench.key(Qt::Key_Right, Qt::ControlModifier | Qt::AltModifier);
    CHECK(bench.last_said.contains(QStringLiteral("'bell' is last already")));
    bench.key(Qt::Key_Delete);
    CHECK(open_finish(bench).cues.size() == 1);
    CHECK(open_finish(bench).cues[0].name == "hit");
    bench.action("undo");
    CHECK(open_finish(bench).cues.size() == 3);
    pads.setFocus();
    bench.key(Qt::Key_A, Qt::ControlModifier);
    CHECK(bench.playing().chosen_cues().all().size() == 3);
    bench.action("bench");
    bench.document().edit(test::finish_of({{"a", "1"}}), QStringLiteral("another"));
    bench.window().ladder().setFocus();
    QGuiApplication::clipboard()->setText(text);
    bench.key(Qt::Key_V, Qt::ControlModifier);
    CHECK(open_finish(bench).cues.size() == 2);
}

TEST_CASE("a picture of another program becomes a ground; several dropped files are one change; a finish opens") {
    BenchWindow bench(test::demo_path());
    bench.to_save = qs(bench.folder().file("own.lacquer"));
    REQUIRE(bench.document().save_as());
    QImage picture(20, 10, QImage::Format_RGB32);
    picture.fill(Qt::red);
    QApplication::clipboard()->setImage(picture);
    const std::size_t before = open_finish(bench).grounds.size();
    bench.key(Qt::Key_V, Qt::ControlModifier);
    REQUIRE(open_finish(bench).grounds.size() == before + 1);
    const std::string path = picture_path(bench.document().path(), *path_of(open_finish(bench).grounds.back()));
    CHECK(QImage(qs(path)).size() == picture.size());

    const auto drop = [&](const QStringList& paths) {
        QMimeData data;
        QList<QUrl> urls;
        for (const QString& each : paths) urls.append(QUrl::fromLocalFile(each));
        data.setUrls(urls);
        QDragEnterEvent enter(QPoint(200, 200), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&bench.window(), &enter);
        QDropEvent event(QPointF(200, 200), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&bench.window(), &event);
    };
    const QString crab = QStringLiteral(LACQUER_SOURCE "/demo/pictures/crab.png");
    drop({crab, qs(path)});
    CHECK(open_finish(bench).grounds.size() == before + 3);
    bench.document().undo();
    CHECK(open_finish(bench).grounds.size() == before + 1);
    drop({QStringLiteral(LACQUER_SOURCE "/demo/tapes/gale-night.tape")});
    CHECK(bench.last_said.startsWith(QStringLiteral("Opened the tape")));
    drop({qs(test::demo_path("lamp-glow"))});
    CHECK(bench.document().path() == std::filesystem::path(test::demo_path("lamp-glow")).lexically_normal());
}

TEST_CASE("of several chosen things one is what commands work on, and some may go") {
    ChosenNames chosen;
    const std::vector<std::string> all{"a", "b", "c"};
    chosen.keep_among(all);
    CHECK(chosen.one() == "a");
    chosen.toggle("c", all);
    chosen.toggle("b", all);
    CHECK(chosen.all() == all);
    CHECK(chosen.one() == "b");
    chosen.keep_among({"a", "c"});
    CHECK(chosen.one() == "a");
    CHECK(chosen.all() == std::vector<std::string>{"a", "c"});
    chosen.toggle("a", {"a", "c"});
    chosen.toggle("c", {"a", "c"});
    CHECK(chosen.all() == std::vector<std::string>{"c"});
    chosen.keep_among({});
    CHECK(chosen.one().empty());
    CHECK(chosen.all().empty());
}
