// Dials by real drags and keys.
#include <QApplication>
#include <QClipboard>
#include <QComboBox>
#include <QGuiApplication>
#include <QLineEdit>
#include <QMenu>
#include <catch2/catch.hpp>

#include "core/finish/stop_presets.h"
#include "desktop/dials/dials_view.h"
#include "desktop/kit/colour_editor.h"
#include "desktop/kit/dial_text.h"
#include "desktop/pages/stops_editor.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

double value_of(BenchWindow& bench, const std::string& dial) {
    return find_dial(bench.document().finish(), dial)->value[0];
}

void set_field(BenchWindow& bench, const char* name, const std::string& text) {
    auto* line = bench.find<QLineEdit>(name);
    line->setFocus();
    line->selectAll();
    bench.type(text);
    bench.key(Qt::Key_Return);
}

}  // namespace

TEST_CASE("a dragged dial moves the stage, and one undo takes the drag back") {
    BenchWindow bench(test::demo_path());
    bench.playing().set_time(0.7);
    bench.settle();
    const QImage before = bench.drawing().stage().image;
    const QRect track = bench.window().dials().track_area("grain");
    bench.drag(bench.dials_view(), track.center(), track.center() + QPoint(60, 0));
    CHECK(value_of(bench, "grain") > 0.6);
    bench.settle();
    bench.wait_for([&] { return !bench.drawing().stage().reduced && bench.drawing().stage().image != before; });
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(value_of(bench, "grain") == 0.4);
    CHECK_FALSE(bench.document().history().can_undo());
}

TEST_CASE("a driven dial is held by dragging it, unsaved, until Escape") {
    BenchWindow bench(test::demo_path());
    const QRect track = bench.window().dials().track_area("presence");
    bench.drag(bench.dials_view(), QPoint(track.left() + 2, track.center().y()),
               QPoint(track.right() - 2, track.center().y()));
    REQUIRE(bench.playing().held().contains("presence"));
    CHECK(setting_from(bench.playing().values().at("presence"))[0] > 0.9);
    CHECK_FALSE(bench.document().edited());
    bench.key(Qt::Key_Escape);
    CHECK(bench.playing().held().empty());
    CHECK(setting_from(bench.playing().values().at("presence"))[0] == 0);
}

TEST_CASE("values are typed, stepped, reset and made the default") {
    BenchWindow bench(test::demo_path());
    bench.window().dials().choose("haze");
    bench.key(Qt::Key_F7);
    bench.key(Qt::Key_V);
    bench.type("21.5 px");
    bench.key(Qt::Key_Return);
    CHECK(value_of(bench, "haze") == 21.5);
    bench.key(Qt::Key_Right);
    CHECK(value_of(bench, "haze") == 22);
    bench.key(Qt::Key_Left, Qt::ControlModifier);
    CHECK(value_of(bench, "haze") == 17);
    bench.action("value_as_default");
    CHECK(find_dial(bench.document().finish(), "haze")->default_value[0] == 17);
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Backspace);
    CHECK(value_of(bench, "haze") == 17);
    bench.key(Qt::Key_V);
    bench.type("a lot");
    bench.key(Qt::Key_Return);
    CHECK(bench.last_said.contains(QStringLiteral("isn't a value")));
    CHECK(value_of(bench, "haze") == 17);
}

TEST_CASE("switches switch and colours take text") {
    BenchWindow bench(test::demo_path());
    const QRect track = bench.window().dials().track_area("wet");
    bench.click(bench.dials_view(), QPoint(track.left() + 8, track.center().y()));
    CHECK(value_of(bench, "wet") == 0);
    bench.window().dials().choose("tint");
    bench.window().dials().setFocus();
    bench.key(Qt::Key_Return);
    bench.type("#00FF00 x 2");
    bench.key(Qt::Key_Return);
    CHECK(find_dial(bench.document().finish(), "tint")->value == DialValue{0, 2, 0});
}

TEST_CASE("a dial is made, named, given a range and a formula on its page") {
    BenchWindow bench(test::demo_path());
    bench.key(Qt::Key_D);
    set_field(bench, "field_name", "Salt share");
    set_field(bench, "field_most", "10");
    set_field(bench, "field_unit", "px");
    set_field(bench, "field_code_name", "salt_v2");
    set_field(bench, "field_formula", "blow.presence * 3");
    const Dial* dial = find_dial(bench.document().finish(), "salt_share");
    REQUIRE(dial != nullptr);
    CHECK(dial->most == 10);
    CHECK(dial->unit == "px");
    CHECK(dial->code_name == "salt_v2");
    CHECK(dial->formula == "blow.presence * 3");
    set_field(bench, "field_formula", "blow.present");
    CHECK(bench.document().checked().faults.size() == 1);
    set_field(bench, "field_least", "20");
    CHECK(find_dial(bench.document().finish(), "salt_share")->least == 0);
    bench.key(Qt::Key_Escape);
    CHECK(bench.window().dials().isVisible());
}

TEST_CASE("responses and cues are made and changed on their pages") {
    BenchWindow bench;
    bench.key(Qt::Key_Q, Qt::AltModifier);
    set_field(bench, "field_name", "wave hits");
    CHECK(bench.document().finish().cues[0].name == "wave_hits");
    bench.key(Qt::Key_Escape);
    bench.action("add_response");
    REQUIRE(bench.document().finish().responses.size() == 1);
    CHECK(bench.document().finish().responses[0].cue == "wave_hits");
    set_field(bench, "field_rise", "0.25");
    CHECK(std::get<double>(bench.document().finish().responses[0].settings.at("rise")) == 0.25);
    set_field(bench, "field_rise", "soon");
    CHECK(std::get<double>(bench.document().finish().responses[0].settings.at("rise")) == 0.25);
    auto* kind = bench.find<QComboBox>("field_kind");
    kind->setFocus();
    kind->setCurrentText(QStringLiteral("wave"));
    emit kind->textActivated(QStringLiteral("wave"));
    bench.wait_for([&] { return bench.window().findChild<QLineEdit*>(QStringLiteral("field_rate")) != nullptr; });
    CHECK(bench.document().finish().responses[0].kind == "wave");
}

TEST_CASE("gradients and curves are made, changed and read, and a picture's way of being read is chosen") {
    BenchWindow bench(test::demo_path());
    bench.action("add_gradient");
    const std::size_t last = bench.document().finish().grounds.size() - 1;
    const auto ground = [&] { return bench.document().finish().grounds[last]; };
    CHECK(stop_values(ground()) == StopValues::colours);
    const auto stops = [&] { return *stops_of(bench.document().finish().grounds[last]); };
    set_field(bench, "field_stops", "0 #000000, 0.5 #FF0000 x 2, 1 #FFFFFF opacity 0.5");
    REQUIRE(stops().list.size() == 3);
    CHECK(stops().list[1].value[0] == Approx(2));
    set_field(bench, "field_stops", "0 red");
    CHECK(stops().list.size() == 3);
    CHECK(bench.find<QComboBox>("field_preset")->currentText() == QStringLiteral("custom"));
    emit bench.find<QComboBox>("field_preset")->textActivated(QStringLiteral("storm sky"));
    CHECK(stops() == find_stop_preset(StopValues::colours, "storm sky")->stops);
    CHECK(stops().between == StopMix::oklab);
    bench.wait_for([&] {
        const auto boxes = bench.window().findChildren<QComboBox*>(QStringLiteral("field_preset"));
        return boxes.size() == 1 && boxes.front()->currentText() == QStringLiteral("storm sky");
    });
    set_field(bench, "field_name", "Embers");
    CHECK(ground().name == "embers");
    bench.key(Qt::Key_Escape);
    bench.document().select("light");
    bench.key(Qt::Key_E);
    bench.type("at(embers, 0.5)");
    bench.key(Qt::Key_Return);
    REQUIRE(find_step(bench.document().checked(), "light")->typed);
    CHECK(find_step(bench.document().checked(), "light")->typed->type == Type::vec4);
    bench.action("add_curve");
    set_field(bench, "field_stops", "0 0, 0.25 1, 1 0");
    CHECK(bench.document().finish().grounds.back().as<CurveGround>()->stops.list[1].value[0] == 1);
    bench.key(Qt::Key_Escape);

    bench.action("ground_page");
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu != nullptr);
    menu->actions().front()->trigger();
    menu->close();
    auto* wrap = bench.find<QComboBox>("field_wrap");
    emit wrap->textActivated(QStringLiteral("mirror"));
    CHECK(bench.document().finish().grounds.front().as<PictureGround>()->sampling.wrap == Wrap::mirror);
    emit bench.find<QComboBox>("field_filter")->textActivated(QStringLiteral("nearest"));
    CHECK(bench.document().finish().grounds.front().as<PictureGround>()->sampling.filter == Filter::nearest);
}

TEST_CASE("dial values read as they are typed") {
    Dial dial;
    dial.unit = "px";
    dial.increment = 0.5;
    dial.most = 40;
    CHECK(dial_value_text(dial, {14, 0, 0}) == "14.0 px");
    CHECK(dial_value_text(dial, {14.125, 0, 0}) == "14.125 px");
    CHECK(dial_value_from(dial, QStringLiteral(" 3.5px"))->at(0) == 3.5);
    CHECK(dial_value_at(dial, {}, 0.5, false)[0] == 20);
    CHECK(dial_value_at(dial, {}, 0.51, true)[0] == 20);
    CHECK(dial_share(dial, {-5, 0, 0}) == 0);
    dial.kind = DialKind::integer;
    CHECK(dial_value_text(dial, {3, 0, 0}) == "3 px");
    CHECK(dial_value_from(dial, QStringLiteral("2.6"))->at(0) == 3);
    CHECK(dial_value_stepped(dial, {3, 0, 0}, 1)[0] == 4);
}

TEST_CASE("dials move, stand under groups, lead to their uses, and carry colours as text") {
    BenchWindow bench(test::demo_path());
    DialsView& dials = bench.window().dials();
    dials.choose("grain");
    bench.key(Qt::Key_Up, Qt::ControlModifier | Qt::AltModifier);
    CHECK(bench.document().finish().dials[4].name == "grain");
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.document().finish().dials[5].name == "grain");
    bench.key(Qt::Key_V, Qt::ShiftModifier);
    CHECK(bench.document().selected() == "torn");
    bench.action("dial_page");
    set_field(bench, "field_group", "Spray");
    bench.key(Qt::Key_Escape);
    CHECK(find_dial(bench.document().finish(), "grain")->group == "Spray");
    dials.choose("tint");
    dials.setFocus();
    bench.key(Qt::Key_C, Qt::ControlModifier);
    CHECK(QGuiApplication::clipboard()->text() == QStringLiteral("#FF4A34 x 1.3"));
    QGuiApplication::clipboard()->setText(QStringLiteral("#00FF00 x 2"));
    bench.key(Qt::Key_V, Qt::ControlModifier);
    CHECK(find_dial(bench.document().finish(), "tint")->value == DialValue{0, 2, 0});
    bench.key(Qt::Key_E, Qt::ShiftModifier);
    ColourEditor& editor = bench.window().colour_editor();
    REQUIRE(editor.isVisible());
    bench.key(Qt::Key_Up);
    CHECK(find_dial(bench.document().finish(), "tint")->value[1] > 2);
    bench.key(Qt::Key_Escape);
    CHECK(find_dial(bench.document().finish(), "tint")->value == DialValue{0, 2, 0});
}

TEST_CASE("a dial that snaps says so, and M mends it") {
    BenchWindow bench(test::demo_path());
    Finish finish = bench.document().finish();
    finish.responses[0].settings["rise"] = 0.0;
    bench.document().edit(std::move(finish), QStringLiteral("no rise"));
    bench.wait_for([&] { return !bench.drawing().warnings().empty(); });
    bench.window().dials().choose(bench.drawing().warnings().front().where);
    bench.window().dials().setFocus();
    bench.key(Qt::Key_M);
    CHECK(std::get<double>(bench.document().finish().responses[0].settings.at("rise")) == 0.08);
}

TEST_CASE("stops of a gradient and keys of a curve are dragged, added, coloured and taken out") {
    BenchWindow bench(test::demo_path());
    bench.action("add_curve");
    auto* curve = bench.find<StopsEditor>("stops_editor");
    const auto stops = [&] { return stops_of(bench.document().finish().grounds.back())->list; };
    REQUIRE(stops().size() == 2);
    const QPoint middle = (curve->handle(0) + curve->handle(1)) / 2;
    bench.click(curve, middle);
    REQUIRE(stops().size() == 3);
    CHECK(stops()[1].value[0] == Approx(0.5).margin(0.05));
    bench.drag(curve, curve->handle(1), curve->handle(1) + QPoint(20, 15));
    CHECK(stops()[1].value[0] < 0.45);
    curve->setFocus();
    bench.key(Qt::Key_E);
    CHECK(stops()[1].easing == "linear");
    bench.key(Qt::Key_E);
    bench.key(Qt::Key_E);
    CHECK(stops()[1].easing == "ease_in");
    bench.document().undo();
    CHECK(stops()[1].easing == "ease");
    const double at = stops()[1].at;
    bench.key(Qt::Key_Right);
    CHECK(stops()[1].at == Approx(at + 0.01).margin(1e-9));
    bench.key(Qt::Key_Return);
    bench.type("0.25 0.75");
    bench.key(Qt::Key_Return);
    CHECK(stops()[1].at == 0.25);
    CHECK(stops()[1].value[0] == 0.75);
    bench.key(Qt::Key_Return);
    bench.type("0.25 0.75, 0.5 1");
    bench.key(Qt::Key_Return);
    CHECK(stops().size() == 3);
    CHECK(bench.last_said.startsWith(QStringLiteral("Type one stop")));
    bench.key(Qt::Key_PageDown);
    CHECK(curve->chosen() == 2);
    bench.key(Qt::Key_PageUp);
    bench.key(Qt::Key_Delete);
    CHECK(stops().size() == 2);
    bench.key(Qt::Key_Escape);
    bench.action("add_gradient");
    bench.wait_for([&] { return bench.window().findChildren<StopsEditor*>().size() == 1; });
    auto* gradient = bench.find<StopsEditor>("stops_editor");
    QTest::mouseDClick(gradient, Qt::LeftButton, {}, gradient->handle(1));
    REQUIRE(bench.window().colour_editor().isVisible());
    bench.find<QLineEdit>("colour_field")->selectAll();
    bench.type("#0000FF x 3");
    bench.key(Qt::Key_Return);
    CHECK(stops()[1].value[2] == Approx(3));
}
