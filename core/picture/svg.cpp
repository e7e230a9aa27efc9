#include "core/picture/svg.h"
#include "core/base/module.h"

#include <fcntl.h>
#include <poll.h>
#include <spawn.h>
#include <sys/mman.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <chrono>
#include <csignal>
#include <cstring>
#include <filesystem>
#include <optional>
#include <utility>

#include "core/base/descriptor.h"
#include "core/base/file.h"
#include "core/picture/svg_process.h"
#include "core/picture/transfer.h"

extern char** environ;

namespace lacquer {

namespace {

namespace fs = std::filesystem;

constexpr std::size_t longest_text = std::size_t{32} * 1024 * 1024;
constexpr int look_up_every_ms = 40;

// The program at work. It is ended when nobody holds this any more.
class Drawing {
public:
    ~Drawing() { end(); }
    Drawing() = default;
    Drawing(const Drawing&) = delete;
    Drawing& operator=(const Drawing&) = delete;

    bool start(const std::string& text) {
        const Descriptor input(memfd_create("drawing", MFD_CLOEXEC));
        if (input.get() < 0 || ::write(input.get(), text.data(), text.size()) != static_cast<ssize_t>(text.size()) ||
            ::lseek(input.get(), 0, SEEK_SET) != 0)
            return false;
        std::array<int, 2> ends{};
        if (::pipe2(ends.data(), O_CLOEXEC) != 0) return false;
        output_ = Descriptor(ends[0]);
        const Descriptor far_end(ends[1]);
        posix_spawn_file_actions_t actions{};
        posix_spawn_file_actions_init(&actions);
        posix_spawn_file_actions_adddup2(&actions, input.get(), STDIN_FILENO);
        posix_spawn_file_actions_adddup2(&actions, far_end.get(), STDOUT_FILENO);
        std::string path = part_of_program(svg_program);
        std::array<char*, 2> words = {path.data(), nullptr};
        const int failed = posix_spawn(&child_, path.c_str(), &actions, nullptr, words.data(), environ);
        posix_spawn_file_actions_destroy(&actions);
        if (failed != 0) child_ = -1;
        return failed == 0;
    }

    // Fills the bytes; false at the end of what comes, or when it is called off.
    bool take(void* to, std::size_t size, const ReadWatch& watch) {
        char* at = static_cast<char*>(to);
        while (size > 0) {
            pollfd wait{output_.get(), POLLIN, 0};
            const int ready = ::poll(&wait, 1, look_up_every_ms);
            if (!watch(0.5)) return false;
            if (std::chrono::steady_clock::now() > give_up_) {
                late_ = true;
                return false;
            }
            if (ready <= 0) continue;
            const ssize_t count = ::read(output_.get(), at, size);
            if (count < 0 && errno == EINTR) continue;
            if (count <= 0) return false;
            at += count;
            size -= static_cast<std::size_t>(count);
        }
        return true;
    }

    bool late() const { return late_; }

private:
    void end() {
        if (child_ <= 0) return;
        ::kill(child_, SIGKILL);
        while (::waitpid(child_, nullptr, 0) < 0 && errno == EINTR) {
        }
    }

    pid_t child_ = -1;
    Descriptor output_;
    bool late_ = false;
    std::chrono::steady_clock::time_point give_up_ =
        std::chrono::steady_clock::now() + std::chrono::seconds(svg_patience_seconds);
};

void put_row(const std::vector<std::uint32_t>& row, PictureMeaning meaning, float* to) {
    for (const std::uint32_t pixel : row) {
        const auto part = [&](unsigned shift) { return static_cast<double>(pixel >> shift & 255U) / 255; };
        const double opacity = part(24);
        for (unsigned c = 0; c < 3; ++c) {
            const double straight = opacity > 0 ? std::min(1.0, part(16 - 8 * c) / opacity) : 0;
            to[c] = static_cast<float>(meaning == PictureMeaning::data ? straight : srgb_decode(straight));
        }
        to[3] = static_cast<float>(opacity);
        to += 4;
    }
}

}  // namespace

bool is_svg(const std::string& path) { return path.ends_with(".svg") || path.ends_with(".SVG"); }

PictureRead read_svg(const std::string& path, PictureMeaning meaning, const ReadWatch& watch, Picture& picture,
                     std::string& error) {
    Result<std::string> text = read_whole_file(path, longest_text);
    if (!text) {
        error = text.fault().message;
        return PictureRead::unreadable;
    }
    if (!watch(0)) return PictureRead::unreadable;
    Drawing drawing;
    if (!drawing.start(*text)) {
        error = std::string("the program that draws SVG did not start: ") + std::strerror(errno);
        return PictureRead::unreadable;
    }
    const auto broken_off = [&] {
        error = drawing.late() ? "drawing it takes too long" : "drawing it went wrong";
        return PictureRead::unreadable;
    };
    SvgAnswer answer;
    if (!drawing.take(&answer, sizeof(answer), watch)) return broken_off();
    if (answer.kind != SvgAnswer::drawn) {
        error.resize(std::min<std::size_t>(answer.text, 4096));
        if (!drawing.take(error.data(), error.size(), watch)) return broken_off();
        return answer.kind == SvgAnswer::too_large ? PictureRead::too_large : PictureRead::unreadable;
    }
    if (!is_drawable_size(answer.width, answer.height)) return broken_off();
    if (!watch.admits(answer.width, answer.height)) return PictureRead::unreadable;
    Picture drawn(answer.width, answer.height, 4);
    std::vector<std::uint32_t> row(static_cast<std::size_t>(answer.width));
    for (int y = 0; y < answer.height; ++y) {
        if (!drawing.take(row.data(), row.size() * sizeof(row[0]), watch)) return broken_off();
        put_row(row, meaning, drawn.at(0, y));
    }
    picture = std::move(drawn);
    return PictureRead::done;
}

}  // namespace lacquer
