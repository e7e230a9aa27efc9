// What there is to start from: the demos, found by folder, as pictures and as a menu.
#include <QListWidget>
#include <set>

#include "desktop/document/demos.h"
#include "desktop/ladder/ladder_view.h"
#include "desktop/shell/help_card.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

QListWidgetItem* item_named(QListWidget& list, const char* name) {
    const auto found = list.findItems(QString::fromUtf8(name), Qt::MatchExactly);
    REQUIRE(found.size() == 1);
    return found.front();
}

bool all_drawn(const QListWidget& list) {
    for (int row = 0; row < list.count(); ++row) {
        if (!list.item(row)->data(Qt::UserRole + 1).toBool()) return false;
    }
    return list.count() > 0;
}

}  // namespace

TEST_CASE("an empty finish shows all demos as pictures, and a click opens one") {
    BenchWindow bench;
    auto* list = bench.find<QListWidget>("start_list");
    REQUIRE(list->isVisible());
    CHECK(list->count() >= 20);
    bench.wait_for([&] { return all_drawn(*list); });
    QListWidgetItem* item = item_named(*list, "Brightness burn");
    CHECK_FALSE(item->toolTip().isEmpty());
    // It moves.
    const qint64 first = item->icon().cacheKey();
    bench.wait_for([&] { return item->icon().cacheKey() != first; });
    list->scrollToItem(item);
    bench.click(list->viewport(), list->visualItemRect(item).center());
    CHECK(bench.document().finish().name == "Brightness burn");
    CHECK_FALSE(list->isVisible());
    bench.settle();
    CHECK_FALSE(bench.drawing().stage().image.isNull());
    bench.action("new_finish");
    CHECK(list->isVisible());
}

TEST_CASE("the list is walked and opened by keys") {
    BenchWindow bench;
    auto* list = bench.find<QListWidget>("start_list");
    list->setFocus();
    list->setCurrentRow(0);
    // Headings are passed over.
    const QString second = list->item(2)->text();
    bench.key(Qt::Key_Right);
    if (list->currentRow() == 1) bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Return);
    CHECK(qs(bench.document().finish().name) == second);
}

TEST_CASE("the menu opens a demo, and asks before changes are lost") {
    BenchWindow bench;
    bench.action("add_step");
    bench.unsaved = Unsaved::stay;
    bench.key(Qt::Key_O, Qt::ControlModifier | Qt::ShiftModifier);
    auto* list = bench.find<QListWidget>("gallery_list");
    bench.wait_for([&] { return all_drawn(*list); });
    // Every demo under the heading of what drives it, with a picture.
    const QList<Demo> demos = demos_in(demo_folder());
    std::set<DrivenBy> groups;
    for (const Demo& demo : demos) groups.insert(demo.by);
    CHECK(groups.size() >= 3);
    CHECK(list->count() == demos.size() + static_cast<int>(groups.size()));
    bench.type("brightness burn");
    int shown = 0;
    for (int row = 0; row < list->count(); ++row) shown += list->item(row)->isHidden() ? 0 : 1;
    CHECK(shown == 1);
    bench.key(Qt::Key_Return);
    CHECK(bench.questions == 1);
    CHECK(bench.document().finish().name == "Untitled");
    CHECK(list->isVisible());
    bench.unsaved = Unsaved::discard;
    bench.key(Qt::Key_Return);
    CHECK(bench.document().finish().name == "Brightness burn");
    CHECK_FALSE(list->isVisible());
    // It is a copy: its pictures are found, and saving asks for a place.
    CHECK(bench.document().path().empty());
    bench.settle();
    CHECK(bench.drawing().stage().notices.empty());
    bench.to_save = qs(bench.folder().file("own.lacquer"));
    bench.key(Qt::Key_S, Qt::ControlModifier);
    CHECK(bench.document().path() == bench.folder().file("own.lacquer"));
    bench.document().open(qs(bench.document().path()));
    bench.settle();
    CHECK(bench.drawing().stage().notices.empty());
}

TEST_CASE("a folder without finishes, or none, gives nothing to start from") {
    CHECK(demos_in({}).isEmpty());
    const test::TemporaryFolder folder;
    test::write_file(folder.file("broken.lacquer"), "{");
    CHECK(demos_in(qs(folder.path().string())).isEmpty());
}

TEST_CASE("a finish starts from a picture of one's own, and work of late is offered again") {
    BenchWindow bench;
    bench.to_add = QStringLiteral(LACQUER_SOURCE "/demo/pictures/crab.png");
    auto* list = bench.find<QListWidget>("start_list");
    QListWidgetItem* fresh = item_named(*list, "New from a picture…");
    list->scrollToItem(fresh);
    bench.click(list->viewport(), list->visualItemRect(fresh).center());
    const QImage crab(bench.to_add);
    CHECK(bench.document().finish().frame_width == crab.width());
    CHECK(bench.document().finish().grounds.size() == 1);
    CHECK_FALSE(list->isVisible());
    bench.to_save = qs(bench.folder().file("my own.lacquer"));
    REQUIRE(bench.document().save());
    bench.action("new_finish");
    bench.wait_for([&] { return all_drawn(*list); });
    QListWidgetItem* again = item_named(*list, "my own");
    list->scrollToItem(again);
    bench.click(list->viewport(), list->visualItemRect(again).center());
    CHECK(bench.document().path() == bench.to_save.toStdString());
}

TEST_CASE("every action is found by what it does, and F1 explains what the keys are on") {
    BenchWindow bench(test::demo_path());
    bench.key(Qt::Key_F4);
    bench.type("before and after");
    bench.key(Qt::Key_Return);
    CHECK(bench.drawing().look().curtain);
    bench.document().select("rim");
    bench.window().ladder().setFocus();
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_F1);
    HelpCard& card = bench.window().help_card();
    REQUIRE(card.isVisible());
    CHECK(card.text().contains(QStringLiteral("smoothstep(")));
    CHECK(card.text().contains(QStringLiteral("<img src='data:image/png")));
    bench.key(Qt::Key_Escape);
    CHECK_FALSE(card.isVisible());
    // And while its formula is typed, what the mark stands in.
    bench.key(Qt::Key_E);
    bench.key(Qt::Key_Home);
    bench.key(Qt::Key_F1);
    CHECK(card.text().contains(QStringLiteral("A function of GLSL ES 3.00")));
    bench.key(Qt::Key_Escape);
    bench.key(Qt::Key_Escape);
    bench.window().ladder().setFocus();
    bench.key(Qt::Key_Left);
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_F1);
    CHECK(card.text().contains(QStringLiteral("where the edge begins")));  // the dial radius
    bench.key(Qt::Key_Escape);
    bench.key(Qt::Key_F1, Qt::ShiftModifier);
    CHECK(card.text().contains(QStringLiteral("Core sample")));
    bench.key(Qt::Key_Escape);
}
