// The ladder by real clicks and keys.
#include <QLineEdit>
#include <catch2/catch.hpp>

#include "desktop/ladder/formula_editor.h"
#include "desktop/ladder/ladder_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

std::vector<std::string> order(BenchWindow& bench) {
    std::vector<std::string> names;
    for_each_step(bench.document().finish(), [&](const Coat&, const Step& step) { names.push_back(step.name); });
    return names;
}

}  // namespace

TEST_CASE("a typed formula is seen as it is typed; a fault keeps the last good picture") {
    BenchWindow bench(test::demo_path());
    bench.document().select("stained");
    bench.key(Qt::Key_E);
    auto* editor = bench.find<FormulaEditor>("formula_editor");
    REQUIRE(editor->hasFocus());
    bench.type("vec3(0, 1, 0)");
    CHECK(bench.formula_of("stained") == "vec3(0, 1, 0)");
    CHECK(qGreen(bench.stage_pixel(5, 5)) == 255);
    const QImage good = bench.drawing().stage().image;
    bench.type(" * nois");
    CHECK(bench.drawing().stage_is_stale());
    REQUIRE(bench.drawing().stage_fault() != nullptr);
    CHECK(bench.drawing().stage_fault()->id == "lang.unknown-name");
    CHECK(bench.drawing().stage_fault()->place.span == Span{16, 20});
    bench.settle();
    CHECK(bench.drawing().stage().image == good);
    for (int i = 0; i < 7; ++i) bench.key(Qt::Key_Backspace);
    CHECK_FALSE(bench.drawing().stage_is_stale());
    bench.key(Qt::Key_Return);
    CHECK_FALSE(editor->isVisible());
    // All that typing is one change.
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.formula_of("stained") == "mix(soft_view, stain, rim * depth)");
    bench.key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(bench.formula_of("stained") == "vec3(0, 1, 0)");
}

TEST_CASE("Escape leaves a formula as it was") {
    BenchWindow bench(test::demo_path());
    bench.document().select("light");
    const std::string before = bench.formula_of("light");
    bench.key(Qt::Key_Return);
    bench.type("0.5");
    CHECK(bench.formula_of("light") == "0.5");
    bench.key(Qt::Key_Escape);
    CHECK(bench.formula_of("light") == before);
    CHECK_FALSE(bench.document().edited());
}

TEST_CASE("choosing another row while typing keeps what was typed") {
    BenchWindow bench(test::demo_path());
    bench.document().select("light");
    bench.key(Qt::Key_Return);
    bench.type("0.25");
    bench.click(bench.ladder_view(), bench.window().ladder().visible_area("reach").center());
    CHECK(bench.document().selected() == "reach");
    CHECK(bench.formula_of("light") == "0.25");
    CHECK_FALSE(bench.find<FormulaEditor>("formula_editor")->isVisible());
}

TEST_CASE("a step is added, named, moved, switched off and deleted, and all of it undone") {
    BenchWindow bench(test::demo_path());
    const std::vector<std::string> before = order(bench);
    bench.document().select("torn");
    bench.key(Qt::Key_A);
    bench.type("Salt");
    bench.key(Qt::Key_Return);
    bench.key(Qt::Key_Escape);
    CHECK(bench.document().selected() == "salt");
    CHECK(bench.formula_of("salt") == "torn");
    bench.key(Qt::Key_Up, Qt::AltModifier);
    CHECK(order(bench)[3] == "salt");
    CHECK(find_step(bench.document().checked(), "salt")->fault->id == "lang.out-of-reach");
    bench.key(Qt::Key_Down, Qt::AltModifier);
    bench.key(Qt::Key_O);
    CHECK_FALSE(find_step(bench.document().finish(), "salt")->on);
    bench.key(Qt::Key_N);
    bench.type("a note");
    bench.key(Qt::Key_Return);
    CHECK(find_step(bench.document().finish(), "salt")->note == "a note");
    bench.key(Qt::Key_Delete, Qt::ShiftModifier);
    CHECK(order(bench) == before);
    for (int i = 0; i < 7; ++i) bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(order(bench) == before);
    CHECK_FALSE(bench.document().edited());
    CHECK_FALSE(bench.document().history().can_undo());
}

TEST_CASE("a renamed step keeps its users; a bad name is told") {
    BenchWindow bench(test::demo_path());
    bench.document().select("rim");
    bench.key(Qt::Key_F2);
    auto* editor = bench.find<QLineEdit>("line_editor");
    REQUIRE(editor->hasFocus());
    bench.type("Torn edge");
    bench.key(Qt::Key_Return);
    CHECK(bench.document().selected() == "torn_edge");
    CHECK(bench.formula_of("stained") == "mix(soft_view, stain, torn_edge * depth)");
    bench.key(Qt::Key_F2);
    bench.type("stain");
    bench.key(Qt::Key_Return);
    CHECK(bench.document().selected() == "torn_edge");
    CHECK(bench.last_said.contains(QStringLiteral("exists already")));
}

TEST_CASE("coats fold, switch off, and are added and renamed") {
    BenchWindow bench(test::demo_path());
    bench.document().select("stained");
    bench.key(Qt::Key_O, Qt::ShiftModifier);
    CHECK_FALSE(bench.document().finish().coats[1].on);
    CHECK(finished_step(bench.document().checked()) == "rim");
    bench.key(Qt::Key_O, Qt::ShiftModifier);
    bench.key(Qt::Key_F, Qt::ShiftModifier);
    CHECK(bench.document().finish().coats[1].folded);
    CHECK(bench.window().ladder().visible_area("stained").isNull());
    bench.key(Qt::Key_N, Qt::ControlModifier | Qt::AltModifier);
    CHECK(bench.document().finish().coats.size() == 3);
    bench.key(Qt::Key_F2, Qt::ShiftModifier);
    bench.type("Salt water");
    bench.key(Qt::Key_Return);
    CHECK(bench.document().finish().coats[1].name == "Salt water");
}

TEST_CASE("keys walk along the steps, also forty of them") {
    BenchWindow bench;
    Finish many = bench.document().finish();
    for (int i = 0; i < 40; ++i) {
        many.coats[0].steps.push_back(Step{
            "s" + std::to_string(i), i == 0 ? "uv.x" : "s" + std::to_string(i - 1) + " * 0.99", "", true, false, {}});
    }
    bench.document().edit(std::move(many), QStringLiteral("forty steps"));
    bench.document().select("s0");
    for (int i = 0; i < 39; ++i) bench.key(Qt::Key_Down);
    CHECK(bench.document().selected() == "s39");
    CHECK(bench.ladder_view()->rect().contains(bench.window().ladder().visible_area("s39")));
    bench.settle();
    // Only rows in view are drawn.
    CHECK(bench.drawing().thumbnails().contains("s39"));
}

TEST_CASE("a formula of ten thousand brackets is a fault in the row, not a crash") {
    BenchWindow bench(test::demo_path());
    Finish changed = bench.document().finish();
    changed.coats[0].steps[1].formula = std::string(10000, '(') + "1" + std::string(10000, ')');
    bench.document().edit(std::move(changed), QStringLiteral("brackets"));
    bench.document().select("reach");
    bench.settle();
    CHECK(find_step(bench.document().checked(), "reach")->fault->id == "lang.nesting");
    CHECK_FALSE(bench.window().grab().isNull());
}
