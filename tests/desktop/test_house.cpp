// The window as a whole: several things at once, menus of things, keys of one's own, what was said, screens of any
// kind, screen readers, other languages.
#include <QAccessible>
#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QContextMenuEvent>
#include <QDropEvent>
#include <QLabel>
#include <QMenu>
#include <QMimeData>
#include <QPushButton>
#include <QTest>
#include <QTranslator>
#include <QUrl>
#include <QWheelEvent>
#include <filesystem>

#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/step_edits.h"
#include "desktop/dials/dials_view.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/chosen_names.h"
#include "desktop/kit/core_words.h"
#include "desktop/kit/key_names.h"
#include "desktop/kit/wheel.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/rehearse/cue_pads.h"
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

// Every text in marks, so that what was not translated stands out.
class Marks : public QTranslator {
public:
    QString translate(const char*, const char* text, const char*, int) const override {
        return QStringLiteral("⟦%1⟧").arg(QString::fromUtf8(text));
    }
    bool isEmpty() const override { return false; }
};

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
    look({bench.ladder_view(), row_of(bench, "edge"), "group_steps"});
    look({bench.dials_view(), {40, 20}, "dial_page"});
    look({&window.stage(), window.stage().rect().center(), "save_picture"});
    look({&window.time_rule(), {200, 30}, "to_start"});
    bench.key(Qt::Key_G, Qt::ShiftModifier);
    look({window.shelf().viewport(), {40, 40}, "ground_page"});
    bench.key(Qt::Key_2, Qt::ControlModifier);
    look({window.rehearse().lanes().viewport(), {300, 60}, "all_time"});
    look({&window.rehearse().faders(), {20, 12}, "delete_signal"});

    // The signal whose menu it is, is the one that goes.
    const std::string first = open_finish(bench).signals.front().name;
    QMenu* menu = menu_at(&window.rehearse().faders(), {20, 12});
    REQUIRE(menu != nullptr);
    QAction* gone = in(menu, "delete_signal");
    menu->close();
    gone->trigger();
    CHECK(find_signal(open_finish(bench), first) == nullptr);
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
    const std::size_t coats = open_finish(bench).coats.size();
    bench.key(Qt::Key_A);
    CHECK(open_finish(bench).coats.size() == coats + 1);
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
    Finish small = open_finish(bench);
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
    const std::string name = open_finish(bench).coats[0].steps[0].name;
    CHECK(bench.document().selected() == name);
    CHECK_FALSE(find_step(open_finish(bench), name)->on);
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
    const auto before = bench.playing().signal_now(open_finish(bench).signals[0])[0];
    faders->child(0)->actionInterface()->doAction(SignalFaders::tr("less"));
    CHECK(bench.playing().signal_now(open_finish(bench).signals[0])[0] < before);
}

TEST_CASE("another language reaches every menu, button, tip and label") {
    Marks marks;
    QCoreApplication::installTranslator(&marks);
    {
        BenchWindow bench(test::demo_path());
        const auto is_marked = [](const QString& text) { return text.contains(QStringLiteral("⟦")); };
        for (const ActionRow& row : action_rows()) {
            if (*row.id == '\0') continue;
            INFO(row.id);
            const auto* action = bench.find<QAction>(row.id);
            CHECK(is_marked(action->text()));
            CHECK(is_marked(action->toolTip()));
        }
        for (const auto* button : bench.window().findChildren<QPushButton*>()) {
            INFO(button->objectName().toStdString());
            if (!button->text().isEmpty()) CHECK(is_marked(button->text()));
        }
        for (const auto* label : bench.window().findChildren<QLabel*>()) {
            INFO(label->text().toStdString());
            if (label->text().contains(QRegularExpression(QStringLiteral("[A-Za-z]")))) CHECK(is_marked(label->text()));
        }
        for (const auto* widget : bench.window().findChildren<QWidget*>()) {
            INFO(widget->objectName().toStdString());
            if (!widget->accessibleName().isEmpty()) CHECK(is_marked(widget->accessibleName()));
            if (!widget->toolTip().isEmpty()) CHECK(is_marked(widget->toolTip()));
        }
        bench.key(Qt::Key_Z, Qt::ControlModifier);
        CHECK(is_marked(bench.last_said));
    }
    QCoreApplication::removeTranslator(&marks);
}

TEST_CASE("another language reaches what the core says, with the names and numbers where it has them") {
    const CoreSentence sentence = core_sentence(QStringLiteral("'torn' isn't read before row 3 of 'a 2' or -0.5, v2"));
    CHECK(sentence.words == QStringLiteral("%1 isn't read before row %2 of %3 or %4, v2"));
    CHECK(sentence.taken == QStringList({QStringLiteral("'torn'"), QStringLiteral("3"), QStringLiteral("'a 2'"),
                                         QStringLiteral("-0.5")}));
    CHECK(core_words("'torn' isn't") == QStringLiteral("'torn' isn't"));
    Marks marks;
    QCoreApplication::installTranslator(&marks);
    CHECK(core_words("row 3 reads '%1'") == QStringLiteral("⟦row 3 reads '%1'⟧"));
    {
        BenchWindow bench;
        bench.document().edit(test::finish_of({{"a", "uv.x + nothing_like_it"}}), QStringLiteral("broken"));
        const CheckedStep* step = find_step(bench.document().checked(), "a");
        REQUIRE(step->fault);
        CHECK(fault_words(*step->fault).startsWith(QStringLiteral("⟦")));
    }
    QCoreApplication::removeTranslator(&marks);
}

TEST_CASE("what is counted is one thing or several, in words") {
    CHECK(QObject::tr("%n step(s)", nullptr, 1) == QStringLiteral("1 step"));
    CHECK(QObject::tr("%n step(s)", nullptr, 0) == QStringLiteral("0 steps"));
    CHECK(QObject::tr("%n pass(es)", nullptr, 2) == QStringLiteral("2 passes"));
    CHECK(QObject::tr("so it stays (s)") == QStringLiteral("so it stays (s)"));
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
