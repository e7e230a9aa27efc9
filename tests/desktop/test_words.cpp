// Words of formulas, taken hold of by mouse and keys.
#include <QLineEdit>
#include <catch2/catch.hpp>

#include "desktop/dials/dials_view.h"
#include "desktop/kit/choice_list.h"
#include "desktop/kit/chooser.h"
#include "desktop/kit/colour_editor.h"
#include "desktop/ladder/ladder_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// A number of a formula is dragged by these pixels.
void drag_word(BenchWindow& bench, const std::string& step, const std::string& word, int by) {
    const QPoint at = bench.window().ladder().word_area(step, word).center();
    bench.drag(bench.ladder_view(), at, at + QPoint(by, 0));
}

void undo(BenchWindow& bench) { bench.key(Qt::Key_Z, Qt::ControlModifier); }

}  // namespace

TEST_CASE("a number is dragged where it stands, in any row, and all of the drag is undone as one") {
    BenchWindow bench(test::demo_path());
    const std::string before = bench.formula_of("torn");
    drag_word(bench, "torn", "0.5", 100);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.6) * grain");
    undo(bench);
    CHECK(bench.formula_of("torn") == before);
    // Also in the open row, the wheel and the keys.
    bench.document().select("torn");
    bench.key(Qt::Key_Right);
    for (int i = 0; i < 3; ++i) bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Left);
    bench.key(Qt::Key_Plus);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.51) * grain");
    bench.key(Qt::Key_Minus, Qt::ControlModifier);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.41) * grain");
    bench.key(Qt::Key_Plus, Qt::ShiftModifier);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.411) * grain");
}

TEST_CASE("a number is dragged through zero behind a minus") {
    BenchWindow bench;
    bench.document().edit(test::finish_of({{"a", "uv.x-0.01"}}), QStringLiteral("tight"));
    drag_word(bench, "a", "0.01", -200);
    CHECK(bench.formula_of("a") == "uv.x- -0.01");
    CHECK_FALSE(find_step(bench.document().checked(), "a")->fault);
}

TEST_CASE("a number is typed where it stands; what is computed is taken, what isn't a number is told") {
    BenchWindow bench(test::demo_path());
    bench.document().select("torn");
    bench.click(bench.ladder_view(), bench.window().ladder().word_area("torn", "0.5").center());
    auto* editor = bench.find<QLineEdit>("line_editor");
    REQUIRE(editor->hasFocus());
    bench.type("0.3 * 2");
    bench.key(Qt::Key_Return);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.6) * grain");
    bench.click(bench.ladder_view(), bench.window().ladder().word_area("torn", "0.6").center());
    bench.type("much");
    bench.key(Qt::Key_Return);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.6) * grain");
    CHECK(bench.last_said.contains(QStringLiteral("isn't a number")));
    bench.click(bench.ladder_view(), bench.window().ladder().word_area("torn", "0.6").center());
    bench.type("9");
    bench.key(Qt::Key_Escape);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.6) * grain");
}

TEST_CASE("a name is replaced by one from a list with a picture of each") {
    BenchWindow bench(test::demo_path());
    bench.document().select("torn");
    bench.click(bench.ladder_view(), bench.window().ladder().word_area("torn", "spray").center());
    REQUIRE(bench.window().chooser().isVisible());
    bench.wait_for([&] { return bench.drawing().candidates().size() > 3; });
    bench.type("reach");
    bench.key(Qt::Key_Return);
    CHECK(bench.formula_of("torn") == "reach + (reach - 0.5) * grain");
    undo(bench);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.5) * grain");
    // A word that does not fit says why.
    bench.document().select("light");
    bench.click(bench.ladder_view(), bench.window().ladder().word_area("light", "soft_view").center());
    bench.type("centred");
    bench.key(Qt::Key_Return);
    REQUIRE(find_step(bench.document().checked(), "light")->fault);
    CHECK(bench.last_said.contains(QStringLiteral("2 numbers")));
    bench.document().select("torn");
    // Escape leaves all as it is.
    bench.click(bench.ladder_view(), bench.window().ladder().word_area("torn", "grain").center());
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(bench.window().chooser().isVisible());
    CHECK(bench.window().ladder().hasFocus());
}

TEST_CASE("a step's picture dropped on a word connects it, and one that does not fit says why") {
    BenchWindow bench(test::demo_path());
    const auto picture = [&](const std::string& step) {
        return bench.window().ladder().visible_area(step).topLeft() + QPoint(60, 14);
    };
    const auto word = [&](const std::string& step, const std::string& text) {
        return bench.window().ladder().word_area(step, text).center();
    };
    bench.drag(bench.ladder_view(), picture("spray"), word("torn", "reach"));
    CHECK(bench.formula_of("torn") == "spray + (spray - 0.5) * grain");
    undo(bench);
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.5) * grain");
    bench.drag(bench.ladder_view(), picture("stain"), word("torn", "spray"));
    CHECK(bench.formula_of("torn") == "reach + (spray - 0.5) * grain");
    CHECK(bench.last_said.contains(QStringLiteral("further down")));
}

TEST_CASE("a colour in a formula is changed where it stands") {
    BenchWindow bench;
    Finish finish = test::finish_of({{"paint", "vec3(1, 0.5, 0) * uv.x"}});
    bench.document().edit(std::move(finish), QStringLiteral("paint"));
    bench.document().select("paint");
    bench.click(bench.ladder_view(),
                bench.window().ladder().visible_area("paint").topLeft() +
                    QPoint(bench.window().ladder().word_area("paint", "vec3(1, 0.5, 0)").left() + 6, 34));
    ColourEditor& editor = bench.window().colour_editor();
    REQUIRE(editor.isVisible());
    bench.drag(&editor, editor.track(2).topLeft() + QPoint(1, 6), editor.track(2).topRight() + QPoint(0, 6));
    CHECK(bench.formula_of("paint") == "vec3(1, 0.5, 1) * uv.x");
    bench.find<QLineEdit>("colour_field")->setFocus();
    bench.find<QLineEdit>("colour_field")->selectAll();
    bench.type("#FF0000 x 2");
    bench.key(Qt::Key_Return);
    CHECK_FALSE(editor.isVisible());
    CHECK(bench.formula_of("paint") == "vec3(2, 0, 0) * uv.x");
    undo(bench);
    CHECK(bench.formula_of("paint") == "vec3(1, 0.5, 0) * uv.x");
}

TEST_CASE("any number becomes a dial with one key, and the picture stays as it is") {
    BenchWindow bench(test::demo_path());
    bench.settle();
    const QImage before = bench.drawing().stage().image;
    bench.document().select("torn");
    for (int i = 0; i < 3; ++i) bench.key(Qt::Key_Right);
    bench.key(Qt::Key_D);
    CHECK(bench.formula_of("torn") == "reach + (spray - spray_shift) * grain");
    const Dial* dial = find_dial(bench.document().finish(), "spray_shift");
    REQUIRE(dial != nullptr);
    CHECK(dial->value[0] == 0.5);
    CHECK(bench.window().dials().chosen() == "spray_shift");
    bench.settle();
    CHECK(bench.drawing().stage().image == before);
    undo(bench);
    CHECK(find_dial(bench.document().finish(), "spray_shift") == nullptr);
}

TEST_CASE("a word is completed as it is typed, with pictures") {
    BenchWindow bench(test::demo_path());
    bench.document().select("light");
    bench.key(Qt::Key_E);
    bench.type("mix(sof");
    ChoiceList& list = bench.window().ladder().completions();
    REQUIRE(list.isVisible());
    CHECK(list.choices()[0].name == QStringLiteral("soft view"));
    bench.wait_for([&] { return !bench.drawing().candidates().empty(); });
    bench.key(Qt::Key_Tab);
    CHECK(bench.formula_of("light") == "mix(soft_view");
    CHECK_FALSE(list.isVisible());
    bench.type(", blurr");
    bench.key(Qt::Key_Down);
    bench.key(Qt::Key_Up);
    bench.key(Qt::Key_Return);
    CHECK(bench.formula_of("light") == "mix(soft_view, blurred");
    bench.type(", smooths");
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(list.isVisible());
    bench.key(Qt::Key_Space, Qt::ControlModifier);
    REQUIRE(list.isVisible());
    bench.key(Qt::Key_Tab);
    CHECK(bench.formula_of("light") == "mix(soft_view, blurred, smoothstep(");
}
