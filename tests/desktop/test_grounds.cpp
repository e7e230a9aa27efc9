// The ground shelf, scenes, marks and the camera, in the real window.
#include <QApplication>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QMenu>
#include <QTimer>
#include <QWheelEvent>
#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>

#include "core/finish/ground_pictures.h"
#include "core/scene/capture.h"
#include "desktop/document/ground_adding.h"
#include "desktop/kit/chooser.h"
#include "desktop/pages/layer_pictures.h"
#include "desktop/shelf/ground_shelf.h"
#include "desktop/stage/stage_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// A scene by keys: the first that is offered.
void add_scene(BenchWindow& bench) {
    bench.key(Qt::Key_S, Qt::AltModifier);
    bench.type("harbour, day");
    bench.key(Qt::Key_Return);
    REQUIRE_FALSE(bench.document().finish().grounds.empty());
    bench.settle();
}

// A pixel of the stage's picture on which an object lies, with all about it.
QPoint pixel_of(int id) {
    WorkerPool pool(2);
    const ScenePlace* place = find_place("harbour");
    const SceneLayers layers = cast_world(place->world(Hour::day, 0), place->camera, 1280, 720,
                                          {false, false, false, false, true}, pool, Cancel());
    const auto is = [&](int x, int y) { return layers.id.at(x, y)[0] == static_cast<float>(id); };
    for (int y = 8; y < 712; y += 4) {
        for (int x = 8; x < 1272; x += 4) {
            if (is(x, y) && is(x - 6, y) && is(x + 6, y) && is(x, y - 6) && is(x, y + 6)) return {x, y};
        }
    }
    FAIL("not in view: " << id);
    return {};
}

}  // namespace

TEST_CASE("a stand-in scene is added by keys and shown, with its layers on the shelf") {
    BenchWindow bench;
    add_scene(bench);
    const Ground ground = bench.document().finish().grounds.front();
    REQUIRE(ground.as<SceneGround>() != nullptr);
    CHECK(ground.name == "scene");
    CHECK(ground.as<SceneGround>()->view.hour == Hour::day);
    bench.wait_for([&] { return !bench.drawing().stage().image.isNull(); });
    bench.key(Qt::Key_G, Qt::ShiftModifier);
    GroundShelf& shelf = bench.window().shelf();
    REQUIRE(shelf.isVisible());
    CHECK(shelf.hasFocus());
    CHECK(shelf.chosen() == "scene");
    bench.wait_for([&] { return bench.drawing().thumbnails().contains("scene_normal"); });
    bench.click(shelf.viewport(), shelf.picture_area("scene_depth").center());
    CHECK(bench.drawing().shown() == "scene_depth");
    bench.settle();
    CHECK(bench.drawing().stage().type == Type::number);
    bench.click(shelf.viewport(), shelf.picture_area("scene_depth").center());
    CHECK(bench.drawing().shown().empty());
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.document().finish().grounds.empty());
    CHECK(shelf.chosen().empty());
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(shelf.isVisible());
}

TEST_CASE("objects are marked by pointing at them, and taken out again") {
    BenchWindow bench;
    add_scene(bench);
    bench.key(Qt::Key_M, Qt::AltModifier);
    REQUIRE(bench.document().finish().grounds.back().as<MarksGround>() != nullptr);
    const auto marks = [&] { return *bench.document().finish().grounds.back().as<MarksGround>(); };
    CHECK(marks().of == "scene");
    StageView& stage = bench.window().stage();
    const QPoint tower = pixel_of(3);
    bench.click(&stage, stage.screen_point(tower));
    bench.wait_for([&] { return marks().ids == std::vector<int>{3}; });
    CHECK(bench.last_said.contains(QStringLiteral("lighthouse")));
    CHECK(stage.object_words().contains(QStringLiteral("lighthouse")));
    bench.click(&stage, stage.screen_point(pixel_of(2)));
    bench.wait_for([&] { return marks().ids == std::vector<int>{2, 3}; });
    bench.click(&stage, stage.screen_point(tower));
    bench.wait_for([&] { return marks().ids == std::vector<int>{2}; });
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(marks().ids == std::vector<int>{2, 3});
    // The sky is no object.
    bench.click(&stage, stage.screen_point({20, 20}));
    bench.wait_for([&] { return bench.last_said.contains(QStringLiteral("no object")); });
    CHECK(marks().ids == std::vector<int>{2, 3});
    bench.key(Qt::Key_Escape);
    CHECK(stage.pointing_marks().empty());
    bench.click(&stage, stage.screen_point(tower));
    bench.settle();
    CHECK(marks().ids == std::vector<int>{2, 3});
}

TEST_CASE("without a scene there is nothing to mark and no camera") {
    BenchWindow bench;
    bench.key(Qt::Key_M, Qt::AltModifier);
    CHECK(bench.document().finish().grounds.empty());
    CHECK(bench.last_said.contains(QStringLiteral("scene")));
    bench.key(Qt::Key_Y);
    CHECK_FALSE(bench.window().stage().moves_camera());
}

TEST_CASE("the camera is turned, moved and brought nearer, each drag one change") {
    BenchWindow bench;
    add_scene(bench);
    const auto view = [&] { return bench.document().finish().grounds.front().as<SceneGround>()->view; };
    const auto camera = [&] { return view().camera; };
    const Camera home = camera();
    StageView& stage = bench.window().stage();
    bench.key(Qt::Key_Y);
    REQUIRE(stage.moves_camera());
    bench.drag(&stage, stage.screen_point({600, 300}), stage.screen_point({700, 340}));
    CHECK(camera().target == home.target);
    CHECK(length(camera().eye - camera().target) == Approx(length(home.eye - home.target)));
    CHECK(length(camera().eye - home.eye) > 1);
    bench.settle();
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(camera() == home);
    QWheelEvent wheel(QPointF(300, 200), stage.mapToGlobal(QPointF(300, 200)), QPoint(), QPoint(0, 120), Qt::NoButton,
                      Qt::NoModifier, Qt::NoScrollPhase, false);
    QApplication::sendEvent(&stage, &wheel);
    CHECK(length(camera().eye - camera().target) < length(home.eye - home.target));
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(stage.moves_camera());
    // Keys of a path: at two moments, from two sides.
    bench.playing().set_time(1);
    bench.key(Qt::Key_Y, Qt::ShiftModifier);
    bench.playing().set_time(4);
    stage.orbit_camera(40, 0);
    CHECK(view().path.size() == 2);
    bench.key(Qt::Key_Y, Qt::AltModifier);
    CHECK(camera() == home);
    CHECK(view().path.empty());
    // A capture before it has no camera: the stand-in scene is meant all the same.
    Finish both = bench.document().finish();
    both.grounds.insert(both.grounds.begin(), Ground{"shot", CaptureGround{}});
    bench.document().edit(std::move(both), QStringLiteral("a capture first"));
    bench.key(Qt::Key_Y, Qt::ShiftModifier);
    CHECK(bench.document().finish().grounds.at(1).as<SceneGround>()->view.path.size() == 1);
}

TEST_CASE("a layered file opens as a capture with its layers mapped, in the place of a scene too") {
    BenchWindow bench;
    add_scene(bench);
    WorkerPool pool(2);
    const ScenePlace* place = find_place("lamp_room");
    const std::string path = bench.folder().file("my shot.exr");
    REQUIRE(write_capture(path, cast_world(place->world(Hour::day, 0), place->camera, 200, 120,
                                           {true, true, true, true, true}, pool, Cancel())));
    add_picture(bench.document(), qs(path));
    const Ground added = bench.document().finish().grounds.back();
    CHECK(added.as<CaptureGround>() != nullptr);
    CHECK(added.name == "my_shot");
    CHECK(find_ground_picture(bench.document().finish(), "my_shot_position"));
    bench.key(Qt::Key_G, Qt::ShiftModifier);
    GroundShelf& shelf = bench.window().shelf();
    shelf.choose("scene");
    bench.to_add = qs(path);
    bench.key(Qt::Key_G, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(bench.document().finish().grounds.front().as<CaptureGround>() != nullptr);
    CHECK(bench.document().finish().grounds.front().name == "scene");
    bench.settle();
    CHECK(bench.drawing().stage().notices.empty());
    // Its page names the layers that were found.
    bench.key(Qt::Key_G, Qt::ControlModifier);
    auto* depth = bench.find<QComboBox>("field_depth");
    bench.wait_for([&] { return depth->currentText() == QStringLiteral("Z"); });
    depth->setCurrentText(QStringLiteral("none"));
    emit depth->textActivated(QStringLiteral("none"));
    CHECK(bench.document().finish().grounds.front().as<CaptureGround>()->layers.depth == no_layer);
}

TEST_CASE("a capture's page shows each layer, and a click on one says what it holds") {
    BenchWindow bench;
    WorkerPool pool(2);
    const ScenePlace* place = find_place("lamp_room");
    const SceneLayers layers =
        cast_world(place->world(Hour::day, 0), place->camera, 60, 40, {true, true, true, true, true}, pool, Cancel());
    const std::string path = bench.folder().file("odd names.exr");
    REQUIRE(write_exr(path, {{"R", &layers.colour, 0},
                             {"G", &layers.colour, 1},
                             {"B", &layers.colour, 2},
                             {"far.V", &layers.depth, 0},
                             {"who.V", &layers.id, 0}}));
    add_picture(bench.document(), qs(path));
    bench.key(Qt::Key_G, Qt::ControlModifier);
    auto* pictures = bench.find<LayerPictures>("layer_pictures");
    bench.wait_for([&] { return pictures->drawn() == 3; });
    const auto& names = pictures->layers();
    const auto at = [&](const char* name) {
        const auto found = std::find_if(names.begin(), names.end(), [&](const auto& l) { return l.name == name; });
        REQUIRE(found != names.end());
        return static_cast<int>(found - names.begin());
    };
    bench.click(pictures, pictures->picture_area(at("far")).center());
    {
        constexpr int depth = 1;
        auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
        REQUIRE(menu != nullptr);
        menu->actions().at(depth)->trigger();
    }
    CHECK(bench.document().finish().grounds.front().as<CaptureGround>()->layers.depth == "far");
    // The page is shown anew, with that layer as depth.
    bench.wait_for([&] {
        const auto* box = bench.window().findChild<QComboBox*>(QStringLiteral("field_depth"));
        return box != nullptr && box->currentText() == QStringLiteral("far");
    });
    bench.document().undo();
    CHECK(bench.document().finish().grounds.front().as<CaptureGround>()->layers.depth.empty());
}

TEST_CASE("a page whose file isn't a picture says so, and closing it while it is read does no harm") {
    BenchWindow bench;
    Finish finish = bench.document().finish();
    finish.grounds = {{"shot", CaptureGround{bench.folder().file("none.exr")}}};
    bench.document().edit(std::move(finish), QStringLiteral("a capture"));
    for (int i = 0; i < 5; ++i) {
        bench.key(Qt::Key_G, Qt::ControlModifier);
        bench.key(Qt::Key_Escape);
    }
    bench.key(Qt::Key_G, Qt::ControlModifier);
    // Those of pages that were closed may still be there, and go while this waits.
    bench.wait_for([&] {
        const auto all = bench.window().findChildren<LayerPictures*>(QStringLiteral("layer_pictures"));
        return std::any_of(all.begin(), all.end(), [](const LayerPictures* pictures) {
            return pictures->isVisible() && pictures->layers().empty() && !pictures->fault().isEmpty();
        });
    });
}

TEST_CASE("a picture's opacity is taken out of its colours when its page says that it is in them") {
    BenchWindow bench;
    Image8 half{4, 4, {}};
    for (int i = 0; i < 16; ++i) half.data.insert(half.data.end(), {64, 64, 64, 128});
    const std::string path = bench.folder().file("half.png");
    REQUIRE(write_png(path, half));
    add_picture(bench.document(), qs(path));
    bench.key(Qt::Key_G, Qt::ControlModifier);
    auto* opacity = bench.find<QComboBox>("field_opacity");
    CHECK(opacity->currentText() == QStringLiteral("as usual"));
    opacity->setCurrentText(QStringLiteral("multiplied"));
    emit opacity->textActivated(QStringLiteral("multiplied"));
    CHECK(*opacity_of(bench.document().finish().grounds.front()) == FileOpacity::multiplied);
    bench.settle();
    // 64/255 over 128/255 is a display value of 0.5, 0.21404 in linear light (IEC 61966-2-1).
    CHECK(bench.drawing().stage().values->at(1, 1)[0] == Approx(0.21404).margin(1e-4));
}

TEST_CASE("a scene's page changes its hour and its camera, and says what is wrong") {
    BenchWindow bench;
    add_scene(bench);
    bench.key(Qt::Key_G, Qt::ControlModifier);
    const auto scene = [&] { return bench.document().finish().grounds.front().as<SceneGround>()->view; };
    auto* hour = bench.find<QComboBox>("field_hour");
    hour->setCurrentText(QStringLiteral("dusk"));
    emit hour->textActivated(QStringLiteral("dusk"));
    CHECK(scene().hour == Hour::dusk);
    auto* eye = bench.find<QLineEdit>("field_eye");
    eye->setFocus();
    eye->selectAll();
    bench.type("1, 2");
    bench.key(Qt::Key_Return);
    CHECK(scene().camera.eye != Vec3{1, 2, 0});
    eye->selectAll();
    bench.type("1, 2.5, 30");
    bench.key(Qt::Key_Return);
    CHECK(scene().camera.eye == Vec3{1, 2.5, 30});
}

TEST_CASE("a ground that is deleted says who read it, and comes back by undo") {
    BenchWindow bench(test::demo_path());
    bench.key(Qt::Key_G, Qt::ShiftModifier);
    GroundShelf& shelf = bench.window().shelf();
    const Finish before = bench.document().finish();
    bench.key(Qt::Key_Delete);
    CHECK(bench.document().finish().grounds.size() + 1 == before.grounds.size());
    CHECK(bench.last_said.contains(QStringLiteral("read it")));
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(bench.document().finish() == before);
    CHECK(shelf.card_area("scene").isValid());
    bench.settle_disk();
    CHECK(shelf.bytes() > 1e6);
}

TEST_CASE("a picture that another program changes is drawn anew, and one that comes back is found") {
    BenchWindow bench;
    const auto write = [&](std::uint8_t level) {
        Image8 image{32, 18, {}};
        for (int i = 0; i < 32 * 18; ++i) {
            for (const std::uint8_t part : {level, level, level, std::uint8_t{255}}) image.data.push_back(part);
        }
        REQUIRE(write_png(bench.folder().file("own.png"), image));
    };
    write(255);
    add_picture(bench.document(), qs(bench.folder().file("own.png")));
    bench.settle();
    bench.wait_for([&] { return qRed(bench.stage_pixel(5, 5)) == 255; });
    write(0);
    bench.wait_for([&] { return bench.drawing().settled() && qRed(bench.stage_pixel(5, 5)) == 0; });
    std::filesystem::remove(bench.folder().file("own.png"));
    bench.wait_for([&] { return !bench.drawing().stage().notices.empty(); });
    write(255);
    bench.wait_for([&] { return bench.drawing().stage().notices.empty() && qRed(bench.stage_pixel(5, 5)) == 255; });
}

TEST_CASE("a huge picture opens with word of how far it is, keeps the window free, and can be stopped") {
    BenchWindow bench;
    const std::string path = bench.folder().file("huge.ppm");
    {
        // 8192 x 8192 of Netpbm is a head and plain bytes.
        std::ofstream file(path, std::ios::binary);
        file << "P6 8192 8192 255\n";
        const std::string row(8192 * 3, '\x80');
        for (int y = 0; y < 8192; ++y) file << row;
    }
    QString told;
    double most = 0;
    QObject::connect(&bench.drawing(), &Drawing::reading_changed, [&] {
        if (bench.drawing().reading().isEmpty()) return;
        told = bench.drawing().reading();
        most = std::max(most, bench.drawing().reading_share());
    });
    add_picture(bench.document(), qs(path));
    bench.wait_for([&] { return most > 0; });
    CHECK(told == qs(path));
    CHECK(most < 1);
    bench.key(Qt::Key_Escape);
    CHECK(bench.last_said.contains(QStringLiteral("Stopped reading huge.ppm")));
    bench.wait_for([&] { return !bench.drawing().stage().notices.empty(); });
    CHECK(bench.drawing().stage().notices.front().id == "picture.stopped");
    bench.settle();
    CHECK(bench.document().finish().grounds.size() == 1);
}

TEST_CASE("a sprite is made of parts, which are placed on its page") {
    BenchWindow bench;
    bench.to_add = QStringLiteral(LACQUER_SOURCE "/demo/pictures/crab-shell.png");
    bench.key(Qt::Key_P, Qt::AltModifier);
    const auto sprite = [&] { return *bench.document().finish().grounds.at(0).as<SpriteGround>(); };
    REQUIRE(sprite().parts.size() == 1);
    CHECK(sprite().width == 520);
    CHECK(sprite().parts[0].name == "crab-shell");
    bench.to_add = QStringLiteral(LACQUER_SOURCE "/demo/pictures/crab-claw-left.png");
    bench.key(Qt::Key_P, Qt::AltModifier);
    REQUIRE(sprite().parts.size() == 2);
    bench.key(Qt::Key_G, Qt::ControlModifier);
    auto* claw = bench.find<QLineEdit>("field_part_2");
    claw->setFocus();
    claw->selectAll();
    bench.type("60, 80.5 x 0.5 share 0.25");
    bench.key(Qt::Key_Return);
    CHECK(sprite().parts[1].x == 60);
    CHECK(sprite().parts[1].y == 80.5);
    CHECK(sprite().parts[1].scale == 0.5);
    CHECK(sprite().parts[1].share == 0.25);
    bench.settle();
    CHECK(bench.drawing().stage().notices.empty());
    bench.document().undo();
    bench.document().undo();
    CHECK(sprite().parts.size() == 1);
}

TEST_CASE("a missing picture is asked for, and what lies beside it is taken along") {
    const test::TemporaryFolder there;
    for (const char* name : {"a.png", "b.png"}) {
        Image8 image{2, 2, {}};
        image.data.resize(16);
        REQUIRE(write_png(there.file(name), image));
    }
    BenchWindow bench;
    add_picture(bench.document(), QStringLiteral("/nowhere/a.png"));
    add_picture(bench.document(), QStringLiteral("/nowhere/b.png"));
    bench.to_add = qs(there.file("a.png"));
    bench.settle_disk();
    bench.action("find_missing");
    CHECK(bench.document().finish().grounds[0].as<PictureGround>()->path == there.file("a.png"));
    CHECK(bench.document().finish().grounds[1].as<PictureGround>()->path == there.file("b.png"));
    bench.action("find_missing");
    CHECK(bench.last_said == QStringLiteral("Nothing is missing"));
}

TEST_CASE("the shelf tells what its pictures take, and how much of the memory for pictures is taken") {
    BenchWindow bench(test::demo_path());
    bench.action("ground_shelf");
    const auto* words = bench.window().findChild<QLabel*>(QStringLiteral("shelf_words"));
    REQUIRE(words != nullptr);
    // One picture of 1280 x 720, four floats a pixel.
    bench.wait_for([&] { return words->text().contains(QStringLiteral("14.1 MB")); });
    bench.wait_for([&] { return words->text().contains(QStringLiteral("of 1024 MB in memory")); });
    bench.wait_for([&] { return !words->text().contains(QStringLiteral(" 0 of 1024 MB")); });
}
