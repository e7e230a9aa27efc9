// Droplets in the window: their page, its handles, and the demos.
#include <QComboBox>
#include <QElapsedTimer>
#include <QImage>
#include <QLineEdit>
#include <QPushButton>
#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>
#include <iterator>
#include <regex>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/ground_pictures.h"
#include "desktop/kit/span_track.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/stage/stage_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::BenchWindow;
using Id = DropNumberId;

namespace {

const Droplets& drops_of(BenchWindow& bench, const char* name = "drops") {
    const Ground* ground = find_ground(bench.document().finish(), name);
    REQUIRE(ground != nullptr);
    REQUIRE(ground->as<DropletsGround>() != nullptr);
    return ground->as<DropletsGround>()->drops;
}

void type_into(BenchWindow& bench, const char* field, const char* text) {
    auto* line = bench.find<QLineEdit>(field);
    line->setFocus();
    line->selectAll();
    QTest::keyClicks(line, QString::fromLatin1(text));
    QTest::keyClick(line, Qt::Key_Return);
}

void show_group(BenchWindow& bench, const char* group) {
    auto* tab = bench.find<QPushButton>(("group_" + std::string(group)).c_str());
    QTest::mouseClick(tab, Qt::LeftButton);
    bench.wait_for([&] {
        const auto* now = bench.window().findChild<QPushButton*>(QStringLiteral("group_%1").arg(QLatin1String(group)));
        return now != nullptr && now != tab && now->isChecked();
    });
}

Finish picture_alone() {
    Finish finish = test::demo_finish();
    finish.coats.clear();
    finish.dials.clear();
    finish.responses.clear();
    std::erase_if(finish.grounds, [](const Ground& ground) { return ground.name != "scene"; });
    for (Ground& ground : finish.grounds) *path_of(ground) = picture_path(test::demo_path(), *path_of(ground));
    finish.frame_width = 320;
    finish.frame_height = 180;
    return finish;
}

}  // namespace

TEST_CASE("droplets are added, and their numbers typed, as one, as two, with units, or as formulas") {
    BenchWindow bench(test::demo_path());
    bench.action("add_droplets");
    type_into(bench, "field_number_rate", "6 /s");
    CHECK(drops_of(bench).number(Id::rate) == DropNumber{6, 6, {}});
    show_group(bench, "End");
    type_into(bench, "field_number_life", "3 to 4 s");
    CHECK(drops_of(bench).number(Id::life) == DropNumber{3, 4, {}});
    type_into(bench, "field_number_life", "3");
    // Beside the groups it says how many live, and how many will.
    bench.playing().set_time(4);
    CHECK(bench.find<QWidget>("drop_plot")->accessibleName() == QStringLiteral("18 live, in the long run 18"));
    CHECK(drops_of(bench).number(Id::life) == DropNumber{3, 3, {}});
    type_into(bench, "field_number_life", "-1");
    CHECK(drops_of(bench).number(Id::life) == DropNumber{3, 3, {}});
    show_group(bench, "Place");
    // The same for all drops.
    type_into(bench, "field_number_count", "3 to 4");
    CHECK(drops_of(bench).number(Id::count).from == drops_of(bench).number(Id::count).to);
    show_group(bench, "Look");
    type_into(bench, "field_number_size", "spray * 0.1");
    CHECK(drops_of(bench).number(Id::size).formula == "spray * 0.1");
    CHECK(bench.document().checked().faults.size() == 1);
    type_into(bench, "field_number_size", "haze * 0.1");
    CHECK(bench.document().checked().faults.empty());
    QTest::keyClick(bench.find<QComboBox>("field_shape"), Qt::Key_Down);
    auto* shape = bench.find<QComboBox>("field_shape");
    emit shape->textActivated(QStringLiteral("splash"));
    CHECK(drops_of(bench).shape == DropShape::splash);
    // A picture has fields of its own, which undo takes back.
    bench.wait_for([&] { return bench.find<QComboBox>("field_shape")->currentText() == QStringLiteral("splash"); });
    emit bench.find<QComboBox>("field_shape")->textActivated(QStringLiteral("picture"));
    bench.wait_for([&] { return bench.window().findChild<QLineEdit*>(QStringLiteral("field_picture")) != nullptr; });
    bench.action("undo");
    bench.wait_for([&] {
        const auto* line = bench.window().findChild<QLineEdit*>(QStringLiteral("field_picture"));
        return line == nullptr || !line->isVisible();
    });
    // All of it can be undone, back to the picture without droplets.
    for (int i = 0; i < 12 && find_ground(bench.document().finish(), "drops") != nullptr; ++i) bench.action("undo");
    CHECK(find_ground(bench.document().finish(), "drops") == nullptr);
}

TEST_CASE(
    "a number's two ends are dragged, together or alone, by hand and by keys, and all of a drag is undone as one") {
    BenchWindow bench(test::demo_path());
    bench.action("add_droplets");
    show_group(bench, "End");
    type_into(bench, "field_number_life", "5 to 10 s");
    auto* track = bench.find<SpanTrack>("span_number_life");
    CHECK(track->from() == 5);
    CHECK(track->to() == 10);
    const auto pull = [&](QPoint from, int by) {
        QTest::mousePress(track, Qt::LeftButton, {}, from);
        for (int i = 1; i <= 4; ++i) {
            const QPointF at = from + QPoint(by * i / 4, 0);
            QMouseEvent move(QEvent::MouseMove, at, track->mapToGlobal(at), Qt::NoButton, Qt::LeftButton, {});
            QApplication::sendEvent(track, &move);
        }
        QTest::mouseRelease(track, Qt::LeftButton, {}, from + QPoint(by, 0));
    };
    pull(track->handle_of(true), 20);
    CHECK(drops_of(bench).number(Id::life).from == 5);
    CHECK(drops_of(bench).number(Id::life).to > 10.5);
    bench.action("undo");
    CHECK(drops_of(bench).number(Id::life) == DropNumber{5, 10, {}});
    track->set_values(5, 10);
    pull((track->handle_of(false) + track->handle_of(true)) / 2, 12);
    const DropNumber both = drops_of(bench).number(Id::life);
    CHECK(both.from > 5);
    CHECK(both.to - both.from == Approx(5).margin(0.03));
    track->setFocus();
    QTest::keyClick(track, Qt::Key_PageDown);
    for (int i = 0; i < 200; ++i) QTest::keyClick(track, Qt::Key_Right);
    // One end goes no further than the other.
    CHECK(track->from() == Approx(track->to()));
    CHECK(bench.find<QLineEdit>("field_number_life")->text().endsWith(QStringLiteral(" s")));
}

TEST_CASE("whoever types what the guide says gets rain on the glass") {
    std::ifstream file(std::string(LACQUER_SOURCE) + "/docs/guide.md");
    const std::string guide((std::istreambuf_iterator<char>(file)), {});
    const std::size_t begin = guide.find("## Droplets:");
    REQUIRE(begin != std::string::npos);
    const std::string chapter = guide.substr(begin, guide.find("![Rain", begin) - begin);
    BenchWindow bench;
    bench.document().edit(picture_alone(), QStringLiteral("a picture"));
    bench.action("add_droplets");
    type_into(bench, "field_number_rate", "60");
    show_group(bench, "Motion");
    type_into(bench, "field_number_fall", "0.6");
    show_group(bench, "Look");
    type_into(bench, "field_number_size", "0.01 to 0.05");
    bench.window().ladder().setFocus();
    const std::regex step("`(\\w+)`: `([^`]+)`");
    int steps = 0;
    for (std::sregex_iterator at(chapter.begin(), chapter.end(), step), end; at != end; ++at, ++steps) {
        bench.window().ladder().setFocus();
        bench.key(Qt::Key_A);
        bench.type((*at)[1]);
        bench.key(Qt::Key_Return);
        bench.type((*at)[2]);
        bench.key(Qt::Key_Return);
        INFO((*at)[1]);
        CHECK(bench.formula_of((*at)[1]) == (*at)[2]);
    }
    CHECK(steps == 2);
    for (const CheckedStep& checked : bench.document().checked().steps) {
        if (checked.fault) FAIL(to_text(*checked.fault));
    }
    bench.playing().set_time(2);
    bench.settle();
    const QImage rain = bench.drawing().stage().image;
    bench.playing().set_time(2.5);
    bench.settle();
    CHECK(bench.drawing().stage().image != rain);
    bench.playing().set_time(2);
    bench.settle();
    CHECK(bench.drawing().stage().image == rain);
    // A switch stops new ones.
    Finish finish = bench.document().finish();
    finish.signals.push_back(Signal{.name = "outside", .kind = SignalKind::toggle});
    bench.document().edit(finish, QStringLiteral("a switch"));
    bench.action("ground_shelf");
    bench.window().shelf().choose("drops");
    bench.window().shelf().setFocus();
    bench.key(Qt::Key_Return);
    show_group(bench, "Birth");
    type_into(bench, "field_born_while", "outside");
    CHECK(bench.document().checked().faults.empty());
    bench.settle();
    const Play play(std::make_shared<const CheckedFinish>(bench.document().checked()), Tape());
    CHECK(play.drop_count("drops", 2) == 0);
}

TEST_CASE("the window and the command line draw demos of droplets with equal pixels") {
    const test::TemporaryFolder folder;
    for (const char* demo : {"brine-on-the-glass", "rain-on-the-pane", "fog-leaves-the-chart", "sparks-at-the-crane"}) {
        INFO(demo);
        BenchWindow bench(test::demo_path(demo));
        bench.playing().set_time(2.9);
        bench.settle();
        const std::string file = folder.file("drawn.png");
        REQUIRE(test::run_cli("render " + test::demo_path(demo) + " --at 2.9 -o " + file).code == 0);
        const QImage drawn = QImage(qs(file)).convertToFormat(QImage::Format_RGBA8888);
        const QImage shown = bench.drawing().stage().image.convertToFormat(QImage::Format_RGBA8888);
        REQUIRE(drawn.size() == shown.size());
        CHECK(std::memcmp(drawn.constBits(), shown.constBits(), static_cast<std::size_t>(shown.sizeInBytes())) == 0);
    }
}

TEST_CASE("where drops are born and the wind are dragged on the stage, and the page follows") {
    BenchWindow bench(test::demo_path());
    bench.action("add_droplets");
    show_group(bench, "Place");
    auto* place = bench.find<QComboBox>("field_place");
    emit place->textActivated(QStringLiteral("disc"));
    REQUIRE(drops_of(bench).place == DropPlace::disc);
    StageView& stage = bench.window().stage();
    using Hand = StageView::DropletsHand;
    bench.settle();
    const QPointF middle = stage.droplets_point(Hand::middle).value();
    bench.drag(&stage, middle.toPoint(), middle.toPoint() + QPoint(60, -30));
    CHECK(drops_of(bench).number(Id::x).from > 0.55);
    CHECK(drops_of(bench).number(Id::y).from < 0.5);
    CHECK(bench.find<QLineEdit>("field_number_x")
              ->text()
              .startsWith(QString::number(drops_of(bench).number(Id::x).from, 'g', 3)));
    const double radius = drops_of(bench).number(Id::radius).from;
    const QPointF edge = stage.droplets_point(Hand::edge).value();
    bench.drag(&stage, edge.toPoint(), edge.toPoint() + QPoint(25, 0));
    CHECK(drops_of(bench).number(Id::radius).from > radius);
    const QPointF wind = stage.droplets_point(Hand::wind).value();
    bench.drag(&stage, wind.toPoint(), wind.toPoint() + QPoint(-50, 20));
    CHECK(drops_of(bench).number(Id::wind_x).from < -0.05);
    CHECK(drops_of(bench).number(Id::wind_y).from > 0.01);
    // Each drag is one change.
    for (int i = 0; i < 3; ++i) bench.action("undo");
    CHECK(drops_of(bench).number(Id::x) == DropNumber{0.5, 0.5, {}});
    CHECK(drops_of(bench).number(Id::wind_x).from == 0);
    CHECK(bench.find<QLineEdit>("field_number_x")->text() == QStringLiteral("0.5"));
    // Another name keeps them.
    type_into(bench, "field_name", "rain");
    CHECK(stage.droplets_point(Hand::wind).has_value());
    type_into(bench, "field_name", "drops");
    show_group(bench, "Motion");
    show_group(bench, "Place");
    // A formula can't be dragged.
    type_into(bench, "field_number_x", "haze");
    CHECK_FALSE(stage.droplets_point(Hand::middle).has_value());
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(stage.droplets_point(Hand::wind).has_value());
}

TEST_CASE("the drop under the mouse is held, and followed through its life") {
    BenchWindow bench(test::demo_path());
    bench.action("add_droplets");
    show_group(bench, "Look");
    type_into(bench, "field_number_size", "0.1");
    bench.playing().set_time(3);
    bench.settle();
    const auto drops = [&] {
        return bench.playing().play().emitter("drops")->alive(bench.playing().time(), 1280, 720).drops;
    };
    StageView& stage = bench.window().stage();
    const Drop last = drops().back();
    bench.click(&stage, stage.screen_point({static_cast<int>(last.x), static_cast<int>(last.y)}));
    REQUIRE(stage.held_drop());
    CHECK(stage.held_drop()->birth == last.birth);
    CHECK(stage.held_drop()->index == last.index);
    const QImage before = stage.grab().toImage();
    bench.playing().set_time(3.2);
    bench.settle();
    CHECK(bench.playing().play().emitter("drops")->at(*stage.held_drop(), 3.2, 1280, 720));
    CHECK(stage.grab().toImage() != before);
}

TEST_CASE("a lane shows how many live, however many that are") {
    BenchWindow bench(test::demo_path("rain-on-the-pane"));
    bench.action("rehearse");
    LanesView& lanes = bench.window().rehearse().lanes();
    const auto lane = [&](const QString& name) {
        for (int i = 0; i < lanes.cell_count(); ++i) {
            if (lanes.cell(i).name == name) return lanes.cell(i);
        }
        FAIL("no such lane");
        return AccessibleCell();
    };
    const double live = bench.playing().play().drop_count("beads", bench.playing().time());
    CHECK(live > 100);
    CHECK(lane(QStringLiteral("beads.count")).value.startsWith(QString::number(live, 'f', 0)));
    // Switched off, they get fewer.
    bench.playing().set_time(6.9);
    CHECK(bench.playing().play().drop_count("beads", 6.9) < live / 2);
    Finish many = bench.document().finish();
    for (Ground& ground : many.grounds) {
        if (auto* drops = ground.as<DropletsGround>()) {
            drops->drops.number(Id::rate) = {1e9, 1e9, {}};
            drops->drops.number(Id::life) = {1, 1e9, {}};
            drops->drops.born_while.clear();
        }
    }
    QElapsedTimer clock;
    clock.start();
    bench.document().edit(many, QStringLiteral("very many"));
    bench.playing().set_time(5);
    lanes.grab();
    // Not a frame's time, but nothing that anybody would call a stall.
    CHECK(clock.elapsed() < 4000);
}
