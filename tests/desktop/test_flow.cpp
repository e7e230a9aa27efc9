// Steps that go on from tick to tick, in the window.
#include <QImage>
#include <QLineEdit>
#include <catch2/catch.hpp>
#include <cstring>
#include <fstream>
#include <iterator>
#include <regex>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "desktop/dials/dials_view.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/shell/notice_bar.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

const Step& step_of(BenchWindow& bench, const char* name) {
    const Step* found = find_step(bench.document().finish(), name);
    REQUIRE(found != nullptr);
    return *found;
}

}  // namespace

TEST_CASE("a step that asks for itself is typed, gets its width, and takes another in its header") {
    BenchWindow bench;
    bench.document().edit(test::finish_of({{"flow", "uv.x"}, {"seen", "flow"}}), QStringLiteral("steps"));
    bench.document().select("flow");
    bench.key(Qt::Key_E);
    bench.type("previous(flow) + 0.001");
    bench.key(Qt::Key_Return);
    CHECK(step_of(bench, "flow").ticking.width == 1);
    CHECK_FALSE(find_step(bench.document().checked(), "flow")->fault);
    bench.key(Qt::Key_F2);
    CHECK(bench.find<QLineEdit>("line_editor")->text() == QStringLiteral("flow: 1"));
    bench.type("flow: 3");
    bench.key(Qt::Key_Return);
    CHECK(step_of(bench, "flow").ticking.width == 3);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(step_of(bench, "flow").ticking.width == 1);
    // What is typed and what follows from it are one change.
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(step_of(bench, "flow").formula == "uv.x");
    CHECK(step_of(bench, "flow").ticking.width == 0);
}

TEST_CASE("its page says what it starts as, its size, and how often the finish ticks") {
    BenchWindow bench(test::demo_path("wake"));
    bench.document().select("foam");
    bench.key(Qt::Key_T, Qt::ControlModifier);
    const auto type_into = [&](const char* field, const char* text) {
        auto* line = bench.find<QLineEdit>(field);
        line->setFocus();
        line->selectAll();
        QTest::keyClicks(line, QString::fromLatin1(text));
        QTest::keyClick(line, Qt::Key_Return);
    };
    type_into("field_starts", "0.25");
    CHECK(step_of(bench, "foam").ticking.starts == "0.25");
    type_into("field_rate", "30");
    CHECK(bench.document().finish().ticks.rate == 30);
    type_into("field_rate", "9");
    CHECK(bench.document().finish().ticks.rate == 30);
    type_into("field_pixels", "200");
    CHECK(step_of(bench, "foam").ticking.pixels == 200);
    CHECK(find_ticked(bench.document().checked(), "foam")->scale == Approx(200.0 / 1280));
}

TEST_CASE("a dial that is dragged goes on from what is there, marked, and is worked out when the hand rests") {
    BenchWindow bench(test::demo_path("wake"));
    bench.playing().set_time(2);
    bench.settle();
    const QImage before = bench.drawing().stage().image;
    const QRect track = bench.window().dials().track_area("lasts");
    QWidget* dials = bench.dials_view();
    const QPoint at(track.left() + track.width() / 2, track.center().y());
    QTest::mousePress(dials, Qt::LeftButton, {}, at);
    QMouseEvent move(QEvent::MouseMove, at + QPoint(20, 0), dials->mapToGlobal(at + QPoint(20, 0)), Qt::NoButton,
                     Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(dials, &move);
    bench.wait_for([&] { return bench.drawing().stage().rough; });
    QTest::mouseRelease(dials, Qt::LeftButton, {}, at + QPoint(20, 0));
    bench.wait_for([&] { return !bench.drawing().stage().rough && bench.drawing().stage().ticks > 0; });
    bench.settle();
    CHECK(bench.drawing().stage().image != before);
}

TEST_CASE("whoever types what the guide says gets smoke that rises and stays") {
    std::ifstream file(std::string(LACQUER_SOURCE) + "/docs/guide.md");
    const std::string guide((std::istreambuf_iterator<char>(file)), {});
    const std::size_t begin = guide.find("## Flow:");
    REQUIRE(begin != std::string::npos);
    const std::string chapter = guide.substr(begin, guide.find("![Smoke", begin) - begin);
    BenchWindow bench;
    Finish finish = test::demo_finish();
    finish.coats.clear();
    std::erase_if(finish.grounds, [](const Ground& ground) { return ground.name != "scene"; });
    finish.dials.clear();
    finish.responses.clear();
    for (Ground& ground : finish.grounds) *path_of(ground) = picture_path(test::demo_path(), *path_of(ground));
    // Small, so that two seconds of ticks are soon drawn.
    finish.frame_width = 320;
    finish.frame_height = 180;
    bench.document().edit(finish, QStringLiteral("a picture"));
    const std::regex step("`(\\w+)`: `([^`]+)`");
    int steps = 0;
    for (std::sregex_iterator at(chapter.begin(), chapter.end(), step), end; at != end; ++at, ++steps) {
        bench.key(Qt::Key_A);
        bench.type((*at)[1]);
        bench.key(Qt::Key_Return);
        bench.type((*at)[2]);
        bench.key(Qt::Key_Return);
        INFO((*at)[1]);
        CHECK(bench.formula_of((*at)[1]) == (*at)[2]);
        if ((*at)[1] != "smoke") continue;
        bench.key(Qt::Key_F2);
        bench.type("smoke: 1");
        bench.key(Qt::Key_Return);
    }
    CHECK(steps == 7);
    for (const CheckedStep& checked : bench.document().checked().steps) {
        if (checked.fault) FAIL(to_text(*checked.fault));
    }
    bench.settle();
    const QImage before = bench.drawing().stage().image;
    bench.playing().set_time(2);
    bench.settle();
    const QImage after = bench.drawing().stage().image;
    // The mouth is at 0.8 of the height; smoke that rises is above it, where nothing else changes.
    int changed = 0;
    for (int y = after.height() * 55 / 100; y < after.height() * 70 / 100; ++y) {
        for (int x = 0; x < after.width(); ++x) changed += after.pixel(x, y) != before.pixel(x, y) ? 1 : 0;
    }
    CHECK(changed > 125);
    CHECK(changed < after.width() * after.height() / 20);
    bench.playing().set_time(0);
    bench.settle();
    CHECK(bench.drawing().stage().image == before);
}

TEST_CASE("the window and the command line draw demos that flow with equal pixels") {
    const test::TemporaryFolder folder;
    for (const char* demo : {"chimney-smoke", "lamp-flame", "wake", "phosphor-sea", "walked-clear"}) {
        INFO(demo);
        BenchWindow bench(test::demo_path(demo));
        bench.playing().set_time(0.9);
        bench.settle();
        const std::string file = folder.file("drawn.png");
        REQUIRE(test::run_cli("render " + test::demo_path(demo) + " --at 0.9 -o " + file).code == 0);
        const QImage drawn = QImage(qs(file)).convertToFormat(QImage::Format_RGBA8888);
        const QImage shown = bench.drawing().stage().image.convertToFormat(QImage::Format_RGBA8888);
        REQUIRE(drawn.size() == shown.size());
        CHECK(std::memcmp(drawn.constBits(), shown.constBits(), static_cast<std::size_t>(shown.sizeInBytes())) == 0);
    }
}
