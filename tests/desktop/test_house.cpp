// The window as a whole: menus of things, keys of one's own, screens of any kind, screen readers.
#include <QAccessible>
#include <QAction>
#include <QApplication>
#include <QContextMenuEvent>
#include <QMenu>
#include <QPushButton>
#include <QTest>
#include <QWheelEvent>

#include "core/finish/edits.h"
#include "desktop/dials/dials_view.h"
#include "desktop/kit/wheel.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/rehearse/signal_faders.h"
#include "desktop/rehearse/time_rule.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/key_editor.h"
#include "desktop/shell/notice_bar.h"
#include "desktop/stage/stage_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

QMenu* menu_at(QWidget* widget, QPoint at) {
    QTest::mouseClick(widget, Qt::RightButton, {}, at);
    QContextMenuEvent event(QContextMenuEvent::Mouse, at, widget->mapToGlobal(at));
    QApplication::sendEvent(widget, &event);
    return qobject_cast<QMenu*>(QApplication::activePopupWidget());
}

QAction* in(QMenu* menu, const char* id) {
    for (QAction* action : menu->actions()) {
        if (action->objectName() == QLatin1String(id)) return action;
    }
    return nullptr;
}

}  // namespace

TEST_CASE("every kind of thing has a menu, made of actions, in which what cannot be done says why") {
    BenchWindow bench(test::demo_path("ailing-crab"));
    MainWindow& window = bench.window();
    struct Place {
        QWidget* widget;
        QPoint at;
        const char* action;
    };
    const auto look = [&](const Place& place) {
        INFO(place.action);
        QMenu* menu = menu_at(place.widget, place.at);
        REQUIRE(menu != nullptr);
        QAction* action = in(menu, place.action);
        CHECK(action != nullptr);
        for (const QAction* each : menu->actions()) {
            if (each->isSeparator()) continue;
            CHECK_FALSE(each->toolTip().isEmpty());
        }
        menu->close();
    };
    const QRect row = window.ladder().visible_area("edge");
    REQUIRE_FALSE(row.isNull());
    look({bench.ladder_view(), row.topLeft() + QPoint(100, 10), "group_steps"});
    look({bench.dials_view(), {40, 20}, "dial_page"});
    look({&window.stage(), window.stage().rect().center(), "save_picture"});
    look({&window.time_rule(), {200, 30}, "to_start"});
    bench.key(Qt::Key_G, Qt::ShiftModifier);
    look({window.shelf().viewport(), {40, 40}, "ground_page"});
    bench.key(Qt::Key_2, Qt::ControlModifier);
    look({window.rehearse().lanes().viewport(), {300, 60}, "all_time"});
    look({&window.rehearse().faders(), {20, 12}, "delete_signal"});

    // The signal whose menu it is, is the one that goes.
    const std::string first = bench.document().finish().signals.front().name;
    QMenu* menu = menu_at(&window.rehearse().faders(), {20, 12});
    REQUIRE(menu != nullptr);
    QAction* gone = in(menu, "delete_signal");
    menu->close();
    gone->trigger();
    CHECK(find_signal(bench.document().finish(), first) == nullptr);
    bench.document().undo();

    bench.key(Qt::Key_1, Qt::ControlModifier);
    menu = menu_at(&window.stage(), window.stage().rect().center());
    REQUIRE(menu != nullptr);
    QAction* camera = in(menu, "camera");
    CHECK_FALSE(camera->isEnabled());
    CHECK(camera->toolTip().contains(QStringLiteral("no stand-in scene")));
    menu->close();
    CHECK(camera->isEnabled());
}

TEST_CASE("any key can be changed; who had it is told, and buttons, tips and the sheet follow") {
    BenchWindow bench(test::demo_path());
    bench.action("change_key");
    bench.type("new coat");
    bench.key(Qt::Key_Return);
    KeyEditor& editor = bench.window().key_editor();
    REQUIRE(editor.isVisible());
    bench.key(Qt::Key_A);
    CHECK(editor.words().contains(QStringLiteral("Add step")));
    bench.key(Qt::Key_Return);
    CHECK_FALSE(editor.isVisible());
    CHECK(bench.last_said.contains(QStringLiteral("Add step has none now")));
    CHECK(bench.find<QAction>("add_coat")->shortcut() == QKeySequence(Qt::Key_A));
    CHECK(bench.find<QAction>("add_step")->shortcut().isEmpty());
    CHECK_FALSE(bench.find<QPushButton>("button_add_step")->text().contains(QStringLiteral("  A")));
    bench.window().ladder().setFocus();
    const std::size_t coats = bench.document().finish().coats.size();
    bench.key(Qt::Key_A);
    CHECK(bench.document().finish().coats.size() == coats + 1);
    // Escape leaves all as it was, Backspace takes a key away.
    bench.action("change_key");
    bench.type("new coat");
    bench.key(Qt::Key_Return);
    bench.key(Qt::Key_F9);
    bench.key(Qt::Key_Escape);
    CHECK(bench.find<QAction>("add_coat")->shortcut() == QKeySequence(Qt::Key_A));
    bench.action("change_key");
    bench.type("new coat");
    bench.key(Qt::Key_Return);
    bench.key(Qt::Key_Backspace);
    bench.key(Qt::Key_Return);
    CHECK(bench.find<QAction>("add_coat")->shortcut().isEmpty());
}

TEST_CASE("hints name the keys that there are") {
    const KeyNames keys{{QStringLiteral("add_step"), QStringLiteral("A")}, {QStringLiteral("add_coat"), QString()}};
    const auto told = [&](const char* words) { return with_keys(QString::fromUtf8(words), keys).toStdString(); };
    CHECK(told("add one ({add_step}), or {add_step}") == "add one (A), or A");
    CHECK(told("add a coat ({add_coat}).") == "add a coat.");
    CHECK(told("{ return 1; } {nothing}") == "{ return 1; } {nothing}");
    CHECK(told("{add_step") == "{add_step");
}

TEST_CASE("the stage is worked by keys: pointing, measuring, parting, moving") {
    BenchWindow bench(test::demo_path());
    StageView& stage = bench.window().stage();
    bench.key(Qt::Key_F8);
    REQUIRE(QApplication::focusWidget() == &stage);
    bench.key(Qt::Key_K);
    const QString before = stage.values_text().section(QLatin1Char('\n'), 0, 0);
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Down, Qt::ShiftModifier);
    CHECK(before == QStringLiteral("pixel 640, 360"));
    CHECK(stage.values_text().startsWith(QStringLiteral("pixel 641, 370")));
    bench.key(Qt::Key_Escape);
    bench.key(Qt::Key_Escape);
    bench.key(Qt::Key_C);
    const double at = bench.drawing().look().curtain_at;
    bench.key(Qt::Key_Left, Qt::ShiftModifier);
    CHECK(bench.drawing().look().curtain_at == Approx(at - 0.1));
    bench.key(Qt::Key_C);
    const QPoint corner = stage.screen_point({0, 0});
    bench.key(Qt::Key_Plus);
    bench.key(Qt::Key_Plus);
    CHECK(stage.screen_point({0, 0}) != corner);
    const QPoint larger = stage.screen_point({0, 0});
    bench.key(Qt::Key_Right);
    CHECK(stage.screen_point({0, 0}).x() < larger.x());
    bench.key(Qt::Key_Q);
    bench.key(Qt::Key_Return);
    CHECK(bench.last_said.startsWith(QStringLiteral("Copied #")));
}

TEST_CASE("a touchpad turns a number as far as a wheel does by the same angle") {
    Wheel wheel;
    const auto turned = [&](int eighths) {
        const QWheelEvent event(QPointF(), QPointF(), QPoint(), QPoint(0, eighths), Qt::NoButton, Qt::NoModifier,
                                Qt::NoScrollPhase, false);
        return wheel.notches(event);
    };
    CHECK(turned(120) == 1);
    CHECK(turned(-240) == -2);
    int sum = 0;
    for (int i = 0; i < 40; ++i) sum += turned(6);
    CHECK(sum == 2);
    CHECK(turned(60) == 0);
    CHECK(turned(-60) == 0);
    CHECK(turned(-60) == -1);
}

TEST_CASE("one picture pixel is one device pixel at 1:1, whatever the screen's scale", "[smoke]") {
    BenchWindow bench(test::demo_path());
    Finish small = bench.document().finish();
    small.frame_width = 201;
    small.frame_height = 113;
    bench.document().edit(std::move(small), QStringLiteral("small"));
    StageView& stage = bench.window().stage();
    bench.key(Qt::Key_Z);
    bench.settle();
    const QImage seen = stage.grab().toImage().convertToFormat(QImage::Format_RGB32);
    const QImage picture = bench.drawing().stage().image.convertToFormat(QImage::Format_RGB32);
    REQUIRE(picture.size() == QSize(201, 113));
    const double ratio = stage.devicePixelRatioF();
    REQUIRE(seen.width() == qRound(stage.width() * ratio));
    // The picture stands somewhere about the middle, whole and untouched.
    const QPointF corner = QPointF(stage.screen_point({0, 0})) * ratio;
    bool found = false;
    for (int dy = -3; dy <= 3 && !found; ++dy) {
        for (int dx = -3; dx <= 3 && !found; ++dx)
            found = seen.copy(qRound(corner.x()) + dx, qRound(corner.y()) + dy, 201, 113) == picture;
    }
    CHECK(found);
}

TEST_CASE("the layout is kept, also of the screen that was shown last, and never larger than the screen") {
    const test::TemporaryFolder folder;
    Settings settings(qs(folder.file("own.json")));
    Prompts prompts;
    prompts.unsaved_changes = [](const QString&) { return Unsaved::discard; };
    Models models(prompts, [] { return 0.0; });
    QList<int> widths;
    {
        MainWindow window(models, settings);
        CHECK(window.width() <= window.screen()->availableGeometry().width());
        CHECK(window.height() <= window.screen()->availableGeometry().height());
        window.resize(1100, 700);
        window.show();
        REQUIRE(QTest::qWaitForWindowExposed(&window));
        window.findChild<QAction*>(QStringLiteral("large_ladder"))->trigger();
        window.findChild<QAction*>(QStringLiteral("rehearse"))->trigger();
        window.close();
    }
    MainWindow again(models, settings);
    CHECK(again.size() == QSize(1100, 700));
    CHECK(again.rehearses());
    CHECK_FALSE(again.findChild<QAction*>(QStringLiteral("large_ladder"))->isChecked());
    again.resize(1024, 640);
    again.show();
    REQUIRE(QTest::qWaitForWindowExposed(&again));
    CHECK(again.size() == QSize(1024, 640));
}

TEST_CASE("screen readers find every row, card, lane and pad, and can work them") {
    BenchWindow bench(test::demo_path("ailing-crab"));
    bench.key(Qt::Key_G, Qt::ShiftModifier);
    bench.settle();
    const auto cells = [&](QWidget* view, int at_least) {
        QAccessibleInterface* list = QAccessible::queryAccessibleInterface(view);
        REQUIRE(list != nullptr);
        INFO(view->objectName().toStdString());
        CHECK_FALSE(list->text(QAccessible::Name).isEmpty());
        CHECK(list->childCount() >= at_least);
        for (int i = 0; i < list->childCount(); ++i) {
            QAccessibleInterface* cell = list->child(i);
            REQUIRE(cell != nullptr);
            CHECK_FALSE(cell->text(QAccessible::Name).isEmpty());
            CHECK(cell->parent() == list);
            CHECK(list->indexOfChild(cell) == i);
            if (cell->role() != QAccessible::Heading) {
                REQUIRE(cell->actionInterface() != nullptr);
                CHECK_FALSE(cell->actionInterface()->actionNames().isEmpty());
            }
        }
        return list;
    };
    MainWindow& window = bench.window();
    QAccessibleInterface* ladder = cells(&window.ladder(), 4);
    cells(&window.dials(), 2);
    cells(&window.shelf(), 1);
    cells(&window.rehearse().lanes(), 2);
    cells(&window.rehearse().faders(), 1);
    cells(&window.notice_bar(), 1);
    // What is done by way of them is done.
    QAccessibleInterface* row = ladder->child(1);
    row->actionInterface()->doAction(LadderView::tr("switch"));
    const std::string name = bench.document().finish().coats[0].steps[0].name;
    CHECK(bench.document().selected() == name);
    CHECK_FALSE(find_step(bench.document().finish(), name)->on);
    CHECK(row->state().selected);
    CHECK(row->rect().isValid());
    // All that takes the focus has a name.
    for (const QWidget* widget : window.findChildren<QWidget*>()) {
        if (widget->focusPolicy() == Qt::NoFocus || widget->objectName().startsWith(QStringLiteral("qt_"))) continue;
        QAccessibleInterface* told = QAccessible::queryAccessibleInterface(const_cast<QWidget*>(widget));
        INFO(widget->metaObject()->className() << " " << widget->objectName().toStdString());
        if (told != nullptr && widget->isVisible()) CHECK_FALSE(told->text(QAccessible::Name).isEmpty());
    }
    bench.key(Qt::Key_2, Qt::ControlModifier);
    QAccessibleInterface* faders = QAccessible::queryAccessibleInterface(&window.rehearse().faders());
    const auto before = bench.playing().signal_now(bench.document().finish().signals[0])[0];
    faders->child(0)->actionInterface()->doAction(SignalFaders::tr("less"));
    CHECK(bench.playing().signal_now(bench.document().finish().signals[0])[0] < before);
}
