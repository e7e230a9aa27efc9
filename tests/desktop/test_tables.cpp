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
    const QSettings none(QStringLiteral("/nonexistent/lacquer.ini"), QSettings::IniFormat);
    for (const SettingRow& row : setting_rows()) {
        CHECK(setting(none, row.key) == row.otherwise);
        CHECK(*row.words != '\0');
    }
}

TEST_CASE("the shipped fonts are used: words have their own widths, figures do not jump") {
    const QFontMetrics words(theme::words());
    CHECK(words.horizontalAdvance(QStringLiteral("iiii")) < words.horizontalAdvance(QStringLiteral("MMMM")));
    const QFontMetrics figures(theme::figures());
    CHECK(figures.horizontalAdvance(QStringLiteral("1111")) == figures.horizontalAdvance(QStringLiteral("0000")));
}
