// The try-on sheet: every operation, already applied.
#include <QLineEdit>
#include <catch2/catch.hpp>

#include "desktop/stage/stage_view.h"
#include "desktop/tryon/try_on_sheet.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

TEST_CASE("one key opens the sheet; typing narrows it, the stage shows the candidate, Enter takes it") {
    BenchWindow bench(test::demo_path());
    bench.document().select("spray");
    bench.key(Qt::Key_T);
    TryOnSheet& sheet = bench.window().try_on();
    REQUIRE(sheet.isVisible());
    CHECK(sheet.candidates().size() == built_in_catalogue()->operations.size());
    bench.wait_for([&] { return bench.drawing().candidates().size() == sheet.candidates().size(); });
    bench.settle();
    const QImage first = bench.drawing().stage().image;
    bench.type("posterize");
    CHECK(sheet.candidates()[static_cast<std::size_t>(sheet.present())].operation == "posterize");
    bench.settle();
    CHECK(bench.drawing().shows_candidate());
    CHECK(bench.drawing().stage().image != first);
    const QImage tried = bench.drawing().stage().image;
    bench.key(Qt::Key_Return);
    CHECK_FALSE(sheet.isVisible());
    CHECK(bench.document().selected() == "posterize");
    CHECK(bench.formula_of("posterize") == "posterize(spray)");
    bench.drawing().show_step("posterize");
    bench.settle();
    CHECK(bench.drawing().stage().image == tried);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(find_step(bench.document().finish(), "posterize") == nullptr);
}

TEST_CASE("Escape leaves all as it was; arrow keys and the mouse move along") {
    BenchWindow bench(test::demo_path());
    bench.settle();
    const Finish before = bench.document().finish();
    const QImage stage = bench.drawing().stage().image;
    bench.key(Qt::Key_T);
    TryOnSheet& sheet = bench.window().try_on();
    const int start = sheet.present();
    bench.key(Qt::Key_Right);
    CHECK(sheet.present() == start + 1);
    bench.key(Qt::Key_Down);
    CHECK(sheet.present() > start + 2);
    bench.key(Qt::Key_Up);
    CHECK(sheet.present() == start + 1);
    bench.click(sheet.grid_viewport(), sheet.candidate_area(4).center());
    CHECK(sheet.present() == 4);
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(sheet.isVisible());
    bench.settle();
    CHECK(bench.document().finish() == before);
    CHECK(bench.drawing().stage().image == stage);
    CHECK_FALSE(bench.document().edited());
}

TEST_CASE("a step's operation is replaced, keeping the arguments that carry over") {
    BenchWindow bench(test::demo_path());
    Finish finish = bench.document().finish();
    for (Step& step : finish.coats[1].steps) {
        if (step.name == "blurred") step.formula = "gaussian_blur(scene, 12)";
    }
    bench.document().edit(std::move(finish), QStringLiteral("a Gaussian"));
    bench.document().select("blurred");
    bench.key(Qt::Key_T, Qt::ShiftModifier);
    bench.type("ring blur");
    bench.key(Qt::Key_Return);
    CHECK(bench.formula_of("blurred").starts_with("ring_blur(scene"));
    CHECK(bench.document().selected() == "blurred");
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.formula_of("blurred") == "gaussian_blur(scene, 12)");
}
