// Looking closely: curtain, pins, zoom, looks, core sample, transect.
#include <QClipboard>
#include <QGuiApplication>
#include <QLineEdit>
#include <catch2/catch.hpp>

#include "core/lang/oracle.h"
#include "core/picture/files.h"
#include "desktop/kit/chooser.h"
#include "desktop/shell/notice_bar.h"
#include "desktop/stage/stage_view.h"
#include "desktop/stage/transect_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// A finish of plain arithmetic, so that the oracle needs nothing from outside.
Finish plain_finish() {
    Finish finish = test::finish_of({{"across", "uv.x * 2.0 - 0.5"},
                                     {"rim", "smoothstep(edge, edge + 0.5, across)"},
                                     {"paint", "vec4(rim, uv.y, 0.25, 1.0)"}});
    finish.frame_width = 320;
    finish.frame_height = 180;
    Dial edge;
    edge.name = edge.code_name = "edge";
    edge.value = edge.default_value = {0.25, 0, 0};
    finish.dials.push_back(edge);
    return finish;
}

// What the oracle says a step is worth at a pixel.
Value oracle_at(const CheckedFinish& checked, const std::string& step, int x, int y) {
    OracleInputs inputs;
    inputs.name = [&](const std::string& name, Type, int, int) -> Value {
        if (name == "uv") return make_vec2((static_cast<float>(x) + 0.5F) / 320, (static_cast<float>(y) + 0.5F) / 180);
        if (name == "edge") return make_number(0.25F);
        return oracle_at(checked, name, x, y);
    };
    return evaluate(*find_step(checked, step)->typed, inputs);
}

// The stage's own pixels, with nothing over them.
QRgb seen(BenchWindow& bench, QPoint pixel) {
    bench.settle();
    StageView& stage = bench.window().stage();
    return stage.grab().toImage().pixel(stage.screen_point(pixel));
}

}  // namespace

TEST_CASE("the core sample has the oracle's values for every step, and follows dials") {
    BenchWindow bench;
    bench.document().edit(plain_finish(), QStringLiteral("plain"));
    bench.settle();
    bench.key(Qt::Key_K);
    StageView& stage = bench.window().stage();
    for (const QPoint pixel : {QPoint(0, 0), QPoint(200, 90), QPoint(319, 179)}) {
        bench.click(&stage, stage.screen_point(pixel));
        bench.settle();
        REQUIRE(bench.drawing().probe().points == std::vector<PixelPoint>{{pixel.x(), pixel.y()}});
        for (const char* step : {"across", "rim", "paint"}) {
            const DrawnStep* drawn = bench.drawing().probe().find(step);
            REQUIRE(drawn != nullptr);
            const Value expected = oracle_at(bench.document().checked(), step, pixel.x(), pixel.y());
            for (int c = 0; c < width_of(drawn->type); ++c) {
                INFO(step << " part " << c);
                CHECK(drawn->picture.at(0, 0)[c] == Approx(expected.parts[static_cast<std::size_t>(c)]).margin(1e-6));
            }
        }
        bench.click(&stage, stage.screen_point(pixel));  // lets go of it
    }
    bench.click(&stage, stage.screen_point({160, 90}));
    bench.settle();
    const float before = bench.drawing().probe().find("rim")->picture.at(0, 0)[0];
    bench.playing().set_dial("edge", {0.5, 0, 0});
    bench.settle();
    CHECK(bench.drawing().probe().find("rim")->picture.at(0, 0)[0] < before);
    bench.key(Qt::Key_C, Qt::ControlModifier);
    CHECK(QGuiApplication::clipboard()->text().contains(QStringLiteral("across\t")));
    // Escape goes back step by step: lets go, then puts the tool away.
    bench.key(Qt::Key_Escape);
    CHECK(stage.samples());
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(stage.samples());
    CHECK(bench.drawing().probe().steps.empty());
}

TEST_CASE("the transect plots values along a line, its guides measure, and an edge that is a dial is dragged") {
    BenchWindow bench;
    bench.document().edit(plain_finish(), QStringLiteral("plain"));
    bench.document().select("rim");
    bench.key(Qt::Key_L);
    StageView& stage = bench.window().stage();
    TransectView& transect = stage.transect();
    REQUIRE(transect.isVisible());
    bench.drag(&stage, stage.screen_point({20, 90}), stage.screen_point({300, 90}));
    bench.settle();
    const auto names = transect.curve_names();
    CHECK(std::find(names.begin(), names.end(), "rim") != names.end());
    const auto& points = bench.drawing().probe().points;
    REQUIRE(points.size() == 240);
    for (const std::size_t i : {std::size_t{0}, std::size_t{100}, points.size() - 1}) {
        const Value expected = oracle_at(bench.document().checked(), "rim", points[i].x, points[i].y);
        CHECK(transect.value_of("rim", static_cast<int>(i)) == Approx(expected.parts[0]).margin(1e-6));
    }
    CHECK(transect.reading().contains(QStringLiteral("width ")));
    const int y = transect.edge_y("edge");
    bench.drag(&transect, {transect.width() / 2 + 3, y}, {transect.width() / 2 + 3, y - 20});
    CHECK(find_dial(bench.document().finish(), "edge")->value[0] > 0.3);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(find_dial(bench.document().finish(), "edge")->value[0] == 0.25);
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(transect.isVisible());
}

TEST_CASE("the curtain parts before and after, or any two steps, and is dragged") {
    BenchWindow bench(test::demo_path());
    Finish finish = bench.document().finish();
    finish.coats[1].steps.back().formula = "vec4(0, 1, 0, 1)";
    bench.document().edit(std::move(finish), QStringLiteral("green"));
    bench.key(Qt::Key_C);
    CHECK(seen(bench, {1000, 100}) == qRgb(0, 255, 0));
    CHECK(seen(bench, {100, 100}) != qRgb(0, 255, 0));
    StageView& stage = bench.window().stage();
    bench.drag(&stage, stage.screen_point({640, 360}), stage.screen_point({60, 360}));
    CHECK(bench.drawing().look().curtain_at < 0.1);
    CHECK(seen(bench, {200, 100}) == qRgb(0, 255, 0));
    bench.key(Qt::Key_C, Qt::ShiftModifier);
    bench.type("spray");
    bench.key(Qt::Key_Return);
    CHECK(bench.drawing().look().curtain_other == "spray");
    bench.settle();
    CHECK(bench.drawing().stage().beside.front().step == "spray");
    bench.key(Qt::Key_C);
    CHECK_FALSE(bench.drawing().look().curtain);
}

TEST_CASE("a step is pinned beside, the frame has other shapes, and a plain look brings all back") {
    BenchWindow bench(test::demo_path());
    bench.document().select("rim");
    bench.key(Qt::Key_P);
    bench.settle();
    CHECK(bench.drawing().look().pinned == "rim");
    REQUIRE(bench.drawing().stage().beside.size() == 1);
    bench.key(Qt::Key_W);
    bench.type("square");
    bench.key(Qt::Key_Return);
    bench.settle();
    CHECK(bench.drawing().stage().image.size() == QSize(720, 720));
    bench.key(Qt::Key_W);
    bench.type("300 x 200");
    bench.key(Qt::Key_Return);
    bench.settle();
    CHECK(bench.drawing().stage().image.size() == QSize(300, 200));
    bench.key(Qt::Key_W);
    bench.type("0 x 7");
    bench.key(Qt::Key_Return);
    CHECK(bench.last_said.contains(QStringLiteral("isn't a size")));
    for (const Qt::Key key : {Qt::Key_BracketRight, Qt::Key_H}) bench.key(key);
    bench.key(Qt::Key_M, Qt::ShiftModifier);
    bench.key(Qt::Key_K, Qt::ShiftModifier);
    const Look look = bench.drawing().look();
    CHECK(look.style.exposure == 0.5);
    CHECK(look.line_grid);
    CHECK(look.style.mark_range);
    CHECK(look.style.false_colour);
    bench.key(Qt::Key_Backslash);
    CHECK(bench.drawing().look() == Look());
    CHECK_FALSE(bench.document().edited());
}

TEST_CASE("the stage zooms to single pixels and back") {
    BenchWindow bench;
    bench.document().edit(plain_finish(), QStringLiteral("plain"));
    bench.settle();
    StageView& stage = bench.window().stage();
    const QPoint fitted = stage.screen_point({10, 10});
    bench.key(Qt::Key_Z);
    CHECK(stage.screen_point({11, 10}).x() - stage.screen_point({10, 10}).x() == 1);
    for (int i = 0; i < 7; ++i) bench.key(Qt::Key_Equal, Qt::ControlModifier);
    CHECK(stage.screen_point({11, 10}).x() - stage.screen_point({10, 10}).x() == 64);
    CHECK_FALSE(stage.grab().isNull());
    for (int i = 0; i < 6; ++i) bench.key(Qt::Key_Minus, Qt::ControlModifier);
    bench.key(Qt::Key_Z);
    CHECK(stage.screen_point({10, 10}) == fitted);
}

TEST_CASE("a colour is picked from the stage with its brightness, into the chosen colour dial too") {
    BenchWindow bench;
    Finish finish = plain_finish();
    finish.coats[0].steps.back().formula = "vec4(2.0, 0.5, 0.0, 1.0)";
    Dial tint;
    tint.name = tint.code_name = "tint";
    tint.kind = DialKind::colour;
    finish.dials.insert(finish.dials.begin(), tint);
    bench.document().edit(std::move(finish), QStringLiteral("colours"));
    bench.settle();
    bench.action("pick_colour");
    StageView& stage = bench.window().stage();
    bench.click(&stage, stage.screen_point({100, 100}));
    CHECK(QGuiApplication::clipboard()->text() == QStringLiteral("#FF8900 x 2"));
    CHECK(bench.last_said.contains(QStringLiteral("brightness 0.783")));
    CHECK(find_dial(bench.document().finish(), "tint")->value == DialValue{2, 0.5, 0});
}

TEST_CASE("what is shown is copied and saved") {
    BenchWindow bench;
    bench.document().edit(plain_finish(), QStringLiteral("plain"));
    bench.settle();
    bench.action("copy_picture");
    CHECK(QGuiApplication::clipboard()->image().size() == QSize(320, 180));
    bench.to_save = qs(bench.folder().file("seen"));
    bench.action("save_picture");
    const auto saved = [&] { return !bench.document().background().busy(); };
    bench.wait_for(saved);
    CHECK(QImage(bench.to_save + QStringLiteral(".png")).size() == QSize(320, 180));
    bench.to_save = QStringLiteral("/nonexistent/seen.png");
    bench.action("save_picture");
    bench.wait_for(saved);
    CHECK(bench.last_said.contains(QStringLiteral("cannot be written")));
    // A failure stays until it is seen, whatever is said after it.
    bench.document().say(QStringLiteral("something else"));
    CHECK(bench.window().notice_bar().failure().contains(QStringLiteral("cannot be written")));
    bench.key(Qt::Key_F4, Qt::ShiftModifier);
    CHECK(bench.window().notice_bar().failure().isEmpty());
    CHECK(bench.window().chooser().list().choices().at(1).name.contains(QStringLiteral("cannot be written")));
}

TEST_CASE("in play only what is seen is drawn, and numbers are there as soon as they are asked for") {
    BenchWindow bench;
    Finish finish = test::finish_of({{"lit", "vec3(0.25, 0.5 + 0.25 * sin(time * 0.001), 3.0)"}});
    finish.frame_width = 320;
    finish.frame_height = 180;
    bench.document().edit(std::move(finish), QStringLiteral("lit"));
    bench.settle();
    CHECK(bench.drawing().stage().values != nullptr);
    bench.playing().set_playing(true);
    const auto until = [&](const auto& there) {
        bench.wait_for([&] {
            bench.clock += 0.02;
            return there();
        });
    };
    until([&] { return bench.drawing().stage().in_a_drag && bench.drawing().stage().values == nullptr; });
    CHECK_FALSE(bench.drawing().stage().image.isNull());
    // Saved as it would be at rest.
    bench.to_save = qs(bench.folder().file("moving.exr"));
    bench.action("save_picture");
    until([&] { return !bench.document().background().busy(); });
    const Result<Picture> saved = read_picture(bench.folder().file("moving.exr"), PictureMeaning::data);
    REQUIRE(saved);
    CHECK(saved->at(10, 10)[0] == 0.25F);
    CHECK(saved->at(10, 10)[2] == 3.0F);
    bench.action("pick_colour");
    until([&] { return bench.drawing().stage().values != nullptr; });
    StageView& stage = bench.window().stage();
    bench.click(&stage, stage.screen_point({100, 100}));
    CHECK(bench.last_said.contains(QStringLiteral("brightness")));
    until([&] { return bench.drawing().stage().values == nullptr; });
}

TEST_CASE("a step that was pinned or compared with and is gone leaves the stage whole") {
    BenchWindow bench(test::demo_path());
    bench.document().select("rim");
    bench.key(Qt::Key_P);
    bench.window().stage().set_curtain_other("rim");
    bench.document().open(qs(test::demo_path("lamp-glow")));
    CHECK(bench.drawing().look().pinned.empty());
    CHECK(bench.drawing().look().curtain_other.empty());
}

TEST_CASE("the last good picture becomes sharp at rest, also when a step with a fault was wanted since") {
    BenchWindow bench;
    Finish finish = test::finish_of(
        {{"slow", "float s = 0.0; for (int i = 0; i < 6000; i++) s += sin(float(i) + uv.x + time); return s;"},
         {"broken", "nowhere"}});
    finish.frame_width = finish.frame_height = 64;
    bench.document().edit(std::move(finish), QStringLiteral("slow"));
    bench.drawing().show_step("slow");
    bench.settle();
    bench.playing().set_playing(true);
    bench.wait_for([&] {
        bench.clock += 0.05;
        return bench.drawing().stage().reduced;
    });
    bench.drawing().show_step("broken");
    bench.playing().set_playing(false);
    bench.settle();
    CHECK(bench.drawing().stage_is_stale());
    CHECK(bench.drawing().stage().values->width == 64);
}
