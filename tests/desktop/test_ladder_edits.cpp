// What the ladder's actions do to steps and coats, and that each is undone.
#include <QClipboard>
#include <QGuiApplication>
#include <QLineEdit>
#include <catch2/catch.hpp>

#include "core/base/text.h"
#include "core/finish/step_edits.h"
#include "desktop/kit/choice_list.h"
#include "desktop/kit/chooser.h"
#include "desktop/ladder/ladder_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

std::vector<std::string> order_of_steps(BenchWindow& bench) {
    std::vector<std::string> names;
    for_each_step(bench.document().finish(), [&](const Coat&, const Step& step) { names.push_back(step.name); });
    return names;
}

// Does something, and sees that undo takes it back.
template <class Do>
void undone(BenchWindow& bench, Do act) {
    const Finish before = bench.document().finish();
    act();
    CHECK(bench.document().finish() != before);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.document().finish() == before);
}

}  // namespace

TEST_CASE("a part of a formula becomes a step, and a step goes back into its users") {
    BenchWindow bench(test::demo_path());
    bench.document().select("stain");
    bench.key(Qt::Key_E);
    bench.key(Qt::Key_End);
    for (int i = 0; i < 4; ++i) bench.key(Qt::Key_Left);
    bench.key(Qt::Key_E, Qt::ControlModifier);
    CHECK(bench.document().selected() == "stain_part");
    CHECK(bench.formula_of("stain_part") == "light * 1.5");
    CHECK(bench.formula_of("stain") == "tint * (0.25 + stain_part)");
    auto* editor = bench.find<QLineEdit>("line_editor");
    REQUIRE(editor->hasFocus());
    bench.type("Lit");
    bench.key(Qt::Key_Return);
    CHECK(bench.formula_of("stain") == "tint * (0.25 + lit)");
    bench.key(Qt::Key_I, Qt::ControlModifier);
    CHECK(bench.formula_of("stain") == "tint * (0.25 + (light * 1.5))");
    CHECK(find_step(bench.document().finish(), "lit") == nullptr);
    for (int i = 0; i < 3; ++i) bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.formula_of("stain") == "tint * (0.25 + light * 1.5)");
}

TEST_CASE("steps are turned round, swapped, copied, put above, marked, replaced, and each undone") {
    BenchWindow bench(test::demo_path());
    bench.document().select("torn");
    undone(bench, [&] {
        bench.key(Qt::Key_I);
        CHECK(bench.formula_of("torn") == "1.0 - (reach + (spray - 0.5) * grain)");
    });
    undone(bench, [&] {
        bench.key(Qt::Key_X);
        CHECK(bench.formula_of("torn") == "(spray - 0.5) * grain + reach");
    });
    undone(bench, [&] {
        bench.key(Qt::Key_D, Qt::ControlModifier);
        CHECK(order_of_steps(bench)[4] == "torn_2");
    });
    bench.document().select("torn");
    undone(bench, [&] {
        bench.key(Qt::Key_S, Qt::ShiftModifier);
        CHECK(stand_ins(bench.document().finish()) == std::vector<std::string>{"torn"});
    });
    undone(bench, [&] {
        bench.key(Qt::Key_U);
        REQUIRE(bench.window().chooser().isVisible());
        bench.type("reach");
        bench.key(Qt::Key_Return);
        CHECK(bench.formula_of("rim") == "smoothstep(radius, radius + softness, reach) * presence * flicker");
    });
    bench.document().select("torn");
    bench.key(Qt::Key_A, Qt::AltModifier);
    bench.key(Qt::Key_Escape);
    CHECK(order_of_steps(bench)[3] == "step_1");
    CHECK(order_of_steps(bench)[4] == "torn");
}

TEST_CASE("keys walk along threads; a move that breaks a reference says which, and one click mends it") {
    BenchWindow bench(test::demo_path());
    bench.document().select("torn");
    bench.key(Qt::Key_Right, Qt::AltModifier);
    CHECK(bench.document().selected() == "rim");
    bench.key(Qt::Key_Left, Qt::AltModifier);
    CHECK(bench.document().selected() == "torn");
    // Of several ends one is chosen.
    bench.document().select("stained");
    bench.key(Qt::Key_Left, Qt::AltModifier);
    REQUIRE(bench.window().chooser().isVisible());
    CHECK(bench.window().chooser().list().choices().size() == 3);
    CHECK(bench.document().selected() == "stained");
    bench.key(Qt::Key_Down);
    const QString second = bench.window().chooser().list().choices()[1].name;
    bench.key(Qt::Key_Return);
    CHECK(qs(shown_name(bench.document().selected())) == second);
    bench.document().select("torn");
    bench.key(Qt::Key_Down, Qt::AltModifier);
    CHECK(bench.last_said.contains(QStringLiteral("rim names torn, which is below it now")));
    bench.document().select("rim");
    REQUIRE(find_step(bench.document().checked(), "rim")->fault);
    bench.click(bench.ladder_view(), bench.window().ladder().mend_area(0).center());
    CHECK_FALSE(find_step(bench.document().checked(), "rim")->fault);
    CHECK(order_of_steps(bench)[4] == "rim");
}

TEST_CASE("a row is dragged to another place") {
    BenchWindow bench(test::demo_path());
    LadderView& ladder = bench.window().ladder();
    const QPoint from = ladder.visible_area("spray").topLeft() + QPoint(110, 16);
    const QPoint to = ladder.visible_area("torn").bottomLeft() + QPoint(110, -4);
    undone(bench, [&] {
        bench.drag(bench.ladder_view(), from, to);
        CHECK(order_of_steps(bench)[3] == "spray");
    });
}

TEST_CASE("steps and coats are copied as text and pasted, also by hand-written lines") {
    BenchWindow bench(test::demo_path());
    bench.document().select("torn");
    bench.key(Qt::Key_C, Qt::ControlModifier);
    CHECK(QGuiApplication::clipboard()->text().contains(QStringLiteral("\"torn\"")));
    undone(bench, [&] {
        bench.key(Qt::Key_V, Qt::ControlModifier);
        CHECK(bench.document().selected() == "torn_2");
    });
    undone(bench, [&] {
        bench.action("copy_coat");
        bench.key(Qt::Key_V, Qt::ControlModifier);
        CHECK(bench.document().finish().coats.size() == 3);
    });
    QGuiApplication::clipboard()->setText(QStringLiteral("glare = light * 2\nglint = pow(glare, 3.0)"));
    bench.document().select("light");
    undone(bench, [&] {
        bench.key(Qt::Key_V, Qt::ControlModifier);
        CHECK(bench.formula_of("glint") == "pow(glare, 3.0)");
        CHECK_FALSE(find_step(bench.document().checked(), "glint")->fault);
    });
    QGuiApplication::clipboard()->setText(QStringLiteral("nothing of use"));
    bench.key(Qt::Key_V, Qt::ControlModifier);
    CHECK(bench.last_said.contains(QStringLiteral("isn't a step")));
    undone(bench, [&] { bench.key(Qt::Key_X, Qt::ControlModifier); });
}

TEST_CASE("a coat of one's own is kept and inserted in another finish") {
    const test::TemporaryFolder folder;
    qputenv("XDG_DATA_HOME", QByteArray::fromStdString(folder.file("data")));
    {
        BenchWindow bench(test::demo_path());
        bench.document().select("rim");
        bench.action("keep_coat");
        CHECK(bench.last_said.contains(QStringLiteral("Kept the coat Edge mask")));
    }
    BenchWindow bench;
    bench.action("insert_coat");
    REQUIRE(bench.window().chooser().isVisible());
    bench.key(Qt::Key_Return);
    CHECK(bench.document().finish().coats.size() == 2);
    CHECK(bench.document().finish().coats[1].name == "Edge mask");
    CHECK(find_dial(bench.document().finish(), "radius") != nullptr);
    qunsetenv("XDG_DATA_HOME");
}

TEST_CASE("coats move and carry notes") {
    BenchWindow bench(test::demo_path());
    bench.document().select("rim");
    undone(bench, [&] {
        bench.key(Qt::Key_Down, Qt::AltModifier | Qt::ShiftModifier);
        CHECK(bench.document().finish().coats[1].name == "Edge mask");
        CHECK(bench.last_said.contains(QStringLiteral("which is below it now")));
    });
    undone(bench, [&] {
        bench.key(Qt::Key_N, Qt::ShiftModifier);
        bench.type("where the blow lands");
        bench.key(Qt::Key_Return);
        CHECK(bench.document().finish().coats[0].note == "where the blow lands");
    });
}

TEST_CASE("the ladder is filtered by what is typed, until Escape") {
    BenchWindow bench(test::demo_path());
    bench.key(Qt::Key_Slash);
    bench.type("spray");
    LadderView& ladder = bench.window().ladder();
    CHECK_FALSE(ladder.visible_area("spray").isNull());
    CHECK_FALSE(ladder.visible_area("torn").isNull());  // its formula names it
    CHECK(ladder.visible_area("stained").isNull());
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(ladder.visible_area("stained").isNull());
    CHECK(ladder.hasFocus());
}

TEST_CASE("what was done can be read and gone back to, however far") {
    BenchWindow bench(test::demo_path());
    const Finish before = bench.document().finish();
    bench.document().select("torn");
    bench.key(Qt::Key_I);
    bench.key(Qt::Key_D, Qt::ControlModifier);
    bench.key(Qt::Key_O);
    const Finish after = bench.document().finish();
    bench.key(Qt::Key_H, Qt::ControlModifier);
    const auto& choices = bench.window().chooser().list().choices();
    REQUIRE(choices.size() == 4);
    CHECK(choices[2].name == QStringLiteral("Inverted torn"));
    bench.type("beginning");
    bench.key(Qt::Key_Return);
    CHECK(bench.document().finish() == before);
    bench.key(Qt::Key_H, Qt::ControlModifier);
    bench.key(Qt::Key_Return);
    CHECK(bench.document().finish() == after);
}

TEST_CASE("a warning stands at its step with a mend that works by mouse and by key") {
    BenchWindow bench(test::demo_path());
    Finish finish = bench.document().finish();
    finish.coats[1].steps.back().formula = "mix(soft_view, stain, torn * 3)";
    bench.document().edit(std::move(finish), QStringLiteral("too much"));
    bench.document().select("stained");
    bench.wait_for([&] { return !bench.drawing().warnings().empty(); });
    CHECK(bench.drawing().warnings().front().where == "stained");
    bench.key(Qt::Key_M);
    CHECK(bench.formula_of("stained") == "mix(soft_view, stain, clamp(torn * 3, 0.0, 1.0))");
    bench.wait_for([&] { return bench.drawing().inspected(); });
    CHECK(bench.drawing().warnings().empty());
}
