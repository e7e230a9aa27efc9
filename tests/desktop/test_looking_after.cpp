// What is kept for the day on which something goes wrong: what the program was at, and a log that stays small.
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <QClipboard>
#include <QCoreApplication>
#include <QDir>
#include <QGuiApplication>
#include <QProcess>
#include <filesystem>

#include "core/finish/file.h"
#include "desktop/document/log_file.h"
#include "desktop/document/run_record.h"
#include "desktop/kit/choice_list.h"
#include "desktop/kit/chooser.h"
#include "desktop/shell/looking_after.h"
#include "tests/desktop/bench_window.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

// Runs `work` with a record in a process of its own, which is then shot down.
void shot_down(const std::filesystem::path& folder, const std::function<void(RunRecord&)>& work) {
    const pid_t child = ::fork();
    if (child == 0) {
        RunRecord record(folder);
        work(record);
        ::raise(SIGKILL);
    }
    REQUIRE(::waitpid(child, nullptr, 0) == child);
}

// The state folder of all tests in this program, without what others have left there.
class OwnState {
public:
    OwnState() : before_(qgetenv("XDG_STATE_HOME")) {
        qputenv("XDG_STATE_HOME", QByteArray::fromStdString(folder_.path()));
    }
    ~OwnState() { qputenv("XDG_STATE_HOME", before_); }
    OwnState(const OwnState&) = delete;
    OwnState& operator=(const OwnState&) = delete;
    std::filesystem::path running() const { return folder_.path() / "lacquer/running"; }
    std::filesystem::path log() const { return folder_.path() / "lacquer/log/lacquer.log"; }

private:
    test::TemporaryFolder folder_;
    QByteArray before_;
};

}  // namespace

TEST_CASE("what a program was doing outlives it, whatever ends it") {
    const test::TemporaryFolder folder;
    const std::filesystem::path running = folder.path() / "running";
    CHECK_FALSE(take_ended_run(running));
    shot_down(running, [](RunRecord& record) {
        record.did("opened strike.lacquer");
        const auto rim = record.doing("drawing rim of Squall strike");
        { const auto over = record.doing("drawing torn"); }
        const auto sheet = record.doing("drawing\nblur of Squall strike");
        record.did("action add_step");
        record.did(std::string(5000, 'x'));
        ::raise(SIGKILL);
    });
    const auto text = take_ended_run(running);
    REQUIRE(text);
    CHECK(text->starts_with("Lacquer "));
    CHECK(was_doing(*text) == "drawing rim of Squall strike; drawing blur of Squall strike");
    CHECK(text->find("opened strike.lacquer") < text->find("action add_step"));
    CHECK(text->find("torn") == std::string::npos);
    CHECK_FALSE(take_ended_run(running));
    CHECK(std::filesystem::is_empty(running));
}

TEST_CASE("a program that ends as it should leaves no record, nor does one without a folder") {
    const test::TemporaryFolder folder;
    {
        RunRecord record(folder.path() / "running");
        const auto doing = record.doing("drawing rim");
        // This one still runs.
        CHECK_FALSE(take_ended_run(folder.path() / "running"));
        CHECK_FALSE(std::filesystem::is_empty(folder.path() / "running"));
    }
    CHECK(std::filesystem::is_empty(folder.path() / "running"));
    test::write_file(folder.file("plain"), "");
    RunRecord none(folder.path() / "plain/running");
    none.did("nothing can be kept");
    CHECK(none.doing("but all goes on") != nullptr);
    RunRecord nowhere((std::filesystem::path()));
    CHECK(nowhere.doing("all goes on") == nullptr);
}

TEST_CASE("more is done at once, and more was done, than a record has lines for") {
    const test::TemporaryFolder folder;
    shot_down(folder.path(), [](RunRecord& record) {
        std::vector<std::shared_ptr<void>> doing;
        for (int i = 0; i < 40; ++i) doing.push_back(record.doing("drawing step" + std::to_string(i)));
        for (int i = 0; i < 100; ++i) record.did("action " + std::to_string(i));
        ::raise(SIGKILL);
    });
    const auto text = take_ended_run(folder.path());
    REQUIRE(text);
    CHECK(was_doing(*text).starts_with("drawing step0; drawing step1; "));
    CHECK(text->find("action 99\n") != std::string::npos);
    CHECK(text->find("action 3\n") == std::string::npos);
}

TEST_CASE("records that somebody has tampered with are texts, or nothing") {
    const test::TemporaryFolder folder;
    test::write_file(folder.file("1-1.run"), std::string("\xff\x00\x01 zzz\n\n\n", 9));
    test::write_file(folder.file("2-1.run"), std::string(1 << 20, 'a'));
    test::write_file(folder.file("3-1.run"), "");
    std::filesystem::create_directory(folder.path() / "4-1.run");
    const auto text = take_ended_run(folder.path());
    if (text) CHECK(text->size() < 1 << 16);
    CHECK_FALSE(take_ended_run(folder.path()));
}

TEST_CASE("the log does not grow beyond two files of half a megabyte") {
    const test::TemporaryFolder folder;
    {
        Disk disk;
        LogFile log(folder.path() / "log", disk);
        for (int i = 0; i < 12'000; ++i)
            log.line(QStringLiteral("%1 {} {0} %s\nfollows ").arg(i) + QString(150, QLatin1Char('x')));
    }
    std::uintmax_t all = 0;
    for (const auto& entry : std::filesystem::directory_iterator(folder.path() / "log")) all += entry.file_size();
    CHECK(all <= 2 * LogFile::most_bytes);
    CHECK(all > LogFile::most_bytes);
    const std::string newest = test::read_file(folder.file("log/lacquer.log"));
    CHECK(newest.find("11999 {} {0} %s follows") != std::string::npos);
    Disk disk;
    test::write_file(folder.file("plain"), "");
    LogFile nowhere(folder.path() / "plain/log", disk);
    nowhere.line(QStringLiteral("nobody minds"));
}

TEST_CASE("what is said and done is in the log") {
    const OwnState state;
    BenchWindow bench(test::demo_path());
    LookingAfter looking_after;
    looking_after.follow(bench.models(), bench.window());
    bench.action("add_step");
    bench.settle();
    bench.settle_disk();
    const std::string log = test::read_file(state.log().string());
    CHECK(log.find("Lacquer ") != std::string::npos);
    CHECK(log.find("action add_step") != std::string::npos);
    CHECK(bench.last_said.indexOf(QStringLiteral("ended")) < 0);
    bench.action("last_end");
    CHECK(bench.last_said.contains(QStringLiteral("not ended in the middle")));
}

TEST_CASE("a program that is shot down while it draws tells the next one which step that was") {
    const OwnState state;
    const test::TemporaryFolder folder;
    const std::string path = folder.file("slow.lacquer");
    Finish slow = test::finish_of(
        {{"swell",
          "float sum = 0.0; for (int i = 0; i < 60000; i++) sum += sin(uv.x * float(i) + time); return sum;"}});
    slow.name = "Slow swell";
    REQUIRE(save_finish(path, slow));
    QProcess first;
    first.start(QCoreApplication::applicationDirPath() + QStringLiteral("/lacquer"), {qs(path)});
    REQUIRE(first.waitForStarted());
    const auto record = [&]() -> std::string {
        const QDir store(qs(state.running().string()));
        for (const QFileInfo& file : store.entryInfoList({QStringLiteral("*.run")}, QDir::Files))
            return test::read_file(file.absoluteFilePath().toStdString());
        return {};
    };
    REQUIRE(QTest::qWaitFor([&] { return record().find("drawing swell of Slow swell") != std::string::npos; }, 60000));
    ::kill(static_cast<pid_t>(first.processId()), SIGSEGV);
    REQUIRE(first.waitForFinished());

    BenchWindow bench(test::demo_path());
    LookingAfter looking_after;
    looking_after.follow(bench.models(), bench.window());
    bench.settle_disk();
    bench.wait_for([&] { return bench.document().notices().unseen().has_value(); });
    CHECK(bench.document().notices().unseen()->words.contains(QStringLiteral("drawing swell of Slow swell")));
    bench.action("last_end");
    REQUIRE(bench.window().chooser().isVisible());
    QString lines;
    for (const Choice& line : bench.window().chooser().list().choices()) lines += line.name + QLatin1Char('\n');
    CHECK(lines.contains(QStringLiteral("doing: drawing swell of Slow swell (") + qs(path)));
    bench.key(Qt::Key_Return);
    CHECK(QGuiApplication::clipboard()->text().contains(QStringLiteral("drawing swell of Slow swell")));
}
