// The whole way: what the stage shows is what the CLI writes; a second small effect is built by hand and key.
#include <catch2/catch.hpp>
#include <cstring>

#include "core/base/text.h"
#include "desktop/ladder/ladder_view.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

TEST_CASE("the stage shows the very pixels that the CLI writes") {
    BenchWindow bench(test::demo_path());
    bench.action("clear_tape");
    bench.playing().set_time(0.1);
    bench.action("cue_1");
    bench.playing().set_time(0.4);
    bench.settle();
    const std::string out = bench.folder().file("a.png");
    const auto done = test::run_command("'" + test::program_folder() + "/lacquer-cli' render '" + test::demo_path() +
                                        "' --at 0.4 --cue hit:0.8@0.1 --size 1280x720 -o '" + out + "'");
    INFO(done.output);
    REQUIRE(done.code == 0);
    const QImage written = QImage(qs(out)).convertToFormat(QImage::Format_RGBA8888);
    REQUIRE(written.size() == QSize(1280, 720));
    const QImage& shown = bench.drawing().stage().image;
    REQUIRE(shown.size() == written.size());
    CHECK(std::memcmp(written.constBits(), shown.constBits(), static_cast<std::size_t>(shown.sizeInBytes())) == 0);
}

TEST_CASE("an effect is built from an empty finish, by keys alone") {
    BenchWindow bench;
    bench.to_add = qs(std::string(LACQUER_SOURCE) + "/demo/pictures/lighthouse-storm.png");
    bench.key(Qt::Key_G);
    CHECK(bench.document().finish().grounds.at(0).name == "scene");
    bench.key(Qt::Key_A);
    bench.type("mist");
    bench.key(Qt::Key_Return);
    bench.type("gradient_noise(uv * 4)");
    bench.key(Qt::Key_Return);
    bench.key(Qt::Key_A);
    bench.type("Misty view");
    bench.key(Qt::Key_Return);
    bench.type("mix(scene, vec3(0.5), mist)");
    bench.key(Qt::Key_Return);
    CHECK(bench.formula_of("mist") == "gradient_noise(uv * 4)");
    CHECK(bench.formula_of("misty_view") == "mix(scene, vec3(0.5), mist)");
    CHECK(bench.document().selected() == "misty_view");
    bench.settle();
    CHECK_FALSE(bench.drawing().stage_is_stale());
    CHECK(bench.drawing().stage().type == Type::vec4);
    CHECK(bench.drawing().stage().image.width() == 1280);
    bench.to_save = qs(bench.folder().file("mist"));
    bench.key(Qt::Key_S, Qt::ControlModifier);
    CHECK(std::filesystem::exists(bench.folder().file("mist.lacquer")));
    CHECK_FALSE(bench.document().edited());
}

TEST_CASE("any step is shown on the stage by its kind, and the finished picture again") {
    BenchWindow bench(test::demo_path());
    bench.document().select("reach");
    bench.key(Qt::Key_S);
    const QRgb grey = bench.stage_pixel(10, 10);
    CHECK(qRed(grey) == qGreen(grey));
    CHECK(bench.drawing().shown() == "reach");
    bench.document().select("centred");
    bench.key(Qt::Key_S);
    CHECK(qBlue(bench.stage_pixel(1270, 700)) == 0);
    CHECK(qRed(bench.stage_pixel(1270, 700)) > 200);
    bench.key(Qt::Key_F);
    bench.settle();
    CHECK(bench.drawing().shown().empty());
    CHECK(bench.drawing().stage().type == Type::vec4);
}

TEST_CASE("clicks choose rows, thumbnails go to the stage") {
    BenchWindow bench(test::demo_path());
    const QRect row = bench.window().ladder().visible_area("torn");
    bench.click(bench.ladder_view(), row.center());
    CHECK(bench.document().selected() == "torn");
    const QRect open = bench.window().ladder().visible_area("torn");
    CHECK(open.height() > row.height());
    bench.click(bench.ladder_view(), QPoint(60, open.top() + 30));
    CHECK(bench.drawing().shown() == "torn");
    bench.settle();
    CHECK(bench.drawing().thumbnails().size() == bench.document().checked().steps.size());
}

TEST_CASE("a missing picture shows as black with a notice, and the window goes on") {
    BenchWindow bench(test::demo_path());
    Finish changed = bench.document().finish();
    changed.grounds[0].kind = PictureGround{"gone.png"};
    bench.document().edit(std::move(changed), QStringLiteral("lost it"));
    CHECK(qGreen(bench.stage_pixel(640, 100)) == 0);
    REQUIRE(bench.drawing().stage().notices.size() == 1);
    CHECK(bench.drawing().stage().notices[0].message.find("gone.png") != std::string::npos);
}
