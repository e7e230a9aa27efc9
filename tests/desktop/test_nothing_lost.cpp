// Whatever takes the program, the disk or the power away: no file is broken, and what was saved is there.
#include <fcntl.h>
#include <signal.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <catch2/catch.hpp>
#include <filesystem>
#include <fstream>
#include <random>

#include "core/base/file.h"
#include "core/finish/file.h"
#include "desktop/document/open_mark.h"
#include "desktop/document/recovery.h"
#include "desktop/document/state_files.h"
#include "tests/desktop/bench_window.h"
#include "tests/power/power_cut.h"
#include "tests/support/finishes.h"

using namespace lacquer;
using test::BenchWindow;

namespace {

namespace fs = std::filesystem;

#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
constexpr bool may_be_loaded_before = false;
#else
constexpr bool may_be_loaded_before = true;
#endif

// Which of its states a finish is in.
Finish state_of(Finish finish, int number) {
    finish.name = "v" + std::to_string(number);
    return finish;
}

// That of a finish's text; -1 for one that is broken.
int state_in(const std::string& text) {
    const Result<OpenedFinish> opened = finish_from_text(text, "");
    if (!opened || !opened->notices.empty() || !opened->finish.name.starts_with("v")) return -1;
    return std::stoi(opened->finish.name.substr(1));
}

int state_at(const std::string& path) { return state_in(test::read_file(path)); }

// The state folder of this program for as long as it lives.
class StateHome {
public:
    explicit StateHome(const std::string& folder) : before_(qgetenv("XDG_STATE_HOME")) {
        qputenv("XDG_STATE_HOME", QByteArray::fromStdString(folder));
    }
    ~StateHome() { qputenv("XDG_STATE_HOME", before_); }
    StateHome(const StateHome&) = delete;
    StateHome& operator=(const StateHome&) = delete;

private:
    QByteArray before_;
};

// Files of a folder and all below that are kept finishes or finishes.
std::vector<std::string> finishes_below(const fs::path& folder) {
    std::vector<std::string> found;
    if (!fs::exists(folder)) return found;
    for (const auto& entry : fs::recursive_directory_iterator(folder)) {
        if (entry.is_regular_file() && entry.path().extension() == ".lacquer") found.push_back(entry.path().string());
    }
    return found;
}

// In the child: saves and keeps aside, turn by turn, and says on the pipe what is done. Even numbers are saved, odd
// ones kept.
[[noreturn]] void save_without_end(const std::string& path, int from, int told) {
    const Finish finish = test::demo_finish();
    for (int number = from;; ++number) {
        const Finish now = state_of(finish, number);
        const Result<Done> done = number % 2 == 0 ? save_finish(path, now) : keep_for_recovery(path, now);
        const int said = done ? number : -number;
        if (::write(told, &said, sizeof(said)) != sizeof(said)) _exit(0);
    }
}

}  // namespace

namespace {

// Kills so many processes at random in the middle of saving, and looks at what they leave.
void kill_while_saving(int kills) {
    const test::TemporaryFolder folder;
    const StateHome state(folder.file("state"));
    const std::string path = folder.file("strike.lacquer");
    std::mt19937 random(7);  // NOLINT(cert-msc51-cpp): the same kills each time
    int saved = 0;
    int broken = 0;
    int lost = 0;
    int next = 2;
    for (int kill_number = 0; kill_number < kills; ++kill_number) {
        std::array<int, 2> ends{};
        REQUIRE(::pipe2(ends.data(), O_CLOEXEC) == 0);
        const pid_t child = ::fork();
        if (child == 0) save_without_end(path, next, ends[1]);
        ::close(ends[1]);
        int kept = 0;
        for (unsigned wait = 1 + random() % 2; wait > 0; --wait) {
            int number = 0;
            if (::read(ends[0], &number, sizeof(number)) != sizeof(number)) break;
            if (number > 0 && number % 2 == 0) saved = number;
            if (number > 0 && number % 2 == 1) kept = number;
            next = std::abs(number) + 1;
        }
        // Anywhere in the next one.
        const auto until = std::chrono::steady_clock::now() + std::chrono::microseconds(random() % 800);
        while (std::chrono::steady_clock::now() < until) std::this_thread::yield();
        ::kill(child, SIGKILL);
        REQUIRE(::waitpid(child, nullptr, 0) == child);
        ::close(ends[0]);
        const int there = fs::exists(path) ? state_at(path) : 0;
        if (there < 0) ++broken;
        if (there < saved) ++lost;
        int newest_kept = 0;
        for (const std::string& file : finishes_below(folder.path() / "state")) {
            const int number = state_at(file);
            if (number < 0) ++broken;
            newest_kept = std::max(newest_kept, number);
        }
        if (newest_kept < kept) ++lost;
        next += 2;
        fs::remove_all(folder.path() / "state");
    }
    CHECK(broken == 0);
    CHECK(lost == 0);
    CHECK(saved > kills / 2);
}

}  // namespace

TEST_CASE("kills in the middle of saving leave no broken file, and lose nothing that was saved") {
    kill_while_saving(150);
}

TEST_CASE("a thousand kills leave none either", "[.everything]") { kill_while_saving(1000); }

TEST_CASE("saves as a power cut might meet them", "[.power-cut]") {
    // Run by the next test, with tests/power/unsynced.c before the C library.
    const std::string folder = qEnvironmentVariable("LACQUER_UNSYNCED_FOLDER").toStdString();
    const StateHome state(folder + "/home/state");
    const auto mark = [list = qEnvironmentVariable("LACQUER_UNSYNCED_LIST").toStdString()](const std::string& words) {
        std::ofstream(list, std::ios::app) << words << '\n';
    };
    for (int number = 2; number <= 5; ++number) {
        const std::string path = folder + "/strike.lacquer";
        const Finish now = state_of(test::demo_finish(), number);
        REQUIRE(keep_for_recovery(path, now));
        mark("kept " + std::to_string(number));
        REQUIRE(save_finish(path, now));
        mark("saved " + std::to_string(number));
    }
}

TEST_CASE("a power cut at any moment leaves the old finish or the new one, and what was kept") {
    if (!may_be_loaded_before) return;
    const test::TemporaryFolder folder;
    const std::string path = folder.file("disk/strike.lacquer");
    fs::create_directories(folder.file("disk"));
    REQUIRE(save_finish(path, state_of(test::demo_finish(), 1)));
    test::UnsyncedDisk disk({folder.file("disk")}, {{path, test::read_file(path)}});
    const std::string program = test::program_folder();
    const test::CommandResult run =
        test::run_command("LD_PRELOAD='" + program + "/lacquer-unsynced.so' LACQUER_UNSYNCED_FOLDER='" +
                          folder.file("disk") + "' LACQUER_UNSYNCED_LIST='" + folder.file("list") + "' '" + program +
                          "/lacquer-desktop-tests' 'saves as a power cut might meet them'");
    INFO(run.output);
    REQUIRE(run.code == 0);
    std::ifstream list(folder.file("list"));
    int saved = 1;
    int kept = 0;
    int events = 0;
    int wrong = 0;
    for (std::string line; std::getline(list, line); ++events) {
        if (line.starts_with("saved ")) {
            saved = std::stoi(line.substr(6));
        } else if (line.starts_with("kept ")) {
            kept = std::stoi(line.substr(5));
        } else {
            disk.take(line);
        }
        for (const test::Left left : {test::Left::synced, test::Left::names, test::Left::all}) {
            int newest_kept = 0;
            for (const auto& [name, bytes] : disk.after_power_cut(left)) {
                if (!name.ends_with(".lacquer")) continue;
                const int number = state_in(bytes);
                const bool is_own = name == path;
                if (number < 0 || (is_own && number < saved)) ++wrong;
                if (!is_own) newest_kept = std::max(newest_kept, number);
            }
            if (!disk.after_power_cut(left).contains(path)) ++wrong;
            if (newest_kept < kept) ++wrong;
            INFO(events << ": " << line.substr(0, 120));
            CHECK(wrong == 0);
        }
    }
    CHECK(saved == 5);
    CHECK(events > 40);
}

TEST_CASE("a model of a disk that forgets is one: without syncing, a save is found broken") {
    test::UnsyncedDisk disk({"/d"}, {{"/d/a", "old"}});
    disk.take("open 7 1 /d/.new");
    disk.take("write 7 6e6577");
    disk.take("rename /d/.new /d/a");
    CHECK(disk.after_power_cut(test::Left::synced).at("/d/a") == "old");
    CHECK(disk.after_power_cut(test::Left::names).at("/d/a").empty());
    CHECK(disk.after_power_cut(test::Left::all).at("/d/a") == "new");
    disk.take("sync 7");
    CHECK(disk.after_power_cut(test::Left::names).at("/d/a") == "new");
    CHECK(disk.after_power_cut(test::Left::synced).at("/d/a") == "old");
    disk.take("folder /d");
    CHECK(disk.after_power_cut(test::Left::synced).at("/d/a") == "new");
    disk.take("mkdir /d/b");
    disk.take("open 8 1 /d/b/c");
    disk.take("write 8 63");
    disk.take("sync 8");
    disk.take("folder /d/b");
    CHECK_FALSE(disk.after_power_cut(test::Left::synced).contains("/d/b/c"));
    disk.take("folder /d");
    CHECK(disk.after_power_cut(test::Left::synced).at("/d/b/c") == "c");
}

TEST_CASE("a disk that is full, or a folder that goes away, leaves the window with its work and says so") {
    const test::TemporaryFolder folder;
    const std::string own = folder.file("disk/own.lacquer");
    fs::create_directories(folder.file("disk"));
    REQUIRE(save_finish(own, state_of(test::demo_finish(), 1)));
    BenchWindow bench(own);
    Finish changed = bench.document().finish();
    changed.name = "v2";
    bench.document().edit(changed, QStringLiteral("a name"));
    {
        // No file may grow: what a full disk looks like to whoever writes (EFBIG in place of ENOSPC).
        struct sigaction before {};
        struct sigaction ignore {};
        ignore.sa_handler = SIG_IGN;
        ::sigaction(SIGXFSZ, &ignore, &before);
        rlimit limit{};
        REQUIRE(::getrlimit(RLIMIT_FSIZE, &limit) == 0);
        rlimit small = limit;
        small.rlim_cur = 256;
        REQUIRE(::setrlimit(RLIMIT_FSIZE, &small) == 0);
        const bool saved = bench.document().save();
        ::setrlimit(RLIMIT_FSIZE, &limit);
        ::sigaction(SIGXFSZ, &before, nullptr);
        CHECK_FALSE(saved);
    }
    CHECK(state_at(own) == 1);
    CHECK(bench.document().edited());
    CHECK(bench.last_said.contains(QStringLiteral("cannot be written")));
    for (const auto& entry : fs::directory_iterator(folder.path() / "disk"))
        CHECK(entry.path().filename() == "own.lacquer");

    fs::rename(folder.file("disk"), folder.file("gone"));
    bench.changed_on_disk = ChangedOnDisk::replace;
    CHECK_FALSE(bench.document().save());
    CHECK(bench.document().edited());
    fs::rename(folder.file("gone"), folder.file("disk"));
    CHECK(bench.document().save());
    CHECK(state_at(own) == 2);
}

TEST_CASE("a home that cannot be written is told once, and the work goes on") {
    const test::TemporaryFolder folder;
    // In the place of the folder stands a file: root may write anywhere, so rights would prove nothing.
    test::write_file(folder.file("state"), "");
    const StateHome state(folder.file("state"));
    BenchWindow bench(test::demo_path());
    int told = 0;
    QObject::connect(&bench.document(), &Document::said, [&](const QString& words) {
        if (words.contains(QStringLiteral("cannot be kept"))) ++told;
    });
    for (int i = 2; i < 4; ++i) {
        bench.document().edit(state_of(bench.document().finish(), i), QStringLiteral("a name"));
        bench.wait_for([&] { return told > 0; });
    }
    CHECK(told == 1);
    CHECK(bench.document().finish().name == "v3");
}

TEST_CASE("two Lacquers on one finish tell of each other, and neither overwrites what the other has saved") {
    const test::TemporaryFolder folder;
    const std::string own = folder.file("own.lacquer");
    REQUIRE(save_finish(own, state_of(test::demo_finish(), 1)));
    // The other has it open by another name, until it is let go of.
    fs::create_symlink(own, folder.file("link.lacquer"));
    std::array<int, 2> ready{};
    REQUIRE(::pipe(ready.data()) == 0);
    const pid_t other = ::fork();
    if (other == 0) {
        (void)mark_open(folder.file("link.lacquer"));
        char done = 1;
        (void)!::write(ready[1], &done, 1);
        for (;;) ::pause();
    }
    char done = 0;
    REQUIRE(::read(ready[0], &done, 1) == 1);
    BenchWindow bench(own);
    bench.wait_for([&] { return bench.document().notices().unseen().has_value(); });
    CHECK(bench.document().notices().unseen()->words.contains(QStringLiteral("open in another Lacquer")));

    // It saves; what is saved here afterwards is asked about.
    REQUIRE(save_finish(own, state_of(test::demo_finish(), 5)));
    bench.document().edit(state_of(bench.document().finish(), 2), QStringLiteral("a name"));
    bench.changed_on_disk = ChangedOnDisk::stay;
    CHECK_FALSE(bench.document().save());
    CHECK(bench.questions == 1);
    CHECK(state_at(own) == 5);

    ::kill(other, SIGKILL);
    REQUIRE(::waitpid(other, nullptr, 0) == other);
    CHECK_FALSE(mark_open(own));
    unmark_open(own);
    BenchWindow alone(own);
    alone.settle_disk();
    CHECK_FALSE(alone.document().notices().unseen().has_value());
}
