// What there is to start from: the demos, found by folder, as pictures and as a menu.
#include <QListWidget>
#include <QMenu>

#include "desktop/session/demos.h"
#include "tests/desktop/bench_window.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

QListWidgetItem* item_named(QListWidget& list, const char* name) {
    const auto found = list.findItems(QString::fromLatin1(name), Qt::MatchExactly);
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
    list->scrollToItem(item);
    bench.click(list->viewport(), list->visualItemRect(item).center());
    CHECK(bench.session().finish().name == "Brightness burn");
    CHECK_FALSE(list->isVisible());
    bench.settle();
    CHECK_FALSE(bench.session().stage().image.isNull());
    bench.action("new_finish");
    CHECK(list->isVisible());
}

TEST_CASE("the list is walked and opened by keys") {
    BenchWindow bench;
    auto* list = bench.find<QListWidget>("start_list");
    list->setFocus();
    list->setCurrentRow(0);
    const QString second = list->item(1)->text();
    bench.key(Qt::Key_Right);
    bench.key(Qt::Key_Return);
    CHECK(qs(bench.session().finish().name) == second);
}

TEST_CASE("the menu opens a demo, and asks before changes are lost") {
    BenchWindow bench;
    bench.action("add_step");
    bench.unsaved = Unsaved::stay;
    bench.action("open_demo");
    auto* menu = bench.find<QMenu>("page_menu");
    CHECK(menu->actions().size() == demos_in(demo_folder()).size());
    menu->actions().front()->trigger();
    CHECK(bench.questions == 1);
    CHECK(bench.session().finish().name == "Untitled");
    bench.unsaved = Unsaved::discard;
    menu->actions().front()->trigger();
    CHECK(qs(bench.session().finish().name) == menu->actions().front()->text());
    menu->close();
}

TEST_CASE("a folder without finishes, or none, gives nothing to start from") {
    CHECK(demos_in({}).isEmpty());
    const test::TemporaryFolder folder;
    test::write_file(folder.file("broken.lacquer"), "{");
    CHECK(demos_in(qs(folder.path().string())).isEmpty());
}
