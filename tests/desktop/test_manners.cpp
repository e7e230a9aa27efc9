// What people take for granted in a program with windows: that a command works on what it was called on, that nothing
// is replaced unasked, that keys press what has the focus.
#include <QAction>
#include <QApplication>
#include <QContextMenuEvent>
#include <QDir>
#include <QElapsedTimer>
#include <QLineEdit>
#include <QMenu>
#include <QPushButton>
#include <QTest>
#include <QTimer>
#include <catch2/catch.hpp>

#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/step_edits.h"
#include "core/picture/write_picture.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/ground_adding.h"
#include "desktop/document/recovery.h"
#include "desktop/document/state_files.h"
#include "desktop/kit/chooser.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/help_card.h"
#include "desktop/shell/mnemonics.h"
#include "desktop/stage/stage_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// A place on a coat's heading, right of its name.
QPoint heading(BenchWindow& bench, std::size_t coat) {
    const QRect area = bench.window().ladder().heading_area(coat);
    REQUIRE_FALSE(area.isNull());
    return {area.left() + 90, area.center().y()};
}

QMenu* menu_at(BenchWindow& bench, QWidget* widget, QPoint at) {
    QContextMenuEvent event(QContextMenuEvent::Mouse, at, widget->mapToGlobal(at));
    QApplication::sendEvent(widget, &event);
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu != nullptr);
    bench.settle();
    return menu;
}

void trigger(QMenu* menu, const char* id) {
    for (QAction* action : menu->actions()) {
        if (action->objectName() != QString::fromLatin1(id)) continue;
        menu->close();
        return action->trigger();
    }
    FAIL("not in the menu: " << id);
}

}  // namespace

TEST_CASE("commands on a heading work on its coat, whatever step is selected") {
    BenchWindow bench(test::demo_path());
    bench.document().select("stained");
    const std::string first = bench.document().finish().coats[0].name;
    const std::string second = bench.document().finish().coats[1].name;
    REQUIRE(place_of(bench.document().finish(), "stained").coat == 1);
    QWidget* ladder = bench.ladder_view();

    trigger(menu_at(bench, ladder, heading(bench, 0)), "delete_coat");
    REQUIRE(bench.document().finish().coats.size() == 1);
    CHECK(bench.document().finish().coats[0].name == second);
    bench.document().undo();

    QTest::mouseDClick(ladder, Qt::LeftButton, {}, heading(bench, 0));
    bench.type("Salt water");
    bench.key(Qt::Key_Return);
    CHECK(bench.document().finish().coats[0].name == "Salt water");
    CHECK(bench.document().finish().coats[1].name == second);
    bench.document().undo();

    bench.click(ladder, heading(bench, 0));
    bench.key(Qt::Key_O, Qt::ShiftModifier);
    CHECK_FALSE(bench.document().finish().coats[0].on);
    CHECK(bench.document().finish().coats[1].on);
    bench.document().undo();

    // An empty coat has no step that could be selected.
    bench.key(Qt::Key_N, Qt::ControlModifier | Qt::AltModifier);
    REQUIRE(bench.document().finish().coats.size() == 3);
    REQUIRE(bench.document().finish().coats[1].steps.empty());
    trigger(menu_at(bench, ladder, heading(bench, 1)), "delete_coat");
    REQUIRE(bench.document().finish().coats.size() == 2);
    CHECK(bench.document().finish().coats[0].name == first);
    CHECK(bench.document().finish().coats[1].name == second);
    // Walking along the steps is about steps again, also at their end.
    bench.document().select("stained");
    bench.click(ladder, heading(bench, 0));
    bench.key(Qt::Key_Down);
    bench.key(Qt::Key_O, Qt::ShiftModifier);
    CHECK_FALSE(bench.document().finish().coats[1].on);
    bench.document().undo();
    // So is selecting one.
    bench.click(ladder, heading(bench, 0));
    bench.document().select("rim");
    bench.document().select("stained");
    bench.key(Qt::Key_O, Qt::ShiftModifier);
    CHECK_FALSE(bench.document().finish().coats[1].on);
}

TEST_CASE("folding by a click says which way it went") {
    BenchWindow bench(test::demo_path());
    const QRect area = bench.window().ladder().heading_area(0);
    bench.click(bench.ladder_view(), QPoint(area.left() + 10, area.center().y()));
    CHECK(bench.last_said.startsWith(QStringLiteral("Folded")));
    bench.click(bench.ladder_view(), QPoint(area.left() + 10, area.center().y()));
    CHECK(bench.last_said.startsWith(QStringLiteral("Unfolded")));
}

TEST_CASE("a file whose ending was added is not replaced unasked") {
    BenchWindow bench(test::demo_path());
    for (const auto& [action, ending] :
         {std::pair{"save_finish_as", ".lacquer"}, {"save_tape", ".tape"}, {"save_picture", ".png"}}) {
        INFO(action);
        const std::string there = bench.folder().file(std::string("mine") + ending);
        test::write_file(there, "precious");
        bench.to_save = qs(bench.folder().file("mine"));
        bench.questions = 0;
        bench.may_replace = false;
        bench.action(action);
        CHECK(bench.questions == 1);
        CHECK(test::read_file(there) == "precious");
        bench.may_replace = true;
        bench.action(action);
        bench.wait_for([&] { return test::read_file(there) != "precious"; });
        bench.wait_for([&] { return !bench.document().background().busy(); });
        // With its ending the file was chosen as it is called.
        bench.questions = 0;
        bench.to_save = qs(there);
        bench.action(action);
        CHECK(bench.questions == 0);
    }
}

TEST_CASE("Space presses the button that has the focus, and runs time elsewhere") {
    BenchWindow bench(test::demo_path());
    auto* tab = bench.find<QPushButton>("tab_rehearse");
    tab->setFocus();
    bench.key(Qt::Key_Space);
    CHECK_FALSE(bench.playing().playing());
    CHECK(bench.window().rehearses());
    bench.action("bench");
    bench.window().ladder().setFocus();
    bench.key(Qt::Key_Space);
    CHECK(bench.playing().playing());
    bench.playing().set_playing(false);
}

TEST_CASE("a cue's key that is held is one cue") {
    BenchWindow bench(test::demo_path());
    CHECK_FALSE(bench.window().findChild<QAction*>(QStringLiteral("cue_1"))->autoRepeat());
    CHECK(bench.window().findChild<QAction*>(QStringLiteral("frame_on"))->autoRepeat());
}

TEST_CASE("every menu and every entry has a letter of its own") {
    BenchWindow bench(test::demo_path());
    QSet<QChar> letters;
    QSet<QString> alt;
    for (const QAction* action : bench.window().findChildren<QAction*>()) alt.insert(action->shortcut().toString());
    int menus = 0;
    for (const QPushButton* button : bench.window().findChildren<QPushButton*>()) {
        if (button->menu() == nullptr) continue;
        ++menus;
        const qsizetype at = button->text().indexOf(QLatin1Char('&'));
        REQUIRE(at >= 0);
        const QChar letter = button->text().at(at + 1).toLower();
        CHECK_FALSE(letters.contains(letter));
        CHECK_FALSE(alt.contains(QStringLiteral("Alt+") + letter.toUpper()));
        letters.insert(letter);
    }
    CHECK(menus == 11);
    QSet<QChar> taken;
    CHECK(with_mnemonic(QStringLiteral("Save"), taken) == QStringLiteral("&Save"));
    CHECK(with_mnemonic(QStringLiteral("Save as"), taken) == QStringLiteral("Save &as"));
    CHECK(with_mnemonic(QStringLiteral("Sea"), taken) == QStringLiteral("S&ea"));
    CHECK(with_mnemonic(QStringLiteral("as"), taken) == QStringLiteral("as"));
}

TEST_CASE("a steady drag shows pictures while it goes on") {
    BenchWindow bench;
    // A tenth of a second and more for each frame, however small it is drawn.
    Finish slow = test::finish_of(
        {{"slow", "float s = 0.0; for (int i = 0; i < 20000; i++) s += sin(float(i) + uv.x); return s * 0.0001;"}});
    slow.frame_width = slow.frame_height = 64;
    bench.document().edit(std::move(slow), QStringLiteral("slow"));
    int came = 0;
    QObject::connect(&bench.drawing(), &Drawing::stage_came, [&] { ++came; });
    bench.document().set_interacting(true);
    // Moves that follow one another faster than the window waits for a picture.
    QElapsedTimer since;
    since.start();
    for (int move = 0; since.elapsed() < 600; ++move) {
        Finish changed = bench.document().finish();
        changed.coats[0].steps[0].note = std::to_string(move);
        bench.document().edit(std::move(changed), QStringLiteral("moved"), "drag");
        QTest::qWait(5);
    }
    bench.document().set_interacting(false);
    CHECK(came >= 4);
}

TEST_CASE("the check of frame rates lets time stand, ends, and can be stopped") {
    BenchWindow bench(test::demo_path());
    bench.playing().set_playing(true);
    bench.action("check_rates");
    CHECK_FALSE(bench.playing().playing());
    CHECK(bench.drawing().checking_rates());
    bench.action("check_rates");
    CHECK_FALSE(bench.drawing().checking_rates());
    CHECK(bench.last_said.startsWith(QStringLiteral("Stopped")));
    bench.action("check_rates");
    bench.playing().set_playing(true);
    CHECK_FALSE(bench.drawing().checking_rates());
    bench.playing().set_playing(false);
    bench.action("check_rates");
    QElapsedTimer since;
    since.start();
    while (bench.drawing().rates() == nullptr && since.elapsed() < 60000) QTest::qWait(20);
    CHECK(bench.drawing().rates() != nullptr);
}

TEST_CASE("help that was opened over a field which is gone by then closes without harm") {
    BenchWindow bench(test::demo_path());
    bench.document().select("torn");
    bench.action("finish_page");
    auto* name = bench.find<QLineEdit>("field_name");
    name->setFocus();
    name->selectAll();
    bench.type("Another name");
    bench.key(Qt::Key_F1);
    delete name;
    bench.key(Qt::Key_F1);
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(bench.window().findChild<HelpCard*>()->isVisible());
}

TEST_CASE("the shelf has a menu, by which a ground is deleted") {
    BenchWindow bench(test::demo_path());
    bench.key(Qt::Key_G, Qt::ShiftModifier);
    GroundShelf& shelf = bench.window().shelf();
    const std::string name = bench.document().finish().grounds.front().name;
    const std::size_t before = bench.document().finish().grounds.size();
    trigger(menu_at(bench, shelf.viewport(), shelf.card_area(name).center()), "delete_ground");
    CHECK(bench.document().finish().grounds.size() == before - 1);
    CHECK(find_ground(bench.document().finish(), name) == nullptr);
}

TEST_CASE("a finish on a picture has its size, whatever its format") {
    Picture picture(320, 200, 4);
    const WrittenLayer layer{"", &picture, false};
    for (const char* file : {"a.png", "a.exr", "a.tif", "a.webp"}) {
        INFO(file);
        BenchWindow bench;
        const std::string path = bench.folder().file(file);
        REQUIRE(write_picture(path, {&layer, 1}, {}));
        REQUIRE(start_from_picture(bench.document(), qs(path)));
        CHECK(bench.document().finish().frame_width == 320);
        CHECK(bench.document().finish().frame_height == 200);
    }
}

TEST_CASE("Escape in a field leaves what was there") {
    BenchWindow bench(test::demo_path());
    bench.action("finish_page");
    auto* name = bench.find<QLineEdit>("field_name");
    const std::string before = bench.document().finish().name;
    name->setFocus();
    name->selectAll();
    bench.type("half ty");
    bench.key(Qt::Key_Escape);
    CHECK(bench.document().finish().name == before);
}

TEST_CASE("work that is given up for another finish is kept until that is open") {
    BenchWindow bench(test::demo_path());
    bench.playing().set_dial("grain", {0.9, 0, 0});
    const QDir store(QString::fromStdString(state_folder("unsaved").string()));
    const auto kept = [&] { return store.entryList({QStringLiteral("*.lacquer")}, QDir::Files).size(); };
    const auto before = kept();
    REQUIRE(keep_for_recovery(bench.document().path(), bench.document().finish()));
    REQUIRE(kept() == before + 1);
    // The question is answered, but no file is chosen.
    bench.unsaved = Unsaved::discard;
    bench.to_open.clear();
    bench.action("open_finish");
    CHECK(kept() == before + 1);
    bench.key(Qt::Key_N, Qt::ControlModifier);
    bench.wait_for([&] { return kept() == before; });
}

TEST_CASE("D shows which numbers can be a dial before it adds one that nothing uses") {
    BenchWindow bench(test::demo_path());
    const std::size_t before = bench.document().finish().dials.size();
    bench.document().select("torn");
    REQUIRE(bench.formula_of("torn").find_first_of("0123456789") != std::string::npos);
    bench.window().ladder().setFocus();
    bench.key(Qt::Key_D);
    CHECK(bench.document().finish().dials.size() == before);
    CHECK(bench.window().ladder().choosing_value());
    bench.key(Qt::Key_Return);
    REQUIRE(bench.document().finish().dials.size() == before + 1);
    CHECK(bench.formula_of("torn").find(bench.document().finish().dials.back().name) != std::string::npos);
    bench.document().undo();
    bench.window().ladder().setFocus();
    bench.document().select("rim");
    bench.document().select("torn");
    bench.key(Qt::Key_D);
    bench.key(Qt::Key_D);
    CHECK(bench.document().finish().dials.size() == before + 1);
    CHECK(bench.formula_of("torn").find(bench.document().finish().dials.back().name) == std::string::npos);
}

TEST_CASE("what is listed to choose from goes away when the finish changes under it") {
    // A hand that never tires found this: the entries of a menu named grounds of a finish that was there no longer.
    BenchWindow bench(test::demo_path("moving-wall"));
    bench.action("ground_page");
    auto* menu = bench.find<QMenu>("page_menu");
    REQUIRE(menu->isVisible());
    Finish changed = bench.document().finish();
    changed.name = "Another";
    bench.document().edit(changed, QStringLiteral("a name"));
    CHECK_FALSE(menu->isVisible());

    bench.action("history");
    REQUIRE(bench.window().chooser().isVisible());
    bench.document().open(qs(test::demo_path()));
    CHECK_FALSE(bench.window().chooser().isVisible());
    bench.document().go_to(1000);
    CHECK(bench.document().finish().name == "Squall strike");
}

TEST_CASE("a name that is being typed when another finish comes belongs to the one that is left") {
    // Found by a hand that never tires: the line stayed open, and its text went to a step that was there no longer.
    BenchWindow bench(test::demo_path("daze"));
    bench.action("add_step");
    REQUIRE(qobject_cast<QLineEdit*>(QApplication::focusWidget()) != nullptr);
    bench.type("swell");
    bench.unsaved = Unsaved::stay;
    bench.action("new_finish");
    // Asked, with the name as it was typed.
    CHECK(bench.questions == 1);
    CHECK(find_step(bench.document().finish(), "swell") != nullptr);
    bench.action("add_step");
    bench.unsaved = Unsaved::discard;
    bench.action("new_finish");
    bench.settle();
    const Finish fresh = bench.document().finish();
    bench.window().stage().setFocus();
    CHECK(bench.document().finish() == fresh);
    // And a window that goes takes what is typed while all of it is there.
    bench.action("add_step");
    bench.type("last");
}
