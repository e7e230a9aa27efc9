// The ship screen: by mouse and keys, with real files.
#include <QApplication>
#include <QClipboard>
#include <QPushButton>
#include <QTest>
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/finish/file.h"
#include "desktop/shell/main_window.h"
#include "desktop/ship/ship_screen.h"
#include "desktop/ship/target_cards.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"
#include "tests/support/temporary.h"

using namespace lacquer;
using test::BenchWindow;
namespace fs = std::filesystem;

namespace {

// Until the targets have been looked at as they are now, and no work is under way.
void until_looked(BenchWindow& bench) {
    Shipping& shipping = bench.window().ship().shipping();
    REQUIRE(QTest::qWaitFor(
        [&] { return shipping.is_current() && !shipping.is_looking() && !bench.document().background().busy(); },
        60000));
}

const ShipTarget& target(BenchWindow& bench, std::string_view id) {
    for (const ShipTarget& one : bench.window().ship().shipping().targets()) {
        if (one.output->id == id) return one;
    }
    FAIL("no " << id);
    return bench.window().ship().shipping().targets().front();
}

}  // namespace

TEST_CASE("the ship screen tells what each target writes, and ships what is chosen") {
    const test::TemporaryFolder folder;
    fs::copy(test::demo_path("everyday-grade"), folder.file("grade.lacquer"));
    BenchWindow bench(folder.file("grade.lacquer"));
    bench.key(Qt::Key_4, Qt::ControlModifier);
    REQUIRE(bench.window().screen_shown() == Where::ship);
    until_looked(bench);
    CHECK(target(bench, "glsl330").files == 2);
    CHECK(target(bench, "page").bytes > 10'000);
    CHECK(bench.window().ship().checklist().contains(QStringLiteral("Each frame")));
    TargetCards& cards = bench.window().ship().cards();
    // By the mouse: all but the first two are left out.
    for (int i = 2; i < cards.cell_count(); ++i)
        QTest::mouseClick(cards.viewport(), Qt::LeftButton, {}, cards.card_area(i).center());
    CHECK_FALSE(target(bench, "page").chosen);
    // By keys: the second, too.
    QTest::keyClick(&cards, Qt::Key_Home);
    while (!cards.cell(1).chosen) QTest::keyClick(&cards, Qt::Key_Space);
    const QString set = QString::fromStdString(folder.file("set"));
    bench.to_ship = set;
    bench.key(Qt::Key_P, Qt::ControlModifier | Qt::AltModifier);
    until_looked(bench);
    CHECK(fs::exists(folder.file("set") + "/shaders/glsl330/whole_frame.vert"));
    CHECK(fs::exists(folder.file("set") + "/shaders/es300/whole_frame.vert"));
    CHECK_FALSE(fs::exists(folder.file("set") + "/shaders/spirv"));
    // The same again to the same place, without asking.
    bench.to_ship.clear();
    fs::remove(folder.file("set") + "/shaders/es300/whole_frame.vert");
    bench.key(Qt::Key_H, Qt::ControlModifier | Qt::AltModifier);
    until_looked(bench);
    CHECK(fs::exists(folder.file("set") + "/shaders/es300/whole_frame.vert"));
}

TEST_CASE("what a host may be unable to do has a button that ships what does without") {
    const test::TemporaryFolder folder;
    Finish finish = test::demo_named("rain-on-the-pane");
    finish.frame_width = 64;
    finish.frame_height = 36;
    finish.length = 0.5;
    finish.grounds.push_back(test::picture_ground("lost", "lost.png"));
    REQUIRE(save_finish(folder.file("rain.lacquer"), finish));
    BenchWindow bench(folder.file("rain.lacquer"));
    bench.key(Qt::Key_4, Qt::ControlModifier);
    until_looked(bench);
    const auto button = [&](const QString& words) -> QPushButton* {
        for (QPushButton* one : bench.window().ship().findChildren<QPushButton*>()) {
            if (one->isVisible() && one->text().startsWith(words)) return one;
        }
        return nullptr;
    };
    REQUIRE(QTest::qWaitFor([&] { return button(QStringLiteral("Ship pictures of drops")) != nullptr; }));
    QPushButton* drops = button(QStringLiteral("Ship pictures of drops"));
    CHECK_FALSE(target(bench, "drops").chosen);
    QTest::mouseClick(drops, Qt::LeftButton);
    CHECK(target(bench, "drops").chosen);
    CHECK_FALSE(drops->isEnabled());
    CHECK(button(QStringLiteral("Find…")) != nullptr);
    bench.to_ship = QString::fromStdString(folder.file("set"));
    bench.key(Qt::Key_P, Qt::ControlModifier | Qt::AltModifier);
    until_looked(bench);
    CHECK(test::read_file(folder.file("set") + "/manifest.json").find("\"frames\"") != std::string::npos);
}

TEST_CASE("keep shipped writes the set at every save") {
    const test::TemporaryFolder folder;
    fs::copy(test::demo_path("everyday-grade"), folder.file("grade.lacquer"));
    BenchWindow bench(folder.file("grade.lacquer"));
    bench.key(Qt::Key_4, Qt::ControlModifier);
    until_looked(bench);
    bench.to_ship = QString::fromStdString(folder.file("set"));
    bench.key(Qt::Key_L, Qt::ControlModifier | Qt::AltModifier);
    until_looked(bench);
    REQUIRE(fs::exists(folder.file("set") + "/manifest.json"));
    Finish renamed = bench.document().finish();
    renamed.name = "Another grade";
    bench.document().edit(renamed, QStringLiteral("renamed"));
    bench.key(Qt::Key_S, Qt::ControlModifier);
    until_looked(bench);
    CHECK(test::read_file(folder.file("set") + "/manifest.json").find("Another grade") != std::string::npos);
}

TEST_CASE("targets are verified by a key, and an edit takes the marks away") {
    const test::TemporaryFolder folder;
    fs::copy(test::demo_path("blink-and-pulse"), folder.file("blink.lacquer"));
    BenchWindow bench(folder.file("blink.lacquer"));
    bench.key(Qt::Key_4, Qt::ControlModifier);
    until_looked(bench);
    CHECK_FALSE(target(bench, "glsl330").verified);
    bench.key(Qt::Key_M, Qt::ControlModifier | Qt::AltModifier);
    until_looked(bench);
    REQUIRE(target(bench, "glsl330").verified);
    CHECK(target(bench, "glsl330").verified->holds());
    REQUIRE(target(bench, "msl").verified);
    CHECK_FALSE(target(bench, "msl").verified->was_run);
    CHECK(bench.window().ship().cards().cell(0).value.contains(QStringLiteral("verified")));
    Finish changed = bench.document().finish();
    changed.name = "Changed";
    bench.document().edit(changed, QStringLiteral("changed"));
    until_looked(bench);
    CHECK_FALSE(target(bench, "glsl330").verified);
}

TEST_CASE("a finish with faults says on the ship screen why it is not shipped") {
    const test::TemporaryFolder folder;
    Finish broken = test::finish_of({{"a", "vec4(nothing)"}});
    REQUIRE(save_finish(folder.file("broken.lacquer"), broken));
    BenchWindow bench(folder.file("broken.lacquer"));
    bench.key(Qt::Key_4, Qt::ControlModifier);
    until_looked(bench);
    REQUIRE(bench.window().ship().shipping().refused());
    CHECK(bench.window().ship().shipping().refused()->id == "ship.faults");
    bench.to_ship = QString::fromStdString(folder.file("set"));
    bench.key(Qt::Key_P, Qt::ControlModifier | Qt::AltModifier);
    until_looked(bench);
    CHECK_FALSE(fs::exists(folder.file("set")));
}
