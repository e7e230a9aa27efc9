// Every action of the table, triggered as people trigger it, by its key or else by its menu entry, and what it did.
#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QLineEdit>
#include <QListWidget>
#include <QMenu>
#include <QTest>
#include <filesystem>
#include <set>

#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/step_edits.h"
#include "desktop/code/code_side.h"
#include "desktop/code/code_text.h"
#include "desktop/code/find_bar.h"
#include "desktop/dials/dials_view.h"
#include "desktop/document/ground_adding.h"
#include "desktop/kit/chooser.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/rehearse/cue_pads.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/help_card.h"
#include "desktop/ship/ship_screen.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/transect_view.h"
#include "desktop/sweep/differences.h"
#include "desktop/sweep/sheet_view.h"
#include "desktop/sweep/sweep_screen.h"
#include "desktop/tryon/try_on_sheet.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

/// Triggers actions of some menus, and knows at its end whether any was left out.
class Menus {
public:
    Menus(BenchWindow& bench, std::set<std::string> menus) : bench_(bench), menus_(std::move(menus)) {}

    void press(const char* id) {
        done_.insert(id);
        auto* action = bench_.find<QAction>(id);
        const QKeySequence keys = action->shortcut();
        if (keys.isEmpty()) {
            action->trigger();
        } else {
            bench_.key(keys[0].key(), keys[0].keyboardModifiers());
        }
        // What runs with time never rests.
        if (!bench_.playing().playing()) bench_.settle();
    }

    /// The action makes `now` another value, and undo brings the finish back.
    template <class Value>
    void changes(const char* id, const Value& now) {
        INFO(id);
        const Finish before = bench_.document().finish();
        const auto was = now();
        press(id);
        CHECK_FALSE(now() == was);
        if (bench_.document().finish() == before) return;
        QAction* undo = bench_.find<QAction>("undo");
        CHECK(undo->text().contains(QStringLiteral("Undo: ")));
        for (int i = 0; i < 4 && bench_.document().finish() != before; ++i) bench_.document().undo();
        CHECK(bench_.document().finish() == before);
    }

    void check_all_done() const {
        for (const ActionRow& row : action_rows()) {
            if (*row.id == '\0' || !menus_.contains(row.menu)) continue;
            INFO(row.id << " was not triggered");
            CHECK(done_.contains(row.id));
        }
    }

private:
    BenchWindow& bench_;
    std::set<std::string> menus_;
    std::set<std::string> done_;
};

const Finish& finish_of(BenchWindow& bench) { return bench.document().finish(); }

bool has_field(BenchWindow& bench, const char* key) {
    for (const auto* field : bench.window().findChildren<QWidget*>(QStringLiteral("field_") + QLatin1String(key))) {
        if (field->isVisible()) return true;
    }
    return false;
}

std::string order_of(BenchWindow& bench) {
    std::string names;
    for_each_step(finish_of(bench), [&](const Coat& coat, const Step& step) { names += coat.name + step.name + " "; });
    return names;
}

std::string dials_of(BenchWindow& bench) {
    std::string names;
    for (const Dial& dial : finish_of(bench).dials) names += dial.name + " ";
    return names;
}

std::string clipboard() { return QApplication::clipboard()->text().toStdString(); }

// The actions of code, of the Step and Edit menus.
void press_code_actions(BenchWindow& bench, Menus& menus) {
    bench.document().open(qs(LACQUER_SOURCE "/demo/finishes/borrowed-light.lacquer"));
    bench.document().select("picture");
    menus.press("turn_remarks");
    CHECK(bench.last_said.contains(QStringLiteral("No code is open")));
    menus.press("code_editor");
    CodeText& text = bench.window().code().text();
    REQUIRE(text.hasFocus());
    const auto go = [&](const char* word) { text.go_to(static_cast<int>(text.toPlainText().indexOf(qs(word)))); };
    const auto formula = [&] { return bench.formula_of("picture"); };
    for (const char* id : {"turn_remarks", "move_in", "move_out"}) {
        go("    float bars");
        menus.changes(id, formula);
    }
    go("lit =");
    menus.changes("see_variable", [&] { return bench.drawing().shows_variable(); });
    bench.key(Qt::Key_Escape);
    menus.press("find_in_code");
    CHECK(bench.window().code().find_bar().isVisible());
    bench.type("fog");
    const auto place = [&] { return text.textCursor().position(); };
    menus.changes("find_next", place);
    menus.changes("find_before", place);
    bench.key(Qt::Key_Escape);
    menus.press("edit_operation");
    CHECK(bench.window().chooser().isVisible());
    bench.key(Qt::Key_Escape);
}

}  // namespace

TEST_CASE("every action of the Finish and Edit menus does what it says") {
    BenchWindow bench(test::demo_path());
    Menus menus(bench, {"Finish", "Edit"});
    Chooser& chooser = bench.window().chooser();
    const std::string own = bench.folder().file("own.lacquer");
    bench.to_save = qs(own);
    menus.press("save_finish_as");
    CHECK(bench.document().path() == own);
    bench.playing().set_dial("grain", {0.9, 0, 0});
    menus.press("save_finish");
    CHECK(find_dial(load_finish(own)->finish, "grain")->value[0] == 0.9);
    bench.to_save = qs(bench.folder().file("copy"));
    menus.press("save_copy");
    CHECK(load_finish(bench.folder().file("copy.lacquer")));
    CHECK(bench.document().path() == own);
    bench.to_collect = qs(bench.folder().file("all"));
    menus.press("collect");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    CHECK(bench.last_said.startsWith(QStringLiteral("Collected")));
    CHECK(std::filesystem::exists(bench.folder().path() / "all" / "files"));

    bench.to_ship = qs(bench.folder().file("set"));
    for (const char* id : {"ship_to", "ship_again"}) {
        menus.press(id);
        REQUIRE(QTest::qWaitFor([&] { return !bench.document().background().busy(); }, 60000));
        CHECK(bench.last_said.startsWith(QStringLiteral("Shipped")));
    }
    CHECK(std::filesystem::exists(bench.folder().path() / "set" / "manifest.json"));
    const auto choices = [&] { return bench.window().ship().shipping().choices(); };
    menus.press("keep_shipped");
    CHECK(choices().keeps);
    menus.press("keep_shipped");
    bench.action("ship");
    menus.press("native_reading");
    CHECK(choices().native);
    menus.press("verify_set");
    CHECK(bench.document().background().busy());
    bench.document().background().stop();
    REQUIRE(QTest::qWaitFor([&] { return !bench.document().background().busy(); }, 60000));
    REQUIRE(QTest::qWaitFor([&] { return bench.window().ship().shipping().is_current(); }, 60000));
    menus.press("copy_checklist");
    CHECK(clipboard().find("Each frame") != std::string::npos);
    bench.action("bench");

    menus.press("new_finish");
    CHECK(finish_of(bench).name == "Untitled");
    menus.press("open_recent");
    REQUIRE(chooser.isVisible());
    CHECK(chooser.list().choices().front().name == QStringLiteral("own"));
    bench.key(Qt::Key_Return);
    CHECK(bench.document().path() == own);
    bench.to_add = QStringLiteral(LACQUER_SOURCE "/demo/pictures/crab.png");
    menus.press("new_from_picture");
    CHECK(finish_of(bench).grounds.size() == 1);
    CHECK(bench.document().path().empty());
    bench.to_open = QStringLiteral(LACQUER_SOURCE "/demo/shaders/borrowed-light.frag");
    menus.press("bring_shader");
    CHECK(finish_of(bench).dials.size() == 5);
    CHECK(bench.last_said.startsWith(QStringLiteral("Brought in: 'scene' is the ground")));
    QGuiApplication::clipboard()->setText(QStringLiteral("out vec4 c; void main() { c = vec4(0.5); }"));
    menus.press("bring_copied_shader");
    CHECK(finish_of(bench).coats[0].steps.front().rules == CodeRules::glsl);
    bench.to_open = qs(own);
    menus.press("open_finish");
    CHECK(bench.document().path() == own);
    menus.press("open_demo");
    CHECK(bench.find<QWidget>("gallery")->isVisible());
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(bench.find<QWidget>("gallery")->isVisible());
    menus.press("finish_page");
    CHECK(has_field(bench, "brief"));
    bench.key(Qt::Key_Escape);
    menus.press("preferences");
    CHECK(has_field(bench, "draw_threads"));
    bench.key(Qt::Key_Escape);

    bench.window().ladder().setFocus();
    bench.document().select("rim");
    menus.press("copy");
    CHECK(clipboard().find("smoothstep(radius") != std::string::npos);
    menus.changes("cut", [&] { return find_step(finish_of(bench), "rim") == nullptr; });
    bench.document().select("rim");
    menus.changes("paste", [&] { return step_count(finish_of(bench)); });
    bench.document().select("rim");
    menus.press("select_all");
    CHECK(bench.document().selection().size() == step_count(finish_of(bench)));
    bench.document().select("rim");
    bench.window().ladder().toggle_step();
    menus.press("undo");
    CHECK(find_step(finish_of(bench), "rim")->on);
    menus.press("redo");
    CHECK_FALSE(find_step(finish_of(bench), "rim")->on);
    menus.press("history");
    REQUIRE(chooser.isVisible());
    CHECK(chooser.list().choices().front().key == QStringLiteral("now"));
    bench.key(Qt::Key_Escape);
    Finish wrong = finish_of(bench);
    wrong.coats[0].steps[4].formula = "smoothstep(radius, 1, torm)";
    bench.document().edit(std::move(wrong), QStringLiteral("wrong"));
    REQUIRE(find_step(bench.document().checked(), "rim")->fault);
    bench.document().select("rim");
    menus.press("mend");
    CHECK_FALSE(find_step(bench.document().checked(), "rim")->fault);
    press_code_actions(bench, menus);
    menus.press("quit");
    CHECK_FALSE(bench.window().isVisible());
    menus.check_all_done();
}

TEST_CASE("every action of the Ground menu does what it says") {
    BenchWindow bench(test::demo_path());
    Menus menus(bench, {"Ground"});
    const auto grounds = [&] { return finish_of(bench).grounds.size(); };
    bench.to_add = QStringLiteral(LACQUER_SOURCE "/demo/pictures/crab.png");
    for (const char* id : {"add_picture", "add_sprite_part", "add_gradient", "add_curve", "add_droplets"}) {
        menus.changes(id, grounds);
        bench.key(Qt::Key_Escape);
        bench.window().ladder().setFocus();
    }
    menus.press("add_marks");
    CHECK(bench.last_said.startsWith(QStringLiteral("Marks choose objects of a scene")));
    menus.press("camera");
    CHECK(bench.last_said.contains(QStringLiteral("no stand-in scene")));
    menus.press("add_scene");
    REQUIRE(bench.window().chooser().isVisible());
    bench.key(Qt::Key_Return);
    CHECK(grounds() == 2);
    menus.changes("add_marks", [&] { return bench.window().stage().pointing_marks(); });
    bench.key(Qt::Key_Escape);

    const auto camera = [&] { return bench.window().stage().stand_in_scene()->as<SceneGround>()->view.camera.eye.x; };
    menus.press("camera");
    CHECK(bench.window().stage().moves_camera());
    bench.window().stage().move_camera(0.3, 0);
    menus.changes("camera_key",
                  [&] { return bench.window().stage().stand_in_scene()->as<SceneGround>()->view.path.size(); });
    menus.changes("camera_home", camera);
    bench.key(Qt::Key_Escape);

    menus.press("ground_shelf");
    CHECK(bench.window().shelf().isVisible());
    bench.window().shelf().choose("scene");
    menus.press("ground_page");
    CHECK(has_field(bench, "path"));
    bench.key(Qt::Key_Escape);
    bench.window().shelf().setFocus();
    menus.changes("replace_ground", [&] { return *path_of(*find_ground(finish_of(bench), "scene")); });
    menus.changes("delete_ground", grounds);
    Finish gone = finish_of(bench);
    *path_of(gone.grounds.front()) = "nowhere/crab.png";
    bench.document().edit(std::move(gone), QStringLiteral("moved"));
    bench.settle_disk();
    menus.press("find_missing");
    CHECK(path_of(finish_of(bench).grounds.front())->find("nowhere") == std::string::npos);
    menus.check_all_done();
}

TEST_CASE("every action of the Step and Coat menus does what it says") {
    BenchWindow bench(test::demo_path());
    Menus menus(bench, {"Step", "Coat"});
    const auto select = [&](const char* step) {
        bench.window().ladder().setFocus();
        bench.document().select(step);
    };
    const auto steps = [&] { return step_count(finish_of(bench)); };
    const auto of = [&](const char* step) { return [&bench, step] { return *find_step(finish_of(bench), step); }; };
    for (const char* id : {"add_step", "add_step_above", "duplicate_step", "delete_step", "inline_step"}) {
        select("light");
        menus.changes(id, steps);
        bench.key(Qt::Key_Escape);
    }
    for (const char* id : {"toggle_step", "invert_step", "stand_in"}) {
        select("rim");
        menus.changes(id, of("rim"));
    }
    select("torn");
    menus.changes("swap_parts", of("torn"));
    for (const char* id : {"step_up", "step_down", "group_steps"}) {
        select("spray");
        menus.changes(id, [&] { return order_of(bench); });
        bench.key(Qt::Key_Escape);
        bench.document().undo();
        bench.document().open(qs(test::demo_path()));
    }
    select("stain");
    bench.window().ladder().walk_word(1);
    bench.window().ladder().walk_word(1);
    menus.changes("extract_part", steps);
    bench.key(Qt::Key_Escape);
    for (const auto& [id, editor] :
         {std::pair{"edit_formula", "formula_editor"}, {"rename_step", "line_editor"}, {"note_step", "line_editor"}}) {
        INFO(id);
        select("rim");
        menus.press(id);
        CHECK(QApplication::focusWidget()->objectName() == QLatin1String(editor));
        bench.key(Qt::Key_Escape);
    }
    select("rim");
    menus.press("tick_page");
    CHECK(has_field(bench, "starts"));
    bench.key(Qt::Key_Escape);
    for (const char* id : {"try_on", "try_instead"}) {
        select("rim");
        menus.press(id);
        CHECK(bench.window().try_on().isVisible());
        bench.key(Qt::Key_Escape);
        CHECK_FALSE(bench.window().try_on().isVisible());
    }
    select("rim");
    menus.press("use_instead");
    CHECK(bench.window().chooser().isVisible());
    bench.key(Qt::Key_Escape);
    for (const char* id : {"select_above", "select_below", "to_user"}) {
        select("torn");
        menus.changes(id, [&] { return bench.document().selected(); });
    }
    select("reach");
    menus.press("to_source");
    CHECK(bench.document().selected() == "centred");
    menus.press("filter_steps");
    CHECK(bench.find<QLineEdit>("filter")->isVisible());
    bench.key(Qt::Key_Escape);

    const auto first_coat = [&] { return finish_of(bench).coats.front(); };
    for (const char* id : {"fold_coat", "toggle_coat"}) {
        select("rim");
        menus.changes(id, first_coat);
    }
    for (const char* id : {"add_coat", "coat_down", "delete_coat"}) {
        select("rim");
        menus.changes(id, [&] { return order_of(bench) + std::to_string(finish_of(bench).coats.size()); });
    }
    select("stained");
    menus.changes("coat_up", [&] { return order_of(bench); });
    for (const char* id : {"rename_coat", "note_coat"}) {
        select("rim");
        menus.press(id);
        CHECK(QApplication::focusWidget()->objectName() == QStringLiteral("line_editor"));
        bench.type("brisk");
        bench.key(Qt::Key_Return);
    }
    CHECK(first_coat().name == "brisk");
    CHECK(first_coat().note == "brisk");
    select("rim");
    menus.press("copy_coat");
    CHECK(clipboard().find("brisk") != std::string::npos);
    menus.press("keep_coat");
    CHECK(bench.last_said.startsWith(QStringLiteral("Kept the coat brisk")));
    menus.press("insert_coat");
    REQUIRE(bench.window().chooser().isVisible());
    bench.type("brisk");
    const std::size_t before = finish_of(bench).coats.size();
    bench.key(Qt::Key_Return);
    CHECK(finish_of(bench).coats.size() == before + 1);
    press_code_actions(bench, menus);
    menus.check_all_done();
}

TEST_CASE("every action of the Look menu does what it says") {
    BenchWindow bench(test::demo_path());
    Menus menus(bench, {"Look"});
    StageView& stage = bench.window().stage();
    const auto look = [&] { return bench.drawing().look(); };
    bench.document().select("rim");
    for (const char* id : {"curtain", "pin", "safe_area", "line_grid", "backdrop", "false_colours", "mark_range",
                           "brighter", "darker"}) {
        INFO(id);
        const Look before = look();
        menus.press(id);
        CHECK(look() != before);
        const ActionRow& row = action_row(id);
        if (row.checked != Checked::never) CHECK(bench.find<QAction>(id)->isChecked());
    }
    menus.press("plain_look");
    Look plain = Look();
    plain.curtain_at = look().curtain_at;
    CHECK(look() == plain);
    CHECK_FALSE(bench.find<QAction>("curtain")->isChecked());
    menus.changes("show_selected", [&] { return bench.drawing().shown(); });
    menus.changes("show_finished", [&] { return bench.drawing().shown(); });
    const auto pixel = [&] { return stage.screen_point({10, 10}); };
    for (const char* id : {"actual_size", "zoom_in", "zoom_out"}) menus.changes(id, pixel);
    menus.changes("detail", [&] { return stage.shows_detail(); });
    menus.changes("core_sample", [&] { return stage.samples(); });
    menus.changes("transect", [&] { return stage.transect().isVisible(); });
    bench.key(Qt::Key_Escape);
    bench.key(Qt::Key_Escape);
    menus.press("pick_colour");
    bench.click(&stage, stage.screen_point({100, 100}));
    CHECK(bench.last_said.startsWith(QStringLiteral("Copied #")));
    for (const char* id : {"curtain_other", "frame_shape"}) {
        menus.press(id);
        CHECK(bench.window().chooser().isVisible());
        bench.key(Qt::Key_Escape);
    }
    menus.press("backdrop_colour");
    CHECK(bench.find<QWidget>("colour_editor")->isVisible());
    bench.key(Qt::Key_Escape);
    menus.press("copy_picture");
    CHECK_FALSE(QApplication::clipboard()->image().isNull());
    bench.to_save = qs(bench.folder().file("seen.png"));
    menus.press("save_picture");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    CHECK_FALSE(QImage(bench.to_save).isNull());
    for (const auto& [id, view] :
         {std::pair{"focus_dials", "dials"}, {"focus_stage", "stage"}, {"focus_ladder", "ladder"}}) {
        menus.press(id);
        CHECK(QApplication::focusWidget()->objectName() == QLatin1String(view));
    }
    const auto widths = [&] { return std::pair(bench.window().ladder().width(), bench.window().dials().height()); };
    const auto usual = widths();
    for (const char* id : {"large_ladder", "large_dials"}) {
        INFO(id);
        menus.press(id);
        CHECK(widths() != usual);
        menus.press(id);
        CHECK(widths() == usual);
    }
    menus.press("stage_alone");
    CHECK_FALSE(bench.window().ladder().isVisible());
    CHECK(stage.isVisible());
    bench.key(Qt::Key_Escape);
    CHECK(bench.window().ladder().isVisible());
    menus.changes("rehearse", [&] { return bench.window().rehearses(); });
    menus.press("sweep");
    CHECK(bench.window().screen_shown() == Where::sweep);
    menus.press("ship");
    CHECK(bench.window().screen_shown() == Where::ship);
    menus.press("rehearse");
    menus.changes("bench", [&] { return bench.window().rehearses(); });
    menus.check_all_done();
}

TEST_CASE("every action of the Dial menu does what it says") {
    BenchWindow bench(test::demo_path());
    Menus menus(bench, {"Dial"});
    const auto choose = [&](const char* dial) {
        bench.window().dials().choose(dial);
        bench.window().dials().setFocus();
    };
    bench.window().ladder().setFocus();
    bench.document().select("reach");
    menus.changes("add_dial", [&] { return dials_of(bench); });
    bench.key(Qt::Key_Escape);
    bench.window().ladder().setFocus();
    bench.document().select("stain");
    bench.window().ladder().walk_word(1);
    bench.window().ladder().walk_word(1);
    menus.changes("dial_everywhere", [&] { return dials_of(bench); });
    choose("haze");
    menus.press("dial_page");
    CHECK(has_field(bench, "code_name"));
    bench.key(Qt::Key_Escape);
    choose("haze");
    menus.press("type_value");
    bench.type("20");
    bench.key(Qt::Key_Return);
    CHECK(find_dial(finish_of(bench), "haze")->value[0] == 20);
    menus.changes("value_as_default", [&] { return find_dial(finish_of(bench), "haze")->default_value[0]; });
    menus.press("reset_dial");
    CHECK(find_dial(finish_of(bench), "haze")->value[0] == find_dial(finish_of(bench), "haze")->default_value[0]);
    choose("haze");
    menus.press("dial_colour");
    CHECK(bench.last_said == QStringLiteral("Choose a colour dial first"));
    choose("tint");
    menus.press("dial_colour");
    CHECK(bench.find<QWidget>("colour_editor")->isVisible());
    bench.key(Qt::Key_Escape);
    choose("depth");
    bench.document().select("rim");
    menus.press("dial_use");
    CHECK(bench.document().selected() == "stained");
    for (const char* id : {"dial_up", "dial_down", "delete_dial"}) {
        choose("softness");
        menus.changes(id, [&] { return dials_of(bench); });
    }
    menus.press("take_shared");
    CHECK(bench.last_said.startsWith(QStringLiteral("No file of shared dials yet")));
    menus.changes("add_response", [&] { return finish_of(bench).responses.size(); });
    bench.key(Qt::Key_Escape);
    menus.press("response_page");
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu != nullptr);
    menu->actions().front()->trigger();
    menu->close();
    CHECK(has_field(bench, "kind"));
    bench.key(Qt::Key_Escape);
    const std::size_t responses = finish_of(bench).responses.size();
    menus.press("delete_response");
    menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu != nullptr);
    menu->actions().front()->trigger();
    menu->close();
    CHECK(finish_of(bench).responses.size() == responses - 1);
    bench.document().undo();
    bench.playing().set_dial("radius", {1, 0, 0});
    REQUIRE_FALSE(bench.playing().held().empty());
    menus.press("let_go");
    CHECK(bench.playing().held().empty());
    menus.check_all_done();
}

TEST_CASE("every action of the Variant menu does what it says") {
    BenchWindow bench(test::demo_path("dissolve"));
    Menus menus(bench, {"Variant"});
    SweepScreen& screen = bench.window().sweep();
    Sweeping& sweeping = screen.sweeping();
    const auto variant = [&] { return finish_of(bench).variant; };
    const auto variants = [&] { return finish_of(bench).variants.size(); };
    menus.press("save_sheet");
    CHECK(bench.last_said.contains(QStringLiteral("is done on the sweep screen (Ctrl+3)")));
    menus.changes("set_aside", [&] { return finish_of(bench).set_aside.size(); });
    menus.press("set_aside");
    bench.window().dials().choose("size");
    menus.press("sweep_dial");
    REQUIRE(bench.window().screen_shown() == Where::sweep);
    CHECK(sweeping.spec().along.dial == "size");
    menus.changes("sheet_looks", [&] { return sweeping.mode(); });
    screen.sheet().set_present(1);
    menus.press("name_look");
    CHECK(bench.window().chooser().isVisible());
    bench.key(Qt::Key_Escape);
    menus.changes("delete_look", [&] { return finish_of(bench).set_aside.size(); });
    menus.changes("sheet_lots", [&] { return sweeping.mode(); });
    menus.changes("draw_lots", [&] { return sweeping.lots().seed; });
    menus.changes("draw_closer", [&] { return sweeping.lots().around.size(); });
    menus.changes("sheet_sweep", [&] { return sweeping.mode(); });
    menus.changes("compare_cells", [&] { return sweeping.comparing(); });
    menus.press("turn_compared");
    bench.key(Qt::Key_Escape);
    bench.to_save = qs(bench.folder().file("sheet.png"));
    for (const char* id : {"save_sheet", "save_cells"}) {
        menus.press(id);
        bench.wait_for([&] { return !bench.document().background().busy(); });
    }
    CHECK(std::filesystem::exists(bench.folder().file("sheet.png")));
    CHECK(std::filesystem::exists(bench.folder().file("sheet-0000.png")));
    menus.press("copy_variant");
    CHECK(bench.last_said.contains(QStringLiteral("No variant is on")));
    menus.changes("cell_variant", variants);
    menus.changes("add_variant", variants);
    menus.changes("next_variant", variant);
    menus.press("next_variant");
    menus.changes("previous_variant", variant);
    menus.changes("copy_variant", variants);
    const auto order = [&] { return finish_of(bench).variants[0].name; };
    menus.changes("variant_later", order);
    menus.press("next_variant");
    menus.changes("variant_earlier", order);
    menus.press("previous_variant");
    menus.press("rename_variant");
    CHECK(bench.window().chooser().isVisible());
    bench.key(Qt::Key_Escape);
    const auto held = [&] { return finish_of(bench).variants[0].overlay.size(); };
    screen.differences().setFocus();
    menus.changes("into_base", held);
    screen.differences().setFocus();
    menus.changes("follow_base", held);
    bench.to_save = qs(bench.folder().file("cells.lacquer"));
    menus.press("variant_finish");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    CHECK(std::filesystem::exists(bench.folder().file("cells.lacquer")));
    bench.to_open = qs(test::demo_path("dissolve"));
    const std::size_t before = variants();
    menus.press("bring_variants");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    CHECK(variants() == before + 4);
    menus.changes("delete_variant", variants);
    menus.check_all_done();
}

TEST_CASE("every action of the Time, Cue and Help menus does what it says") {
    BenchWindow bench(test::demo_path());
    Menus menus(bench, {"Time", "Cue", "Help"});
    Playing& playing = bench.playing();
    const auto events = [&] { return finish_of(bench).tape.cues.size() + finish_of(bench).tape.changes.size(); };
    const auto time = [&] { return playing.time(); };
    for (const char* id : {"loop", "slow_motion"}) {
        menus.changes(id, [&] { return std::pair(playing.looping(), playing.speed()); });
    }
    playing.set_time(1);
    for (const char* id : {"frame_back", "frame_on", "to_start"}) menus.changes(id, time);
    menus.press("play");
    CHECK(playing.playing());
    menus.press("cue_1");
    CHECK(playing.has_live());
    const std::size_t before = events();
    menus.press("keep_live");
    CHECK(events() == before + 1);
    bench.document().undo();
    menus.press("play");
    CHECK_FALSE(playing.playing());
    menus.press("record");
    CHECK(playing.recording());
    menus.press("record");
    CHECK_FALSE(playing.recording());
    playing.set_playing(false);
    menus.press("listen");
    CHECK(bench.link().receiver() != nullptr);
    menus.press("listen");
    CHECK(bench.link().receiver() == nullptr);
    menus.press("check_rates");
    bench.wait_for([&] { return bench.drawing().rates() != nullptr; });
    bench.to_save = qs(bench.folder().file("own.tape"));
    menus.press("save_tape");
    CHECK(std::filesystem::exists(bench.folder().file("own.tape")));
    menus.changes("clear_tape", events);
    menus.press("clear_tape");
    bench.to_open = bench.to_save;
    menus.press("open_tape");
    CHECK(events() == before);

    menus.press("all_time");
    CHECK(bench.last_said.contains(QStringLiteral("is done in rehearsal (Ctrl+2)")));
    bench.key(Qt::Key_2, Qt::ControlModifier);
    LanesView& lanes = bench.window().rehearse().lanes();
    const auto span = [&] { return lanes.view().to - lanes.view().from; };
    for (const char* id : {"time_nearer", "time_farther", "time_nearer", "all_time"}) menus.changes(id, span);
    lanes.choose_all();
    menus.changes("delete_events", events);
    bench.key(Qt::Key_1, Qt::ControlModifier);

    menus.changes("add_cue", [&] { return finish_of(bench).cues.size(); });
    bench.key(Qt::Key_Escape);
    for (int i = 2; i <= 9; ++i) {
        const std::string id = "cue_" + std::to_string(i);
        menus.press(id.c_str());
        CHECK(bench.last_said.startsWith(QStringLiteral("There is no cue %1").arg(i)));
    }
    menus.press("cue_page");
    CHECK(has_field(bench, "weakest"));
    bench.key(Qt::Key_Escape);
    const auto first_cue = [&] { return finish_of(bench).cues.front().name; };
    menus.press("add_cue");
    bench.key(Qt::Key_Escape);
    bench.window().rehearse().pads().press(1);
    menus.changes("move_cue_earlier", first_cue);
    bench.window().rehearse().pads().press(0);
    menus.changes("move_cue_later", first_cue);
    menus.changes("delete_cue", [&] { return finish_of(bench).cues.size(); });
    menus.press("add_signal");
    bench.key(Qt::Key_Escape);
    CHECK(finish_of(bench).signals.size() == 1);
    menus.press("signal_page");
    CHECK(has_field(bench, "most"));
    bench.key(Qt::Key_Escape);
    menus.press("delete_signal");
    CHECK(finish_of(bench).signals.empty());

    bench.window().ladder().setFocus();
    Chooser& chooser = bench.window().chooser();
    for (const char* id : {"commands", "notices", "change_key"}) {
        INFO(id);
        menus.press(id);
        CHECK(chooser.isVisible());
        CHECK_FALSE(chooser.list().choices().empty());
        bench.key(Qt::Key_Escape);
        CHECK_FALSE(chooser.isVisible());
    }
    menus.press("last_end");
    CHECK(bench.last_said.contains(QStringLiteral("not ended in the middle")));
    for (const char* id : {"help", "shortcuts"}) {
        menus.press(id);
        CHECK(bench.window().help_card().isVisible());
        bench.key(Qt::Key_Escape);
        CHECK_FALSE(bench.window().help_card().isVisible());
    }
    menus.check_all_done();
}
