// lacquer-hand: a hand that never tires. Does thousands of things to the window, drawn by lot, on every demo in turn,
// each in a process of its own; what brings one down, hangs it or loses work is cut down to the fewest acts that do.
//
//   lacquer-hand [--seconds 120] [--seed 1] [--acts 1500] [--demo NAME] [--replay FILE] [--aloud]
//   lacquer-hand --day [--seed 1]   one window all day long: whether it takes more memory in the evening
#include <malloc.h>
#include <signal.h>
#include <sys/wait.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <QApplication>
#include <algorithm>
#include <chrono>
#include <cstdio>
#include <filesystem>
#include <fstream>
#include <iostream>
#include <sstream>
#include <thread>

#include "desktop/kit/plurals.h"
#include "desktop/kit/theme.h"
#include "tests/desktop/hand/acts.h"
#include "tests/desktop/hand/hand.h"

namespace {

namespace fs = std::filesystem;
using namespace lacquer;
using namespace lacquer::test;

constexpr int hung_after_seconds = 60;

struct Options {
    double seconds = 120;
    std::uint64_t seed = 1;
    std::size_t acts = 1500;
    std::string demo;
    std::string replay;
    bool aloud = false;
    bool day = false;
};

// A hand that does something every two seconds does some 15,000 things in a day; the first round, in which caches fill,
// is not one of it.
constexpr std::size_t rounds_of_day = 4;
constexpr std::size_t acts_on_each = 160;
constexpr double most_growth = 0.05;
// So little that it is full after one round, as every copy of a demo's pictures is another file.
constexpr std::size_t kept_in_a_day = std::size_t{64} * 1024 * 1024;

double resident_megabytes() {
    ::malloc_trim(0);
    std::ifstream pages("/proc/self/statm");
    double all = 0;
    double resident = 0;
    pages >> all >> resident;
    return resident * static_cast<double>(::sysconf(_SC_PAGESIZE)) / 1e6;
}

std::vector<std::string> demos(const std::string& only) {
    std::vector<std::string> found;
    for (const auto& entry : fs::directory_iterator(std::string(LACQUER_SOURCE) + "/demo/finishes")) {
        if (entry.path().extension() == ".lacquer" && (only.empty() || entry.path().stem() == only))
            found.push_back(entry.path().string());
    }
    std::sort(found.begin(), found.end());
    return found;
}

std::vector<Act> read_acts(const std::string& path) {
    std::ifstream file(path);
    std::vector<Act> acts;
    for (std::string line; std::getline(file, line);) {
        if (const auto act = act_of(line)) acts.push_back(*act);
    }
    return acts;
}

void write_acts(const std::string& path, const std::vector<Act>& acts) {
    std::ofstream file(path);
    for (const Act& act : acts) file << to_line(act) << '\n';
}

// In the child: all acts, with the number of each on standard output before it is done.
int replay(const Options& options, int argc, char** argv) {
    const TemporaryFolder state;
    for (const char* home : {"XDG_STATE_HOME", "XDG_RUNTIME_DIR", "XDG_CONFIG_HOME", "XDG_DATA_HOME", "HOME"})
        setenv(home, state.path().c_str(), 1);
    theme::prepare_fonts();
    QApplication application(argc, argv);
    QApplication::setQuitOnLastWindowClosed(false);
    theme::apply(application);
    EnglishPlurals plurals;
    QCoreApplication::installTranslator(&plurals);
    DrawingLimits limits;
    if (options.day) limits.pictures.most = kept_in_a_day;
    Hand hand(options.demo, read_acts(options.replay), limits);
    hand.before = [](std::size_t act) {
        std::printf("%zu\n", act);
        std::fflush(stdout);
        alarm(hung_after_seconds);
    };
    if (options.day) {
        hand.day_on = demos({});
        hand.next_of_day_after = acts_on_each;
        hand.round_begins = [] { std::fprintf(stderr, "%.1f\n", resident_megabytes()); };
    }
    // Not quit: that asks the window first, which may refuse.
    hand.over = [] { QCoreApplication::exit(0); };
    QApplication::exec();
    alarm(0);
    if (hand.trouble().empty()) return 0;
    std::fprintf(stderr, "%s\n", hand.trouble().c_str());
    return 3;
}

struct Ended {
    int status = 0;
    std::size_t last = 0;  ///< act
    std::string told;      ///< on standard error

    bool well() const { return WIFEXITED(status) && WEXITSTATUS(status) == 0; }
    std::string words() const {
        if (WIFSIGNALED(status)) return WTERMSIG(status) == SIGALRM ? "it hung" : strsignal(WTERMSIG(status));
        return "exit code " + std::to_string(WEXITSTATUS(status));
    }
};

Ended run(const std::string& demo, const std::vector<Act>& acts, const fs::path& folder, bool day = false) {
    const std::string list = (folder / "acts").string();
    const std::string out = (folder / "out").string();
    const std::string told = (folder / "told").string();
    write_acts(list, acts);
    std::fflush(stdout);
    const pid_t child = ::fork();
    if (child == 0) {
        if (std::freopen(out.c_str(), "w", stdout) == nullptr || std::freopen(told.c_str(), "w", stderr) == nullptr)
            _exit(1);
        ::execl("/proc/self/exe", "lacquer-hand", "--replay", list.c_str(), "--demo", demo.c_str(),
                day ? "--day" : nullptr, nullptr);
        _exit(1);
    }
    Ended ended;
    ::waitpid(child, &ended.status, 0);
    std::ifstream lines(out);
    for (std::string line; std::getline(lines, line);) ended.last = static_cast<std::size_t>(std::stoul(line));
    ended.told = read_file(told);
    return ended;
}

// Leaves out as much as can be left out, half of it first: Zeller's delta debugging, without its complements.
std::vector<Act> shrunk(const std::string& demo, std::vector<Act> acts, const fs::path& folder) {
    for (std::size_t part = (acts.size() + 1) / 2; part > 0; part = part == 1 ? 0 : (part + 1) / 2) {
        for (std::size_t from = 0; from < acts.size() && acts.size() > 1;) {
            std::vector<Act> fewer = acts;
            const auto begin = fewer.begin() + static_cast<std::ptrdiff_t>(from);
            fewer.erase(begin, begin + static_cast<std::ptrdiff_t>(std::min(part, acts.size() - from)));
            if (run(demo, fewer, folder).well()) {
                from += part;
            } else {
                acts = std::move(fewer);
            }
        }
    }
    return acts;
}

int tire(const Options& options) {
    const TemporaryFolder folder;
    const auto begin = std::chrono::steady_clock::now();
    const std::vector<std::string> on = demos(options.demo);
    std::size_t done = 0;
    std::uint64_t seed = options.seed;
    const auto seconds = [&] {
        return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    };
    for (std::size_t i = 0; seconds() < options.seconds && !on.empty(); ++i, ++seed) {
        const std::string& demo = on[i % on.size()];
        std::vector<Act> acts = acts_of(seed, options.acts);
        const Ended ended = run(demo, acts, folder.path());
        done += ended.last + 1;
        if (options.aloud) {
            std::printf("seed %llu, %s: %zu acts, %.0f s in all\n", static_cast<unsigned long long>(seed), demo.c_str(),
                        ended.last + 1, seconds());
            std::fflush(stdout);
        }
        if (ended.well()) continue;
        std::printf("%s, seed %llu, act %zu: %s\n%s\n", demo.c_str(), static_cast<unsigned long long>(seed), ended.last,
                    ended.words().c_str(), ended.told.c_str());
        acts.resize(std::min(acts.size(), ended.last + 1));
        acts = shrunk(demo, std::move(acts), folder.path());
        std::printf("the shortest that was found, for --replay with --demo %s:\n", demo.c_str());
        for (const Act& act : acts) std::printf("  %s\n", to_line(act).c_str());
        return 1;
    }
    std::printf("%zu acts on %zu demos in %.0f s, seeds %llu to %llu: nothing found\n", done, on.size(), seconds(),
                static_cast<unsigned long long>(options.seed), static_cast<unsigned long long>(seed - 1));
    return 0;
}

int spend_day(const Options& options) {
    const TemporaryFolder folder;
    const std::vector<std::string> on = demos({});
    // One more act: at it the last round would go on, and its memory is told.
    const std::size_t acts = rounds_of_day * on.size() * acts_on_each + 1;
    const Ended ended = run(on.front(), acts_of(options.seed, acts), folder.path(), true);
    std::istringstream told(ended.told);
    std::vector<double> megabytes;
    for (std::string line; std::getline(told, line);) {
        if (!line.empty() && line.find_first_not_of("0123456789.") == std::string::npos)
            megabytes.push_back(std::stod(line));
    }
    for (const double now : megabytes) std::printf("%.1f MB\n", now);
    if (!ended.well() || megabytes.size() != rounds_of_day + 1) {
        std::printf("seed %llu, act %zu: %s\n%s\n", static_cast<unsigned long long>(options.seed), ended.last,
                    ended.words().c_str(), ended.told.c_str());
        return 1;
    }
    const double growth = megabytes.back() / megabytes[1] - 1;
    std::printf("%zu acts: %+.1f %% between the first round's end and the last's\n", acts, growth * 100);
    return growth < most_growth ? 0 : 1;
}

}  // namespace

int main(int argc, char** argv) {
    Options options;
    CLI::App words{"a hand that never tires"};
    words.add_option("--seconds", options.seconds, "how long");
    words.add_option("--seed", options.seed, "of the first run; each further one has the next");
    words.add_option("--acts", options.acts, "in a run");
    words.add_option("--demo", options.demo, "one demo only");
    words.add_flag("--aloud", options.aloud, "tells of each run");
    words.add_option("--replay", options.replay, "does the acts of a file, once");
    words.add_flag("--day", options.day, "one window all day long, for its memory");
    CLI11_PARSE(words, argc, argv);
    if (!options.replay.empty()) return replay(options, argc, argv);
    return options.day ? spend_day(options) : tire(options);
}
