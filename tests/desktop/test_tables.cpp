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
#include "desktop/shell/settings_text.h"
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
    const Settings none(QStringLiteral("/nonexistent/lacquer.json"));
    for (const SettingRow& row : setting_rows()) {
        CHECK(none.value(row.key) == row.otherwise);
        CHECK(*row.words != '\0');
    }
}

TEST_CASE("settings are there at once, and in their file once the disk had its turn") {
    const test::TemporaryFolder folder;
    const QString file = qs(folder.file("own.json"));
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

TEST_CASE("every kind of setting comes back as it was set, beside what another Lacquer has set") {
    const test::TemporaryFolder folder;
    const QString file = qs(folder.file("not there yet/own.json"));
    const QVariantMap keys = {{QStringLiteral("ship"), QStringLiteral("Ctrl+F5")}, {QStringLiteral("keep"), QString()}};
    const QVariantMap values = {
        {QStringLiteral("window/geometry"), QByteArray("\x01\x00\xff", 3)},
        {QStringLiteral("window/columns"), QVariantList{460.0, 820.0}},
        {QStringLiteral("file/recent"), QStringList{QStringLiteral("/a"), QStringLiteral("/ü")}},
        {QStringLiteral("draw/backend"), QStringLiteral("gpu")},
        {QStringLiteral("link/everywhere"), true},
        {QStringLiteral("keys"), keys}};
    Settings first(file);
    Settings second(file);
    first.set_values(values);
    second.set_value("draw/decimals", 6);
    const Settings again(file);
    CHECK_FALSE(again.fault());
    for (auto value = values.begin(); value != values.end(); ++value) {
        INFO(value.key().toStdString());
        CHECK(again.value(value.key().toLatin1().constData()) == value.value());
    }
    CHECK(again.value("draw/decimals").toInt() == 6);
}

TEST_CASE("settings of another kind, or beyond their range, are left out one by one") {
    const Result<QVariantMap> values = settings_of(
        R"({"draw/threads": 1e9, "draw/decimals": 2, "draw/backend": "abacus", "window/columns": [1, "2"], "keys": 5,
            "window/rows": [-1], "file/recent": "one", "window/shelf": 1, "link/port": 0.5, "unknown": 1})");
    REQUIRE(values);
    CHECK(*values == QVariantMap{{QStringLiteral("draw/decimals"), 2.0}});
}

TEST_CASE("a file of settings that cannot be read is told of, and stays beside the one that is written next") {
    const test::TemporaryFolder folder;
    const std::string file = folder.file("own.json");
    // The last one once brought down what read it.
    for (const std::string& text : {std::string("draw/decimals=3"), std::string("[1]"), std::string(200'000, '[')}) {
        test::write_file(file, text);
        Settings settings(qs(file));
        REQUIRE(settings.fault());
        CHECK_FALSE(settings.fault()->message.empty());
        CHECK(settings.value("draw/decimals").toInt() == 3);
        CHECK(test::read_file(file) == text);
        settings.set_value("draw/decimals", 4);
        CHECK(test::read_file(file + ".unreadable") == text);
        CHECK_FALSE(Settings(qs(file)).fault());
        CHECK(Settings(qs(file)).value("draw/decimals").toInt() == 4);
    }
}

TEST_CASE("the shipped fonts are used: words have their own widths, figures do not jump") {
    const QFontMetrics words(theme::words());
    CHECK(words.horizontalAdvance(QStringLiteral("iiii")) < words.horizontalAdvance(QStringLiteral("MMMM")));
    const QFontMetrics figures(theme::figures());
    CHECK(figures.horizontalAdvance(QStringLiteral("1111")) == figures.horizontalAdvance(QStringLiteral("0000")));
}
