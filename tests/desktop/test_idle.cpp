// What the window does while there is nothing to do.
#include <QEventLoop>
#include <QSignalSpy>
#include <QTimer>
#include <catch2/catch.hpp>
#include <ctime>

#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// Whatever comes within that time is done.
void pass(int milliseconds) {
    QEventLoop loop;
    QTimer::singleShot(milliseconds, &loop, &QEventLoop::quit);
    loop.exec();
}

}  // namespace

TEST_CASE("a still window uses no processor") {
    BenchWindow bench(test::demo_path());
    bench.wait_for([&] { return bench.drawing().settled() && bench.drawing().inspected(); });
    // What follows from the last picture, and autosave.
    pass(500);
    const std::clock_t before = std::clock();
    pass(1000);
    // Of all threads; a picture of the demo takes more than that.
    CHECK(static_cast<double>(std::clock() - before) / CLOCKS_PER_SEC < 0.03);
}

TEST_CASE("a hidden window draws nothing, and what is wanted once it is seen again") {
    BenchWindow bench(test::demo_path());
    bench.wait_for([&] { return bench.drawing().settled() && bench.drawing().inspected(); });
    const QSignalSpy drawn(&bench.drawing(), &Drawing::stage_changed);
    const QSignalSpy small(&bench.drawing(), &Drawing::thumbnails_changed);
    bench.window().hide();
    bench.playing().set_time(0.5);
    Finish changed = bench.document().finish();
    changed.coats.back().steps.own().back().formula = "vec4(0.25, 0.5, 0.75, 1)";
    bench.document().edit(changed, QStringLiteral("changed"));
    pass(400);
    CHECK(bench.drawing().settled());
    CHECK(drawn.empty());
    CHECK(small.empty());
    bench.window().show();
    bench.wait_for([&] { return !drawn.empty() && bench.drawing().settled(); });
    CHECK(bench.drawing().stage().image.pixelColor(3, 3).blue() > 200);
}
