// The tables of actions and settings, and the fonts.
#include <QAction>
#include <QApplication>
#include <QFontMetrics>
#include <QMenu>
#include <catch2/catch.hpp>
#include <set>

#include "desktop/kit/theme.h"
#include "desktop/shell/actions.h"
#include "desktop/shell/settings.h"
#include "tests/desktop/bench_window.h"

using namespace lacquer;
using test::BenchWindow;

TEST_CASE("every action of the table is in the window, with words; no two share a key") {
    BenchWindow bench;
    std::set<QString> keys;
    std::size_t actions = 0;
    for (const ActionRow& row : action_rows()) {
        if (*row.id == '\0') continue;
        INFO(row.id);
        const auto* action = bench.find<QAction>(row.id);
        CHECK_FALSE(action->toolTip().isEmpty());
        if (!action->shortcut().isEmpty()) CHECK(keys.insert(action->shortcut().toString()).second);
        ++actions;
    }
    CHECK(actions > 40);
}

TEST_CASE("every action can be triggered on an empty finish") {
    BenchWindow bench;
    for (const ActionRow& row : action_rows()) {
        if (*row.id == '\0' || std::string(row.id) == "quit") continue;
        INFO(row.id);
        bench.action(row.id);
        bench.settle();
        if (QWidget* menu = QApplication::activePopupWidget()) menu->close();
    }
    bench.playing().set_playing(false);
}

TEST_CASE("settings have a default each") {
    const Settings none(QStringLiteral("/nonexistent/lacquer.ini"));
    for (const SettingRow& row : setting_rows()) {
        CHECK(none.value(row.key) == row.otherwise);
        CHECK(*row.words != '\0');
    }
}

TEST_CASE("settings are there at once, and in their file once the disk had its turn") {
    const test::TemporaryFolder folder;
    const QString file = qs(folder.file("own.ini"));
    Settings settings(file);
    {
        Disk disk;
        settings.write_by(disk);
        settings.set_value("draw/decimals", 5);
        settings.set_values(
            {{QStringLiteral("window/shelf"), true}, {QStringLiteral("file/folder"), QStringLiteral("/a b")}});
        CHECK(settings.value("draw/decimals").toInt() == 5);
    }
    // What was still to be written when the disk ended has been.
    const Settings again(file);
    CHECK(again.value("draw/decimals").toInt() == 5);
    CHECK(again.value("window/shelf").toBool());
    CHECK(again.value("file/folder").toString() == QStringLiteral("/a b"));
    CHECK(again.value("draw/threads").toInt() == 0);
    // Without a disk it is written at once.
    settings.set_value("draw/decimals", 2);
    CHECK(Settings(file).value("draw/decimals").toInt() == 2);
}

TEST_CASE("the shipped fonts are used: words have their own widths, figures do not jump") {
    const QFontMetrics words(theme::words());
    CHECK(words.horizontalAdvance(QStringLiteral("iiii")) < words.horizontalAdvance(QStringLiteral("MMMM")));
    const QFontMetrics figures(theme::figures());
    CHECK(figures.horizontalAdvance(QStringLiteral("1111")) == figures.horizontalAdvance(QStringLiteral("0000")));
}
