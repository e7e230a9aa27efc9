// The sweep screen: its sheet and sentence, measures and their mends, variants, looks, lots.
#include <QLineEdit>
#include <QTest>
#include <algorithm>
#include <catch2/catch.hpp>
#include <chrono>
#include <condition_variable>
#include <filesystem>
#include <mutex>

#include "core/base/file.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/file_paths.h"
#include "core/finish/variants.h"
#include "core/picture/files.h"
#include "desktop/dials/dials_view.h"
#include "desktop/drawing/render_thread.h"
#include "desktop/drawing/sheet_thread.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/line_editor.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/shell/main_window.h"
#include "desktop/stage/stage_view.h"
#include "desktop/sweep/differences.h"
#include "desktop/sweep/measure_list.h"
#include "desktop/sweep/sheet_view.h"
#include "desktop/sweep/sweep_screen.h"
#include "desktop/sweep/sweep_sentence.h"
#include "desktop/sweep/variant_strip.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

const Finish& finish_in(BenchWindow& bench) { return bench.document().finish(); }
Sweeping& sweeping_of(BenchWindow& bench) { return bench.window().sweep().sweeping(); }
SheetView& sheet_of(BenchWindow& bench) { return bench.window().sweep().sheet(); }

// Pictures and measures are there, and taken up.
void settle_sheet(BenchWindow& bench) {
    // Measures draw hundreds of frames.
    const auto is_done = [&] { return sweeping_of(bench).settled() && !sweeping_of(bench).measuring(); };
    REQUIRE(QTest::qWaitFor(is_done, 60000));
    bench.settle();
}

// A wipe over a small frame, quick to draw and to measure, uneven unless its power is 1.
std::string wipe_file(const BenchWindow& bench, const std::string& power = "3.0") {
    Finish finish = test::finish_of({{"way", "pow(gone, " + power + ")"}, {"cut", "vec4(tint, step(way, uv.x))"}});
    finish.name = "Wipe";
    finish.frame_width = 160;
    finish.frame_height = 90;
    finish = test::with_dial(finish, "gone", 0, 1);
    Dial tint;
    tint.name = tint.code_name = "tint";
    tint.kind = DialKind::colour;
    tint.value = tint.default_value = {1, 0.5, 0.25};
    tint.most = 4;
    finish.dials.push_back(tint);
    const std::string path = bench.folder().file("wipe.lacquer");
    REQUIRE(save_finish(path, finish));
    return path;
}

void open_sweep(BenchWindow& bench, const std::string& path) {
    REQUIRE(bench.document().open(QString::fromStdString(path)));
    bench.settle();
    bench.key(Qt::Key_3, Qt::ControlModifier);
    REQUIRE(bench.window().screen_shown() == Where::sweep);
    settle_sheet(bench);
}

void click_cell(BenchWindow& bench, int cell, Qt::KeyboardModifiers modifiers = Qt::NoModifier) {
    QTest::mouseClick(sheet_of(bench).viewport(), Qt::LeftButton, modifiers, sheet_of(bench).cell_area(cell).center());
}

void click_word(BenchWindow& bench, const char* word) {
    SweepSentence& sentence = bench.window().sweep().sentence();
    bench.click(&sentence, sentence.word_area(QString::fromLatin1(word)).center());
}

const Measured* measured(BenchWindow& bench, const std::string& id) {
    for (const Measured& one : sweeping_of(bench).measured()) {
        if (one.id == id) return &one;
    }
    return nullptr;
}

double share_lit(const QImage& image) {
    int lit = 0;
    for (int x = 0; x < image.width(); ++x) lit += qAlpha(image.pixel(x, image.height() / 2)) > 128 ? 1 : 0;
    return static_cast<double>(lit) / image.width();
}

}  // namespace

TEST_CASE("the sheet shows the dial at even values, each as the command line draws it, from coarse to fine") {
    BenchWindow bench(test::demo_path());
    open_sweep(bench, wipe_file(bench, "1.0"));
    const Sweeping& sweeping = sweeping_of(bench);
    REQUIRE(sweeping.cells().size() == 12);
    CHECK(sweeping.swept_dial()->name == "gone");
    for (int cell = 0; cell < 12; ++cell) {
        INFO(cell);
        CHECK(sweeping.is_fine(cell));
        CHECK(sweeping.picture(cell).width() == sheet_of(bench).cell_area(cell).width());
        CHECK(share_lit(sweeping.picture(cell)) == Approx(1 - cell / 11.0).margin(0.011));
    }
    CHECK(sweeping.cells()[5].words == QStringLiteral("0.45"));
}

TEST_CASE("a sheet of 24 cells takes little longer than 24 small frames by themselves") {
    const auto checked = test::checked(test::demo_finish());
    std::vector<SheetPicture> pictures;
    for (int cell = 0; cell < 24; ++cell) {
        SheetPicture picture{cell, {}, {}};
        picture.request.checked = checked;
        picture.request.finish_path = test::demo_path();
        picture.request.time = 3.75;
        picture.request.width = 320;
        picture.request.height = 180;
        picture.request.small_grounds = true;
        picture.request.steps = {""};
        picture.request.held["radius"] = {2.0 * cell / 23, 0, 0};
        pictures.push_back(picture);
    }
    std::mutex mutex;
    std::condition_variable came;
    int fine = 0;
    SheetResults results;
    results.picture = [&](SheetOf, std::uint64_t, int, const QImage&, bool is_fine) {
        const std::lock_guard lock(mutex);
        fine += is_fine ? 1 : 0;
        came.notify_all();
    };
    SheetThread thread(results, test::shared_stores());
    WorkerPool pool;
    Renderer renderer(pool, std::nullopt, test::shared_stores());
    using Clock = std::chrono::steady_clock;
    const auto seconds_since = [](Clock::time_point begin) {
        return std::chrono::duration<double>(Clock::now() - begin).count();
    };
    // The best of a few rounds: others work on this machine, too.
    double sheet = 1e9;
    double alone = 1e9;
    for (int round = 0; round < 6; ++round) {
        auto begin = Clock::now();
        for (const SheetPicture& picture : pictures) {
            const Result<Frame> frame = renderer.render(picture.request, Cancel());
            REQUIRE(frame);
            to_qimage(to_image(frame->steps.front().picture, frame->steps.front().type, pool));
        }
        alone = std::min(alone, seconds_since(begin));
        fine = 0;
        begin = Clock::now();
        thread.ask(SheetOf::cells, {1, pictures, true, {}});
        std::unique_lock lock(mutex);
        REQUIRE(came.wait_for(lock, std::chrono::seconds(20), [&] { return fine == 24; }));
        sheet = std::min(sheet, seconds_since(begin));
    }
    INFO("a sheet took " << sheet / alone << " of its frames alone, " << alone * 1000 << " ms");
    CHECK(sheet < alone * 1.5);
}

TEST_CASE("dragging a word of the sentence holds nothing up, and coarse pictures come first") {
    BenchWindow bench(test::demo_path());
    bench.settle();
    bench.key(Qt::Key_3, Qt::ControlModifier);
    settle_sheet(bench);
    SweepSentence& sentence = bench.window().sweep().sentence();
    const QPoint at = sentence.word_area(QStringLiteral("to")).center();
    int coarse = 0;
    QObject::connect(&sweeping_of(bench), &Sweeping::picture_changed,
                     [&](int cell) { coarse += sweeping_of(bench).is_fine(cell) ? 0 : 1; });
    double longest = 1e9;
    // The best of a few rounds: others work on this machine, too.
    for (int round = 0; round < 3; ++round) {
        double worst = 0;
        QTest::mousePress(&sentence, Qt::LeftButton, {}, at);
        for (int move = 1; move <= 30; ++move) {
            const double begin = test::thread_seconds();
            QTest::mouseMove(&sentence, at + QPoint(-2 * move, 0));
            QCoreApplication::processEvents();
            worst = std::max(worst, test::thread_seconds() - begin);
        }
        QTest::mouseRelease(&sentence, Qt::LeftButton, {}, at + QPoint(-60, 0));
        longest = std::min(longest, worst);
    }
    settle_sheet(bench);
    CHECK(coarse >= 12);
    INFO("the longest move took " << longest * 1000 << " ms");
    CHECK(longest < 0.024);
}

TEST_CASE("live words change the sheet: numbers are dragged, turned, stepped and typed, names are chosen") {
    BenchWindow bench(test::demo_path());
    open_sweep(bench, wipe_file(bench));
    SweepSentence& sentence = bench.window().sweep().sentence();
    const SheetSpec& spec = sweeping_of(bench).spec();
    const QPoint count = sentence.word_area(QStringLiteral("count")).center();
    bench.drag(&sentence, count, count + QPoint(20, 0));
    CHECK(spec.along.count == 17);
    CHECK(sweeping_of(bench).cells().size() == 17);
    click_word(bench, "from");
    bench.type("0.25");
    bench.key(Qt::Key_Return);
    CHECK(spec.along.from == 0.25);
    bench.key(Qt::Key_Plus);
    CHECK(spec.along.from == Approx(0.26));
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Minus);
    CHECK(spec.along.to == Approx(0.99));
    click_word(bench, "to");
    bench.type("much");
    bench.key(Qt::Key_Return);
    CHECK(spec.along.to == Approx(0.99));
    CHECK(bench.last_said.contains(QStringLiteral("isn't a number")));
    click_word(bench, "against");
    REQUIRE(bench.window().chooser().isVisible());
    bench.type("tint");
    bench.key(Qt::Key_Return);
    CHECK(spec.against.kind == AxisKind::dial);
    CHECK(spec.against.dial == "tint");
    CHECK(sweeping_of(bench).cells().size() == 17 * 5);
    CHECK(sheet_of(bench).columns() == 17);
    click_word(bench, "step");
    bench.type("way");
    bench.key(Qt::Key_Return);
    CHECK(spec.step == "way");
    click_word(bench, "along");
    bench.type("time");
    bench.key(Qt::Key_Return);
    CHECK(spec.along.kind == AxisKind::time);
    CHECK(spec.along.to == finish_in(bench).length);
    settle_sheet(bench);
    CHECK(sweeping_of(bench).measured().empty());
    Finish struck = finish_in(bench);
    struck.cues = {{"hit"}};
    struck.responses.push_back({"blow", "strike", "hit", {{"rise", 0.25}, {"stay", 0.25}, {"fall", 0.5}}});
    struck.tape.cues.own().push_back({"hit", 2.0, 1.0});
    bench.document().edit(struck, QStringLiteral("a blow"));
    click_word(bench, "along");
    bench.type("run of blow");
    bench.key(Qt::Key_Return);
    CHECK(spec.along.from == Approx(2).margin(0.02));
    CHECK(spec.along.to == Approx(3).margin(0.02));
    // A deleted step and dial are no longer swept.
    bench.document().edit(test::finish_of({{"a", "uv.x"}}), QStringLiteral("another"));
    CHECK(spec.step.empty());
    CHECK(spec.against.kind == AxisKind::nothing);
}

TEST_CASE("an uneven pace is told, plotted and evened by a click; a promise is written into the finish") {
    BenchWindow bench(test::demo_path());
    const std::string path = wipe_file(bench);
    open_sweep(bench, path);
    MeasureList& list = bench.window().sweep().measures();
    REQUIRE(measured(bench, "pace") != nullptr);
    CHECK(measured(bench, "pace")->verdict == Verdict::falls_short);
    CHECK(list.plotted()->id == "pace");
    CHECK(list.cell_count() == static_cast<int>(measures().size()));
    bench.click(list.viewport(), list.mend_area("pace").center());
    CHECK(find_step(finish_in(bench), "gone_even") != nullptr);
    CHECK(find_step(finish_in(bench), "way")->formula == "pow(gone_even, 3.0)");
    settle_sheet(bench);
    CHECK(measured(bench, "pace")->verdict == Verdict::passes);
    CHECK(share_lit(sweeping_of(bench).picture(6)) == Approx(1 - 6 / 11.0).margin(0.02));
    bench.click(list.viewport(), list.promise_area("pace").center());
    CHECK(find_dial(finish_in(bench), "gone")->promises == std::vector<std::string>{"pace"});
    bench.key(Qt::Key_S, Qt::ControlModifier);
    const Result<OpenedFinish> saved = load_finish(path);
    REQUIRE(saved);
    CHECK(saved->finish.dials[0].promises == std::vector<std::string>{"pace"});
    CHECK(test::run_cli("inspect '" + path + "'").code == 0);
    bench.key(Qt::Key_Return);
    CHECK(find_dial(finish_in(bench), "gone")->promises.empty());
    bench.action("undo");
    bench.action("undo");
    bench.action("undo");
    CHECK(find_step(finish_in(bench), "gone_even") == nullptr);
}

TEST_CASE("a click makes a cell what the stage shows, a double click goes to the bench with it") {
    BenchWindow bench(test::demo_path());
    open_sweep(bench, wipe_file(bench));
    click_cell(bench, 11);
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == 1);
    sheet_of(bench).setFocus();
    bench.key(Qt::Key_Home);
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Return);
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == Approx(1 / 11.0));
    QTest::mouseDClick(sheet_of(bench).viewport(), Qt::LeftButton, Qt::NoModifier,
                       sheet_of(bench).cell_area(3).center());
    CHECK(bench.window().screen_shown() == Where::bench);
    bench.settle();
    CHECK(bench.window().stage().isVisible());
}

TEST_CASE("two cells are compared by the curtain and side by side, and left again by Escape") {
    BenchWindow bench(test::demo_path());
    open_sweep(bench, wipe_file(bench));
    click_cell(bench, 2, Qt::ControlModifier);
    click_cell(bench, 9, Qt::ControlModifier);
    REQUIRE(sweeping_of(bench).comparing());
    CHECK(sweeping_of(bench).compared() == std::array{2, 9});
    settle_sheet(bench);
    // Drawn anew at a large size, not blown up.
    CHECK(sweeping_of(bench).compared_picture(0).width() == 1280);
    bench.action("turn_compared");
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(sweeping_of(bench).comparing());
    bench.action("compare_cells");
    CHECK(sweeping_of(bench).comparing());
}

TEST_CASE("what is changed while a variant is on goes into it, is listed and marked, and can go to the base") {
    BenchWindow bench(test::demo_path());
    const std::string path = wipe_file(bench);
    open_sweep(bench, path);
    VariantStrip& strip = bench.window().sweep().strip();
    bench.click(strip.viewport(), strip.card_area(1).center());
    REQUIRE(finish_in(bench).variant == "variant");
    bench.action("rename_variant");
    bench.type("Wet sand");
    bench.key(Qt::Key_Return);
    CHECK(finish_in(bench).variant == "wet_sand");
    click_cell(bench, 11);
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == 1);
    Differences& differences = bench.window().sweep().differences();
    REQUIRE(differences.cell_count() == 1);
    CHECK(differences.isVisible());
    bench.click(strip.viewport(), strip.card_area(0).center());
    CHECK(finish_in(bench).variant.empty());
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == 0);
    CHECK_FALSE(differences.isVisible());
    settle_sheet(bench);
    CHECK(sweeping_of(bench).strip_picture(0) != sweeping_of(bench).strip_picture(1));
    strip.setFocus();
    bench.key(Qt::Key_Right);
    CHECK(finish_in(bench).variant == "wet_sand");
    // On the bench, a formula that is typed goes into the variant, too.
    bench.key(Qt::Key_1, Qt::ControlModifier);
    bench.document().select("way");
    bench.window().ladder().setFocus();
    bench.key(Qt::Key_E);
    bench.key(Qt::Key_A, Qt::ControlModifier);
    bench.type("gone");
    bench.key(Qt::Key_Return);
    CHECK(bench.formula_of("way") == "gone");
    CHECK(overlay_of(finish_in(bench), "wet_sand").steps.count("way") == 1);
    bench.action("into_base");
    CHECK(overlay_of(finish_in(bench), "wet_sand").steps.empty());
    bench.window().dials().choose("gone");
    bench.window().dials().setFocus();
    bench.action("follow_base");
    CHECK(overlay_of(finish_in(bench), "wet_sand").empty());
    bench.action("undo");
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == 1);
    bench.key(Qt::Key_S, Qt::ControlModifier);
    bench.settle_disk();
    const test::CommandResult drawn =
        test::run_cli("render '" + path + "' --variant wet_sand -o '" + bench.folder().file("wet.png") + "'");
    INFO(drawn.output);
    CHECK(drawn.code == 0);
    CHECK(test::run_cli("render '" + path + "' --variant nobody -o '" + bench.folder().file("x.png") + "'").code == 1);
    // The file has the base, so that each part of it can be read by itself.
    const Result<OpenedFinish> opened = load_finish(path);
    REQUIRE(opened);
    CHECK(opened->finish == finish_in(bench));
    CHECK(switch_variant(opened->finish, "").dials[0].value[0] == 0);
}

TEST_CASE("a sheet against variants has a row for each, and a cell becomes a variant") {
    BenchWindow bench(test::demo_path());
    open_sweep(bench, wipe_file(bench));
    bench.document().edit(add_variant(finish_in(bench), "even", {{}, {{"way", R"({"formula": "gone"})"}}, {}, {}}),
                          QStringLiteral("even"));
    bench.action("previous_variant");
    click_word(bench, "against");
    bench.type("variants");
    bench.key(Qt::Key_Return);
    settle_sheet(bench);
    REQUIRE(sweeping_of(bench).cells().size() == 24);
    CHECK(share_lit(sweeping_of(bench).picture(6)) == Approx(1 - std::pow(6 / 11.0, 3)).margin(0.011));
    CHECK(share_lit(sweeping_of(bench).picture(18)) == Approx(1 - 6 / 11.0).margin(0.011));
    sheet_of(bench).set_present(18);
    bench.action("cell_variant");
    REQUIRE(finish_in(bench).variants.size() == 2);
    CHECK(bench.formula_of("way") == "gone");
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == Approx(6 / 11.0));
    CHECK(overlay_of(finish_in(bench), finish_in(bench).variant).size() == 2);
}

TEST_CASE(
    "a look is set aside by one key, survives renaming and saving, and is taken up, told what it cannot bring back") {
    BenchWindow bench(test::demo_path());
    const std::string path = wipe_file(bench);
    REQUIRE(bench.document().open(QString::fromStdString(path)));
    bench.settle();
    bench.playing().set_dial("gone", {0.75, 0, 0});
    bench.playing().set_time(1.5);
    bench.settle();
    bench.key(Qt::Key_A, Qt::ControlModifier | Qt::AltModifier);
    REQUIRE(finish_in(bench).set_aside.size() == 1);
    CHECK(finish_in(bench).set_aside[0].time == 1.5);
    bench.playing().set_dial("gone", {0.1, 0, 0});
    bench.playing().set_time(0);
    Finish renamed = finish_in(bench);
    bench.document().edit(rename(renamed, "way", "course"), QStringLiteral("renamed"));
    bench.action("save_finish");
    bench.settle_disk();
    bench.key(Qt::Key_3, Qt::ControlModifier);
    bench.key(Qt::Key_2, Qt::AltModifier);
    // Its own picture is there at once.
    CHECK_FALSE(sweeping_of(bench).picture(1).isNull());
    settle_sheet(bench);
    CHECK(sweeping_of(bench).is_fine(1));
    bench.action("name_look");
    CHECK(bench.last_said.contains(QStringLiteral("No look is at hand")));
    // The first cell is how things are now, to compare with.
    click_cell(bench, 0);
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == 0.1);
    sheet_of(bench).set_present(1);
    bench.action("name_look");
    bench.type("three quarters gone");
    bench.key(Qt::Key_Return);
    CHECK(finish_in(bench).set_aside[0].words == "three quarters gone");
    click_cell(bench, 1);
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == 0.75);
    CHECK(bench.playing().time() == 1.5);
    CHECK(find_step(finish_in(bench), "course")->formula == "pow(gone, 3.0)");
    bench.action("undo");
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == 0.1);
    Finish fewer = finish_in(bench);
    fewer.dials.erase(fewer.dials.begin() + 1);
    bench.document().edit(fewer, QStringLiteral("without tint"));
    click_cell(bench, 1);
    CHECK(bench.last_said.contains(QStringLiteral("but for tint, which the finish no longer has")));
    bench.action("delete_look");
    CHECK(finish_in(bench).set_aside.empty());
}

TEST_CASE("a look keeps what was held by hand against its formula") {
    BenchWindow bench(test::demo_path());
    bench.settle();
    bench.playing().set_dial("radius", {0.4, 0, 0});
    bench.action("set_aside");
    bench.playing().let_go_all();
    CHECK(finish_in(bench).set_aside[0].held.at("radius")[0] == 0.4);
    bench.key(Qt::Key_3, Qt::ControlModifier);
    bench.action("sheet_looks");
    click_cell(bench, 1);
    CHECK(bench.playing().held().at("radius")[0] == 0.4);
}

TEST_CASE("lots come from a seed that is shown; one is taken, and others are drawn closer around it") {
    BenchWindow bench(test::demo_path());
    open_sweep(bench, wipe_file(bench));
    bench.key(Qt::Key_3, Qt::AltModifier);
    settle_sheet(bench);
    REQUIRE(sweeping_of(bench).cells().size() == 8);
    const auto values = [&] {
        std::vector<double> all;
        for (const SheetCell& cell : sweeping_of(bench).cells()) all.push_back(cell.held.at("gone")[0]);
        return all;
    };
    const std::vector<double> first = values();
    bench.key(Qt::Key_E, Qt::ControlModifier | Qt::AltModifier);
    CHECK(values() != first);
    click_word(bench, "seed");
    bench.type("1");
    bench.key(Qt::Key_Return);
    CHECK(values() == first);
    sheet_of(bench).set_present(3);
    const double around = values()[3];
    bench.action("draw_closer");
    for (const double value : values()) CHECK(std::fabs(value - around) <= 0.25 + 0.005);
    bench.action("draw_closer");
    settle_sheet(bench);
    const double taken = values()[5];
    click_cell(bench, 5);
    CHECK(find_dial(finish_in(bench), "gone")->value[0] == taken);
    click_word(bench, "dials");
    bench.type("tint");
    bench.key(Qt::Key_Return);
    CHECK(sweeping_of(bench).cells()[0].held.count("tint") == 0);
}

TEST_CASE("a sheet is saved as one picture or cell by cell; variants become finishes and are brought in") {
    BenchWindow bench(test::demo_path());
    open_sweep(bench, wipe_file(bench));
    bench.to_save = QString::fromStdString(bench.folder().file("sheet.png"));
    bench.action("save_sheet");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    const Result<Picture> sheet = read_picture(bench.folder().file("sheet.png"), PictureMeaning::colour);
    REQUIRE(sheet);
    CHECK(sheet->width == 4 * 320);
    CHECK(sheet->height == 3 * (180 + 24));
    bench.action("save_cells");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    CHECK(std::filesystem::exists(bench.folder().file("sheet-0011.png")));
    // Cells that can't be seen are in it, too; too many for one picture are told.
    SheetSpec many = sweeping_of(bench).spec();
    many.along.count = 64;
    sweeping_of(bench).set_spec(many);
    bench.action("save_cells");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    const Result<Picture> last = read_picture(bench.folder().file("sheet-0062.png"), PictureMeaning::colour);
    REQUIRE(last);
    CHECK(last->at(319, 90)[3] == 1);
    CHECK(last->at(290, 90)[3] == 0);
    many.against = many.along;
    sweeping_of(bench).set_spec(many);
    bench.action("save_sheet");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    CHECK(bench.last_said.contains(QStringLiteral("save its cells instead")));
    many.against = {};
    many.along.count = 12;
    sweeping_of(bench).set_spec(many);
    bench.action("add_variant");
    click_cell(bench, 11);
    bench.to_save = QString::fromStdString(bench.folder().file("own.lacquer"));
    bench.action("variant_finish");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    const Result<OpenedFinish> own = load_finish(bench.folder().file("own.lacquer"));
    REQUIRE(own);
    CHECK(own->finish.variants.empty());
    CHECK(own->finish.dials[0].value[0] == 1);
    bench.to_open = QString::fromStdString(test::demo_path("dissolve"));
    bench.action("bring_variants");
    bench.wait_for([&] { return !bench.document().background().busy(); });
    CHECK(finish_in(bench).variants.size() == 5);
    CHECK(finish_in(bench).variant == "variant");
}

TEST_CASE(
    "the sweep screen keeps to the finish's files when it is saved elsewhere, variants' and looks' pictures, too") {
    BenchWindow bench(test::demo_path());
    Finish finish = test::demo_named("dissolve");
    finish = *add_variant(finish, "other", {{}, {}, {{"crab", R"({"picture": "../pictures/buoy.png"})"}}, {}});
    finish.set_aside.push_back({"look", 0, "", whole_overlay(finish), {}, {}});
    const Finish moved = moved_paths(finish, test::demo_path("dissolve"), bench.folder().file("far/away/d.lacquer"));
    const std::vector<std::string> before = all_paths(finish);
    const std::vector<std::string> after = all_paths(moved);
    REQUIRE(before.size() == 2);
    REQUIRE(after.size() == 2);
    for (std::size_t i = 0; i < 2; ++i) {
        CHECK(before[i] != after[i]);
        CHECK(picture_path(test::demo_path("dissolve"), before[i]) ==
              picture_path(bench.folder().file("far/away/d.lacquer"), after[i]));
    }
    CHECK(moved_paths(moved, bench.folder().file("far/away/d.lacquer"), test::demo_path("dissolve")) == finish);
}
