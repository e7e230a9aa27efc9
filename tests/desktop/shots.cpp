// Draws the pictures of docs/screenshots; not part of the tests. LACQUER_SHOTS names the folder.
#include <QListWidget>
#include <QPushButton>
#include <QTest>
#include <catch2/catch.hpp>
#include <cstdlib>

#include "core/finish/steps_text.h"
#include "desktop/code/code_side.h"
#include "desktop/code/code_text.h"
#include "desktop/dials/dials_view.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/pages/layer_pictures.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/ship/ship_screen.h"
#include "desktop/stage/stage_view.h"
#include "desktop/sweep/sweep_screen.h"
#include "desktop/tryon/try_on_sheet.h"
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

// The strike, and below it coats of other demos, until there are forty steps.
Finish forty_steps() {
    Finish finish = test::demo_finish();
    for (const char* name : {"lamp-glow", "flat-paint", "broken-mirror", "everyday-grade", "brightness-burn",
                             "dissolve", "blink-and-pulse", "daze", "everyday-crossfade"}) {
        const std::string path = test::demo_path(name);
        const Result<OpenedFinish> other = load_finish(path);
        if (!other) continue;
        for (std::size_t coat = 0; coat < other->finish.coats.size() && step_count(finish) < 40; ++coat) {
            auto pasted = paste_text(finish, test::demo_path(), {}, coat_as_text(other->finish, path, coat));
            if (pasted) finish = std::move(pasted->finish);
        }
    }
    return finish;
}

}  // namespace

TEST_CASE("pictures of the window", "[.shots]") {
    {
        BenchWindow bench(test::demo_path());
        bench.playing().set_time(0.75);
        bench.document().select("rim");
        shoot(bench, "bench.png");
        bench.key(Qt::Key_E);
        bench.key(Qt::Key_End, Qt::ControlModifier);
        bench.type(" * gusts.presents");
        shoot(bench, "fault.png");
    }
    {
        BenchWindow bench(test::demo_path());
        bench.playing().set_time(0.75);
        bench.document().select("torn");
        bench.key(Qt::Key_S);
        bench.window().dials().choose("haze");
        bench.key(Qt::Key_D, Qt::ShiftModifier);
        shoot(bench, "dial-page.png");
    }
    {
        BenchWindow bench(test::demo_path("dissolve"));
        bench.settle();
        bench.key(Qt::Key_3, Qt::ControlModifier);
        Sweeping& sweeping = bench.window().sweep().sweeping();
        REQUIRE(QTest::qWaitFor([&] { return sweeping.settled() && !sweeping.measuring(); }, 30000));
        shoot(bench, "sweep.png");
        bench.action("next_variant");
        SheetSpec spec = sweeping.spec();
        spec.along.count = 8;
        spec.against.kind = AxisKind::variants;
        sweeping.set_spec(spec);
        REQUIRE(QTest::qWaitFor([&] { return sweeping.settled() && !sweeping.measuring(); }, 30000));
        shoot(bench, "variants.png");
    }
    {
        BenchWindow bench(test::demo_path("borrowed-light"));
        bench.playing().set_time(1.5);
        bench.document().select("fog_light");
        bench.action("code_editor");
        CodeText& text = bench.window().code().text();
        text.go_to(static_cast<int>(text.toPlainText().indexOf(QStringLiteral("off = abs"))));
        bench.action("see_variable");
        shoot(bench, "code.png");
    }
    {
        BenchWindow bench(test::demo_path("chimney-smoke"));
        bench.playing().set_time(6);
        bench.document().select("smoke");
        bench.key(Qt::Key_T, Qt::ControlModifier);
        shoot(bench, "flow.png");
    }
    {
        BenchWindow bench(test::demo_path("rain-on-the-pane"));
        bench.playing().set_time(2.6);
        bench.document().select("through");
        bench.action("ground_shelf");
        bench.window().shelf().choose("runs");
        bench.window().shelf().setFocus();
        bench.key(Qt::Key_Return);
        bench.click(bench.find<QPushButton>("group_Motion"), {10, 10});
        bench.wait_for(
            [&] { return bench.window().findChild<QWidget*>(QStringLiteral("span_number_fall")) != nullptr; });
        shoot(bench, "droplets.png");
    }
    {
        BenchWindow bench(test::demo_path());
        bench.document().edit(forty_steps(), QStringLiteral("Forty steps"));
        bench.playing().set_time(0.75);
        bench.document().select("rim");
        bench.drawing().show_step("stained");
        bench.key(Qt::Key_C);
        shoot(bench, "forty-steps.png");
    }
    {
        BenchWindow bench(test::demo_path());
        bench.playing().set_time(0.75);
        bench.document().select("stained");
        bench.window().resize(1280, 800);
        bench.key(Qt::Key_T);
        TryOnSheet& sheet = bench.window().try_on();
        bench.type("blur");
        bench.wait_for([&] { return bench.drawing().candidates().size() >= built_in_catalogue()->operations.size(); });
        bench.key(Qt::Key_Right);
        REQUIRE(sheet.isVisible());
        shoot(bench, "try-on.png");
    }
    {
        BenchWindow bench(test::demo_path());
        bench.playing().set_time(0.75);
        bench.document().select("rim");
        bench.window().resize(1280, 800);
        bench.key(Qt::Key_L);
        bench.key(Qt::Key_K);
        bench.settle();
        StageView& stage = bench.window().stage();
        bench.click(&stage, stage.screen_point({420, 240}));
        shoot(bench, "core-sample.png");
    }
    {
        BenchWindow bench(test::demo_path());
        bench.playing().set_time(0.75);
        Finish finish = bench.document().finish();
        finish.coats[1].steps.back().formula = "mix(soft_view, stain, torn * 3)";
        bench.document().edit(std::move(finish), QStringLiteral("too much"));
        bench.document().select("stained");
        bench.wait_for([&] { return !bench.drawing().warnings().empty(); });
        shoot(bench, "mend.png");
    }
    {
        BenchWindow bench(test::demo_path());
        bench.to_open = QStringLiteral(LACQUER_SOURCE "/demo/tapes/gale-night.tape");
        bench.action("open_tape");
        bench.window().resize(1280, 800);
        bench.key(Qt::Key_2, Qt::ControlModifier);
        bench.playing().set_time(4.12);
        bench.action("check_rates");
        bench.wait_for([&] { return bench.drawing().rates() != nullptr; });
        shoot(bench, "rehearse.png");
    }
    {
        BenchWindow bench(test::demo_path("ailing-crab"));
        bench.window().resize(1280, 800);
        bench.key(Qt::Key_2, Qt::ControlModifier);
        bench.playing().set_time(4.6);
        LanesView& lanes = bench.window().rehearse().lanes();
        bench.click(lanes.viewport(), QPoint(40, lanes.lane_area("vigour").center().y()));
        shoot(bench, "signals.png");
    }
    {
        BenchWindow bench(test::demo_path("object-outlines"));
        bench.playing().set_time(1);
        bench.document().select("lined");
        bench.window().resize(1280, 800);
        bench.key(Qt::Key_G, Qt::ShiftModifier);
        bench.wait_for([&] { return bench.drawing().thumbnails().contains("lifting"); });
        shoot(bench, "outlines.png");
    }
    {
        BenchWindow bench(test::demo_path());
        bench.window().resize(1280, 800);
        bench.key(Qt::Key_4, Qt::ControlModifier);
        Shipping& shipping = bench.window().ship().shipping();
        REQUIRE(QTest::qWaitFor([&] { return shipping.is_current() && !shipping.is_looking(); }, 60000));
        bench.action("verify_set");
        REQUIRE(QTest::qWaitFor([&] { return !bench.document().background().busy(); }, 60000));
        shoot(bench, "ship.png");
    }
    {
        BenchWindow bench(test::demo_path("captured-harbour"));
        bench.playing().set_time(0.8);
        bench.document().select("ring");
        bench.window().resize(1280, 800);
        bench.key(Qt::Key_G, Qt::ShiftModifier);
        bench.window().shelf().choose("shot");
        bench.key(Qt::Key_G, Qt::ControlModifier);
        const auto* layers = bench.find<LayerPictures>("layer_pictures");
        bench.wait_for([&] { return layers->drawn() == 5; });
        shoot(bench, "capture.png");
    }
    {
        BenchWindow bench;
        auto* list = bench.find<QListWidget>("start_list");
        bench.wait_for([list] { return list->item(list->count() - 1)->data(Qt::UserRole + 1).toBool(); });
        shoot(bench, "start.png");
    }
}
