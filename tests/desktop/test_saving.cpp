// Saving, opening, leaving, and work that survives a crash.
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>
#include <QDir>
#include <QListWidget>
#include <QProcess>
#include <catch2/catch.hpp>

#include "desktop/document/recovery.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

TEST_CASE("what is saved, closed and opened again is as it was") {
    BenchWindow bench(test::demo_path());
    bench.document().select("torn");
    bench.key(Qt::Key_E);
    bench.type("reach * 1.25");
    bench.key(Qt::Key_Return);
    bench.playing().set_dial("grain", {0.77, 0, 0});
    bench.playing().set_time(2);
    bench.key(Qt::Key_1);
    bench.to_save = qs(bench.folder().file("deep/er.lacquer"));
    bench.key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK(bench.document().edited());
    CHECK(bench.last_said.contains(QStringLiteral("cannot be written")));
    bench.to_save = qs(bench.folder().file("copy.lacquer"));
    bench.key(Qt::Key_S, Qt::ControlModifier | Qt::ShiftModifier);
    CHECK_FALSE(bench.document().edited());
    bench.settle();
    const Finish saved = bench.document().finish();
    const QImage picture = bench.drawing().stage().image;

    BenchWindow again(bench.folder().file("copy.lacquer"));
    CHECK(again.document().finish() == saved);
    again.playing().set_time(2);
    again.settle();
    CHECK(again.drawing().stage().notices.empty());
    CHECK(again.drawing().stage().image == picture);
}

TEST_CASE("a bad file is told, and the open finish stays") {
    BenchWindow bench(test::demo_path());
    const Finish before = bench.document().finish();
    const std::string path = bench.folder().file("bad.lacquer");
    test::write_file(path, "{\"format\": 1, \"name\": \"cut");
    CHECK_FALSE(bench.document().open(qs(path)));
    CHECK(bench.last_said.contains(QStringLiteral("line 1")));
    test::write_file(path, "{\"format\": 99}");
    CHECK_FALSE(bench.document().open(qs(path)));
    CHECK(bench.last_said.contains(QStringLiteral("newer")));
    CHECK(bench.document().finish() == before);
    CHECK(test::read_file(path) == "{\"format\": 99}");
}

TEST_CASE("unsaved changes are asked about before they are left") {
    BenchWindow bench(test::demo_path());
    bench.playing().set_dial("grain", {0.9, 0, 0});
    bench.unsaved = Unsaved::stay;
    bench.key(Qt::Key_N, Qt::ControlModifier);
    CHECK(bench.questions == 1);
    CHECK(bench.document().finish().name == "Squall strike");
    CHECK_FALSE(bench.window().close());
    bench.unsaved = Unsaved::discard;
    bench.key(Qt::Key_N, Qt::ControlModifier);
    CHECK(bench.document().finish().name == "Untitled");
    CHECK(bench.window().close());
    CHECK(bench.questions == 3);
}

TEST_CASE("work that was not saved is offered back after a crash, and only then") {
    Finish lost = test::demo_finish();
    lost.name = "Lost";
    REQUIRE(keep_for_recovery("/x/own.lacquer", lost));
    CHECK(kept_work().empty());  // this program still runs
    drop_recovery("/x/own.lacquer");
    const pid_t child = fork();
    if (child == 0) {
        _exit(keep_for_recovery("/x/a.lacquer", lost) ? 0 : 1);
    }
    int status = 0;
    REQUIRE(waitpid(child, &status, 0) == child);
    const std::vector<KeptWork> kept = kept_work();
    REQUIRE(kept.size() == 1);
    CHECK(kept[0].path == "/x/a.lacquer");
    const auto read = read_kept(kept[0]);
    REQUIRE(read);
    CHECK(read->finish == lost);

    BenchWindow bench;
    auto* list = bench.find<QListWidget>("start_list");
    QListWidgetItem* card = list->item(0);
    CHECK(card->text() == QStringLiteral("Unsaved: Lost"));
    bench.click(list->viewport(), list->visualItemRect(card).center());
    CHECK(bench.document().finish().name == "Lost");
    CHECK(bench.document().path() == "/x/a.lacquer");
    CHECK(bench.document().edited());
    bench.settle_disk();
    CHECK(kept_work().empty());
    // Once more, it is gone: nothing is lost that was there.
    CHECK_FALSE(bench.document().bring_back(kept[0]));
    CHECK(bench.document().finish().name == "Lost");
    bench.action("new_finish");
    bench.settle_disk();
    CHECK(list->item(0)->text() == QStringLiteral("New from a picture…"));
}

TEST_CASE("the program killed in the middle of work brings back what was changed ten seconds before at the latest") {
    const test::TemporaryFolder folder;
    QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
    environment.insert(QStringLiteral("XDG_STATE_HOME"), qs(folder.file("state")));
    environment.insert(QStringLiteral("HOME"), qs(folder.file("home")));
    const QString program = QCoreApplication::applicationDirPath() + QStringLiteral("/lacquer");
    const QDir store(qs(folder.file("state/lacquer/unsaved")));
    const auto kept = [&]() -> std::optional<Finish> {
        for (const QFileInfo& file : store.entryInfoList({QStringLiteral("*.lacquer")}, QDir::Files)) {
            auto opened = load_finish(file.absoluteFilePath().toStdString());
            if (opened) return std::move(opened->finish);
        }
        return std::nullopt;
    };
    const auto with_keys = [](const QStringList& words) {
        QProcess keys;
        keys.start(QStringLiteral("xdotool"), words);
        REQUIRE(keys.waitForFinished(10000));
        return QString::fromUtf8(keys.readAllStandardOutput()).trimmed();
    };
    QProcess first;
    first.setProcessEnvironment(environment);
    first.start(program, {qs(test::demo_path())});
    REQUIRE(first.waitForStarted());
    const QString pid = QString::number(first.processId());
    const QString window =
        with_keys({"search", "--sync", "--onlyvisible", "--pid", pid}).section(QLatin1Char('\n'), 0, 0);
    REQUIRE_FALSE(window.isEmpty());
    with_keys({"windowfocus", "--sync", window});
    with_keys({"key", "o"});  // switches the last step off
    REQUIRE(QTest::qWaitFor([&] { return kept().has_value(); }, 60000));
    CHECK_FALSE(kept()->coats.back().steps.back().on);
    kill(static_cast<pid_t>(first.processId()), SIGKILL);
    REQUIRE(first.waitForFinished());
    CHECK(kept().has_value());
    // The next one on the same finish takes it over, and keeps it aside again as its own unsaved work.
    QProcess second;
    second.setProcessEnvironment(environment);
    second.start(program, {qs(test::demo_path())});
    REQUIRE(second.waitForStarted());
    const QString own = QString::number(second.processId()) + QStringLiteral("-*.lacquer");
    REQUIRE(QTest::qWaitFor([&] { return !store.entryList({own}).isEmpty(); }, 60000));
    const auto again = kept();
    REQUIRE(again);
    CHECK_FALSE(again->coats.back().steps.back().on);
    CHECK(again->name == "Squall strike");
    second.kill();
    second.waitForFinished();
}
