// Picture files are read by processes of their own, with walls around them; what happens to one of them is a fault.
#include <fcntl.h>
#include <signal.h>
#include <sys/mman.h>
#include <sys/socket.h>
#include <sys/wait.h>
#include <unistd.h>

#include <atomic>
#include <catch2/catch.hpp>
#include <chrono>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <random>
#include <thread>

#include "core/picture/confine.h"
#include "core/picture/files.h"
#include "core/picture/packed.h"
#include "core/picture/reader.h"
#include "core/picture/reader_lists.h"
#include "core/picture/reading.h"
#include "tests/support/temporary.h"

using namespace lacquer;

namespace {

#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__)
constexpr bool has_walls = false;
#else
constexpr bool has_walls = true;
#endif

struct Process {
    pid_t number = 0;
    pid_t parent = 0;
    std::string program;
    char state = 'X';
};

std::vector<Process> running() {
    std::vector<Process> found;
    std::error_code code;
    for (const auto& entry : std::filesystem::directory_iterator("/proc", code)) {
        std::ifstream file(entry.path() / "stat");
        std::string line;
        if (!std::getline(file, line)) continue;
        const std::size_t open = line.find('(');
        const std::size_t close = line.rfind(')');
        if (open == std::string::npos || close == std::string::npos) continue;
        Process process;
        process.number = std::atoi(line.c_str());
        process.program = line.substr(open + 1, close - open - 1);
        process.state = line[close + 2];
        process.parent = std::atoi(line.c_str() + close + 3);
        found.push_back(process);
    }
    return found;
}

// Those that this process has started, or that they have: the program, and its readers.
std::vector<pid_t> of_parent(pid_t parent) {
    std::vector<pid_t> found;
    for (const Process& process : running()) {
        if (process.parent == parent && process.program == "lacquer-picture" && process.state != 'Z')
            found.push_back(process.number);
    }
    return found;
}

std::vector<pid_t> readers() {
    std::vector<pid_t> all;
    for (const pid_t program : of_parent(getpid())) {
        for (const pid_t reader : of_parent(program)) all.push_back(reader);
    }
    return all;
}

template <class Condition>
bool comes_true(const Condition& condition) {
    const auto end = std::chrono::steady_clock::now() + std::chrono::seconds(10);
    while (!condition()) {
        if (std::chrono::steady_clock::now() > end) return false;
        std::this_thread::yield();
    }
    return true;
}

// One that takes a while, so that there is something to be interrupted.
std::string large_picture(const test::TemporaryFolder& folder) {
    Image8 image;
    image.width = 4096;
    image.height = 4096;
    image.data.resize(std::size_t{4} * 4096 * 4096);
    for (std::size_t i = 0; i < image.data.size(); ++i) image.data[i] = static_cast<std::uint8_t>(i * 7 + i / 4096);
    std::string path = folder.file("sea chart.png");
    REQUIRE(write_png(path, image));
    return path;
}

// What a process with walls around it can do: a bit for each of these.
enum Could : unsigned {
    read_named = 1,
    read_other = 2,
    write_file = 4,
    reach_network = 8,
    start_process = 16,
    start_program = 32,
    make_code = 64,
    hold_memory = 128
};

unsigned tried(const std::string& named, const std::string& other) {
    unsigned could = 0;
    const auto opens = [](const std::string& path, int how) {
        const int file = ::open(path.c_str(), how, 0600);
        if (file >= 0) ::close(file);
        return file >= 0;
    };
    if (opens(named, O_RDONLY)) could |= read_named;
    if (opens(other, O_RDONLY)) could |= read_other;
    if (opens(named + ".new", O_WRONLY | O_CREAT) || opens(named, O_WRONLY)) could |= write_file;
    if (::socket(AF_INET, SOCK_STREAM, 0) >= 0) could |= reach_network;
    char* const words[] = {const_cast<char*>("true"), nullptr};
    char* const none[] = {nullptr};
    const pid_t child = ::fork();
    if (child == 0) _exit(::execve("/bin/true", words, none));
    int status = 1;
    if (child > 0) could |= start_process;
    if (child > 0 && ::waitpid(child, &status, 0) == child && status == 0) could |= start_program;
    // It comes back only where it fails.
    if (child < 0 && ::execve("/bin/true", words, none) == 0) could |= start_program;
    void* code = ::mmap(nullptr, 4096, PROT_READ | PROT_WRITE | PROT_EXEC, MAP_PRIVATE | MAP_ANONYMOUS, -1, 0);
    if (code != MAP_FAILED) could |= make_code;
    void* much = ::mmap(nullptr, std::size_t{2} << 30U, PROT_READ | PROT_WRITE,
                        MAP_PRIVATE | MAP_ANONYMOUS | MAP_NORESERVE, -1, 0);
    if (much != MAP_FAILED) could |= hold_memory;
    return could;
}

}  // namespace

TEST_CASE("walls leave a process its own file, and nothing else") {
    const test::TemporaryFolder folder;
    const std::string named = folder.file("chart.png");
    const std::string other = folder.file("letters.txt");
    test::write_file(named, "a");
    test::write_file(other, "b");
    std::array<int, 2> ends{};
    REQUIRE(::pipe(ends.data()) == 0);
    const Confinement confinement;
    const pid_t child = ::fork();
    if (child == 0) {
        Allowed allowed;
        allowed.readable = {named};
        allowed.memory = std::uint64_t{1} << 30U;
        const Walls walls = confinement.put_around_this(allowed);
        const unsigned told[2] = {tried(named, other), (walls.files ? 1U : 0U) | (walls.calls ? 2U : 0U)};
        _exit(::write(ends[1], told, sizeof(told)) == sizeof(told) ? 0 : 1);
    }
    ::close(ends[1]);
    unsigned told[2] = {0, 0};
    REQUIRE(::read(ends[0], told, sizeof(told)) == sizeof(told));
    ::close(ends[0]);
    int status = 0;
    REQUIRE(::waitpid(child, &status, 0) == child);
    if (!has_walls) return;
    CHECK((told[1] & 2U) != 0);
    const bool has_landlock = (told[1] & 1U) != 0;
    if (!has_landlock) WARN("this system has no Landlock");
    CHECK(told[0] == (has_landlock ? read_named : read_named | read_other | write_file));
    std::string error;
    const Walls stand = reader_walls(error);
    CHECK(error.empty());
    CHECK(stand.calls);
    CHECK(stand.memory);
    CHECK(stand.files == has_landlock);
}

TEST_CASE("a reader that is shot down is a fault with the file's name, and the next picture is read") {
    const test::TemporaryFolder folder;
    const std::string path = large_picture(folder);
    for (const int shot : {SIGSEGV, SIGKILL, SIGABRT}) {
        bool done = false;
        const auto shoot = [&](double /*share*/) {
            for (const pid_t reader : done ? std::vector<pid_t>() : readers()) {
                ::kill(reader, shot);
                done = true;
            }
            return true;
        };
        const auto read = read_picture_watched(path, PictureMeaning::colour, 0, shoot);
        REQUIRE(done);
        REQUIRE_FALSE(read);
        CHECK(read.fault().id == "picture.unreadable");
        CHECK(read.fault().place.where == path);
        CHECK(read.fault().message.find("its reader has stopped") != std::string::npos);
    }
    const auto whole = read_picture(path, PictureMeaning::data);
    REQUIRE(whole);
    CHECK(whole->at(5, 0)[0] == Approx(5 * 4 * 7 % 256 / 255.0));
}

TEST_CASE("the program that reads pictures is started again when it has gone") {
    const test::TemporaryFolder folder;
    test::write_file(folder.file("a.svg"), "");
    Image8 image{1, 1, {10, 20, 30, 255}};
    REQUIRE(write_png(folder.file("a.png"), image));
    REQUIRE(read_picture(folder.file("a.png"), PictureMeaning::data));
    for (const pid_t program : of_parent(getpid())) ::kill(program, SIGKILL);
    REQUIRE(comes_true([] { return of_parent(getpid()).empty(); }));
    const auto again = read_picture(folder.file("a.png"), PictureMeaning::data);
    if (!again) FAIL(again.fault().message);
    CHECK(again->at(0, 0)[2] == Approx(30 / 255.0));
}

TEST_CASE("reading that is called off ends its reader") {
    const test::TemporaryFolder folder;
    const std::string path = large_picture(folder);
    int asked = 0;
    const auto read =
        read_picture_watched(path, PictureMeaning::colour, 0, [&](double share) { return share <= 0 || ++asked < 2; });
    REQUIRE_FALSE(read);
    CHECK(read.fault().id == "picture.stopped");
    CHECK(comes_true([] { return readers().empty(); }));
}

TEST_CASE("many threads read pictures at once, each its own") {
    const test::TemporaryFolder folder;
    for (std::uint8_t i = 0; i < 8; ++i) {
        const Image8 image{1, 1, {i, 0, 0, 255}};
        REQUIRE(write_png(folder.file(std::to_string(i) + ".png"), image));
    }
    std::atomic<int> wrong = 0;
    std::vector<std::thread> threads;
    for (int i = 0; i < 8; ++i) {
        threads.emplace_back([&, i] {
            for (int k = 0; k < 12; ++k) {
                const auto read = read_picture(folder.file(std::to_string(i) + ".png"), PictureMeaning::data);
                if (!read || std::abs(read->data[0] - static_cast<float>(i) / 255) > 1e-6F) ++wrong;
            }
        });
    }
    for (std::thread& thread : threads) thread.join();
    CHECK(wrong == 0);
}

TEST_CASE("what a reader says is believed only within bounds") {
    PictureFrames frames;
    frames.count = 2;
    frames.ends = {0.5, 1.25};
    const auto same = unpacked_frames(packed(frames));
    REQUIRE(same);
    CHECK(same->count == 2);
    CHECK(same->ends == frames.ends);
    const std::vector<PictureLayer> layers = {{"depth", {"Z"}, 8, 4}, {"", {"R", "G"}, 8, 4}};
    const auto named = unpacked_layers(packed(layers));
    REQUIRE(named);
    CHECK((*named)[1].channels == layers[1].channels);
    CHECK((*named)[0].name == "depth");

    const auto packed_frames = [](std::int32_t count, std::uint32_t ends, std::initializer_list<double> times) {
        Packer packer;
        packer.number(count).number(ends);
        for (const double time : times) packer.number(time);
        return packer.bytes();
    };
    CHECK_FALSE(unpacked_frames(packed_frames(0, 0, {})));
    CHECK_FALSE(unpacked_frames(packed_frames(-1, 0, {})));
    CHECK_FALSE(unpacked_frames(packed_frames(2, 4'000'000'000U, {})));
    CHECK_FALSE(unpacked_frames(packed_frames(2, 1, {1.0})));
    CHECK_FALSE(unpacked_frames(packed_frames(2, 2, {1.0, 0.5})));
    CHECK_FALSE(unpacked_frames(packed_frames(1, 1, {std::nan("")})));
    CHECK_FALSE(unpacked_frames(packed_frames(1, 1, {1.0, 2.0})));
    CHECK_FALSE(unpacked_layers(packed(std::vector<PictureLayer>{{"a", {}, 0, 4}})));
    CHECK_FALSE(unpacked_layers(packed(std::vector<PictureLayer>{{"a", {}, 70000, 4}})));
    CHECK_FALSE(unpacked_walls("\1\1"));

    // Any byte of a good list changed, and any length cut: never more than nothing.
    std::mt19937 random(1);  // NOLINT(cert-msc51-cpp): the same lists each time
    const std::string good = packed(layers);
    for (std::size_t cut = 0; cut < good.size(); ++cut) CHECK_FALSE(unpacked_layers(good.substr(0, cut)));
    for (int i = 0; i < 20'000; ++i) {
        std::string bad = good;
        bad[random() % bad.size()] = static_cast<char>(random());
        const auto found = unpacked_layers(bad);
        if (found) CHECK(found->size() <= bad.size());
    }
}
