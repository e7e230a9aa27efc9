// Draws the pictures of docs/screenshots; not part of the tests. LACQUER_SHOTS names the folder.
#include <QListWidget>
#include <catch2/catch.hpp>
#include <cstdlib>

#include "desktop/dials/dials_view.h"
#include "desktop/ladder/ladder_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

void shoot(BenchWindow& bench, const char* name) {
    bench.window().resize(1280, 800);
    bench.settle();
    const char* folder = std::getenv("LACQUER_SHOTS");
    REQUIRE(folder != nullptr);
    REQUIRE(bench.window().grab().save(qs(std::string(folder) + "/" + name)));
}

}  // namespace

TEST_CASE("pictures of the window", "[.shots]") {
    {
        BenchWindow bench(test::demo_path());
        bench.session().set_time(0.75);
        bench.session().select("rim");
        shoot(bench, "bench.png");
        bench.key(Qt::Key_E);
        bench.key(Qt::Key_End, Qt::ControlModifier);
        bench.type(" * gusts.presents");
        shoot(bench, "fault.png");
    }
    {
        BenchWindow bench(test::demo_path());
        bench.session().set_time(0.75);
        bench.session().select("torn");
        bench.key(Qt::Key_S);
        bench.window().dials().choose("haze");
        bench.key(Qt::Key_D, Qt::ShiftModifier);
        shoot(bench, "dial-page.png");
    }
    {
        BenchWindow bench(test::demo_path("dissolve-plain"));
        bench.session().set_time(1.3);
        bench.session().select("rim");
        shoot(bench, "dissolve.png");
    }
    {
        BenchWindow bench(test::demo_path("lamp-glow"));
        bench.session().set_time(0.6);
        bench.session().select("glowing");
        shoot(bench, "lamp-glow.png");
    }
    {
        BenchWindow bench;
        auto* list = bench.find<QListWidget>("start_list");
        bench.wait_for([list] { return list->item(list->count() - 1)->data(Qt::UserRole + 1).toBool(); });
        shoot(bench, "empty.png");
    }
}
