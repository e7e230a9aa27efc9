// Keys of a path, dragged, typed and made steeper.
#include <QLineEdit>
#include <catch2/catch.hpp>

#include "desktop/pages/field_form.h"
#include "desktop/pages/path_editor.h"
#include "desktop/rehearse/lanes_view.h"
#include "desktop/rehearse/rehearse_screen.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

PathKeys keys(BenchWindow& bench) {
    return std::get<PathKeys>(bench.document().finish().responses.back().settings.at("keys"));
}

// The page of a path that is added by keys.
PathEditor* open_path(BenchWindow& bench) {
    Finish finish = bench.document().finish();
    finish.responses.push_back(
        {"rise", "path", "hit", {{"keys", PathKeys{{0, 0, {}, {}}, {1, 1, {}, {}}, {2, 0, {}, {}}}}}});
    finish.dials[0].formula = "rise";
    bench.document().edit(finish, QStringLiteral("a path"));
    bench.key(Qt::Key_2, Qt::ControlModifier);
    bench.settle();
    const QRect lane = bench.window().rehearse().lanes().lane_area(bench.document().finish().dials[0].name);
    bench.click(bench.window().rehearse().lanes().viewport(), QPoint(40, lane.center().y()));
    auto* editor = bench.find<QWidget>("play_form")->findChild<PathEditor*>(QStringLiteral("path_editor"));
    REQUIRE(editor != nullptr);
    bench.settle();
    return editor;
}

}  // namespace

TEST_CASE("keys of a path are dragged, added, typed and taken out") {
    BenchWindow bench(test::demo_path());
    PathEditor* editor = open_path(bench);
    const QPoint middle = editor->handle(1);
    bench.drag(editor, middle, middle + QPoint(30, 20));
    CHECK(keys(bench)[1].at > 1.05);
    CHECK(keys(bench)[1].value < 0.9);
    bench.key(Qt::Key_Z, Qt::ControlModifier);
    CHECK(keys(bench)[1].at == 1);
    bench.click(editor, (editor->handle(1) + editor->handle(2)) / 2 + QPoint(0, -4));
    REQUIRE(keys(bench).size() == 4);
    editor->setFocus();
    bench.key(Qt::Key_Return);
    bench.type("1.5 s, 0.25");
    bench.key(Qt::Key_Return);
    CHECK(keys(bench)[2].at == 1.5);
    CHECK(keys(bench)[2].value == 0.25);
    bench.key(Qt::Key_Delete);
    CHECK(keys(bench).size() == 3);
}

TEST_CASE("slopes are smooth, level, straight or kept by a key, and set by hand by their handles") {
    BenchWindow bench(test::demo_path());
    PathEditor* editor = open_path(bench);
    bench.click(editor, editor->handle(1));
    editor->setFocus();
    bench.key(Qt::Key_E);
    CHECK(keys(bench)[1].after.kind == SlopeKind::level);
    bench.key(Qt::Key_E);
    CHECK(keys(bench)[1].before.kind == SlopeKind::straight);
    bench.key(Qt::Key_E);
    CHECK(keys(bench)[1].after.kind == SlopeKind::stay);
    bench.key(Qt::Key_E);
    CHECK(keys(bench)[1].after.kind == SlopeKind::smooth);
    const QPoint handle = editor->slope_place(1, true);
    bench.drag(editor, handle, handle + QPoint(0, 20));
    CHECK(keys(bench)[1].after.kind == SlopeKind::by_hand);
    CHECK(keys(bench)[1].after.by_hand < 0);
    CHECK(keys(bench)[1].before == keys(bench)[1].after);
}
