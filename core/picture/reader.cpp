#include "core/picture/reader.h"

#include <poll.h>
#include <spawn.h>
#include <sys/socket.h>
#include <sys/wait.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <chrono>
#include <cstring>
#include <filesystem>
#include <mutex>
#include <optional>
#include <system_error>
#include <utility>

#include "core/base/descriptor.h"
#include "core/base/module.h"
#include "core/picture/coded.h"
#include "core/picture/reader_lists.h"
#include "core/picture/reader_process.h"

extern char** environ;

namespace lacquer {

namespace {

constexpr int look_up_every_ms = 40;
/// Longest that a reader may be silent.
constexpr auto patience = std::chrono::seconds(30);
/// Told in between, as nothing at all means that the reading begins.
constexpr double begun = 1e-6;

bool never_stopped(double /*share*/) { return true; }

// The program at work, which ends when nobody has the other end of `control_` any more.
class Program {
public:
    void begin() {
        const std::lock_guard lock(mutex_);
        std::string error;
        if (control_.get() < 0) (void)start(error);
    }

    // Sends what is asked, with the socket to answer on. Starts the program if need be, anew where it has gone.
    bool ask(const ReaderAsk& ask, const std::string& path, const std::string& layer, int answer, std::string& error) {
        const std::lock_guard lock(mutex_);
        for (int tries = 0; tries < 2; ++tries) {
            if (control_.get() < 0 && !start(error)) return false;
            if (send(ask, path, layer, answer)) return true;
            error = std::string("the program that reads pictures does not listen: ") + std::strerror(errno);
            control_ = Descriptor();
            (void)::waitpid(std::exchange(process_, -1), nullptr, WNOHANG);
        }
        return false;
    }

    // Whether it has ended, and whoever it was reading for gets nothing.
    bool has_gone() {
        const std::lock_guard lock(mutex_);
        pollfd looked{control_.get(), 0, 0};
        return control_.get() < 0 || (::poll(&looked, 1, 0) > 0 && (looked.revents & (POLLHUP | POLLERR)) != 0);
    }

private:
    bool start(std::string& error) {
        std::array<int, 2> ends{};
        if (::socketpair(AF_UNIX, SOCK_SEQPACKET | SOCK_CLOEXEC, 0, ends.data()) != 0) {
            error = std::strerror(errno);
            return false;
        }
        Descriptor own(ends[0]);
        const Descriptor other(ends[1]);
        posix_spawn_file_actions_t actions{};
        posix_spawn_file_actions_init(&actions);
        posix_spawn_file_actions_adddup2(&actions, other.get(), STDIN_FILENO);
        std::string path = part_of_program(reader_program);
        std::array<char*, 2> words = {path.data(), nullptr};
        const int failed = posix_spawn(&process_, path.c_str(), &actions, nullptr, words.data(), environ);
        posix_spawn_file_actions_destroy(&actions);
        if (failed != 0) {
            error = "the program that reads pictures did not start: " + std::string(std::strerror(failed));
            return false;
        }
        control_ = std::move(own);
        return true;
    }

    bool send(const ReaderAsk& ask, const std::string& path, const std::string& layer, int answer) const {
        iovec parts[] = {{const_cast<ReaderAsk*>(&ask), sizeof(ask)},
                         {const_cast<char*>(path.data()), path.size()},
                         {const_cast<char*>(layer.data()), layer.size()}};
        alignas(cmsghdr) std::array<char, CMSG_SPACE(sizeof(int))> beside{};
        msghdr message{};
        message.msg_iov = parts;
        message.msg_iovlen = std::size(parts);
        if (answer >= 0) {
            message.msg_control = beside.data();
            message.msg_controllen = beside.size();
            cmsghdr* head = CMSG_FIRSTHDR(&message);
            head->cmsg_level = SOL_SOCKET;
            head->cmsg_type = SCM_RIGHTS;
            head->cmsg_len = CMSG_LEN(sizeof(int));
            std::memcpy(CMSG_DATA(head), &answer, sizeof(answer));
        }
        return ::sendmsg(control_.get(), &message, MSG_NOSIGNAL) >= 0;
    }

    std::mutex mutex_;
    pid_t process_ = -1;
    Descriptor control_;
};

// One for the process, as it holds no state but that it runs.
Program& program() {
    static Program started;
    return started;
}

// What comes from one reader. Letting go of it ends the reader.
class Answers {
public:
    // False if nobody could be asked.
    bool ask(ReaderAsk ask, const std::string& path, const std::string& layer, std::string& error) {
        std::error_code code;
        // The program was started in the folder that was the present one then.
        const std::string full = path.empty() ? path : std::filesystem::absolute(path, code).string();
        std::array<int, 2> ends{};
        if (full.size() > longest_path || layer.size() > longest_layer_name) {
            error = "its name is too long";
            return false;
        }
        if (::socketpair(AF_UNIX, SOCK_STREAM | SOCK_CLOEXEC, 0, ends.data()) != 0) {
            error = std::strerror(errno);
            return false;
        }
        own_ = Descriptor(ends[0]);
        const Descriptor other(ends[1]);
        ask.path = static_cast<std::uint32_t>(full.size());
        ask.layer = static_cast<std::uint32_t>(layer.size());
        return program().ask(ask, full, layer, other.get(), error);
    }

    bool ask_on(const SequenceAsk& ask) const {
        return ::send(own_.get(), &ask, sizeof(ask), MSG_NOSIGNAL) == static_cast<ssize_t>(sizeof(ask));
    }

    // The answer, with its list or text, and the picture if one was given.
    PictureRead take(const ReadWatch& watch, std::string& list, Picture* picture, std::string& error) {
        ReaderAnswer answer;
        double share = begun;
        const auto broken_off = [&] {
            error = late_ ? "reading it takes too long" : "reading it went wrong: its reader has stopped";
            return PictureRead::unreadable;
        };
        for (;;) {
            if (!fill(&answer, sizeof(answer), watch, share)) return broken_off();
            if (answer.kind == ReaderAnswer::size) {
                if (!is_drawable_size(answer.width, answer.height) ||
                    !watch.admits(answer.width, answer.height, bytes_a_pixel(answer.coding)))
                    return broken_off();
                continue;
            }
            if (answer.kind != ReaderAnswer::progress) break;
            // Also of what is no number.
            const double told = answer.share > 0 ? std::min(answer.share, 1.0) : 0;
            // What waited for the reader to begin has told of a little already.
            if (!watch(has_waited_ ? std::max(told, share) : told)) return broken_off();
            share = std::max(told, begun);
        }
        if (answer.kind != ReaderAnswer::given || answer.bytes > longest_list) return broken_off();
        list.resize(answer.bytes);
        if (!fill(list.data(), list.size(), watch, share)) return broken_off();
        if (answer.read == PictureRead::unreadable || answer.read == PictureRead::too_large) {
            error = list;
            return answer.read;
        }
        if (answer.read != PictureRead::done) return broken_off();
        if (picture == nullptr || answer.width == 0) return PictureRead::done;
        if (!is_drawable_size(answer.width, answer.height) || answer.channels != 4) return broken_off();
        // What it said before binds nobody but a reader that is in order.
        if (!watch.admits(answer.width, answer.height, bytes_a_pixel(answer.coding))) return broken_off();
        const bool as_bytes = answer.coding == Coding::shares || answer.coding == Coding::display;
        if (!as_bytes && answer.coding != Coding::numbers) return broken_off();
        Picture given = as_bytes ? Picture::of_bytes(answer.width, answer.height, answer.coding)
                                 : Picture(answer.width, answer.height, answer.channels);
        if (!fill(given.data.data(), given.data.size() * sizeof(float), watch, share) ||
            !fill(given.bytes.data(), given.bytes.size(), watch, share))
            return broken_off();
        *picture = std::move(given);
        return PictureRead::done;
    }

private:
    bool fill(void* to, std::size_t size, const ReadWatch& watch, double share) {
        char* at = static_cast<char*>(to);
        auto give_up = std::chrono::steady_clock::now() + patience;
        while (size > 0) {
            pollfd wait{own_.get(), POLLIN, 0};
            const int ready = ::poll(&wait, 1, look_up_every_ms);
            const auto now = std::chrono::steady_clock::now();
            late_ = now > give_up;
            if (late_) return false;
            if (ready <= 0) {
                // Whoever waits may want to stop, however long the reader says nothing.
                has_waited_ = true;
                if (!watch(share)) return false;
                continue;
            }
            const ssize_t count = ::read(own_.get(), at, size);
            if (count < 0 && errno == EINTR) continue;
            if (count <= 0) return false;
            at += count;
            size -= static_cast<std::size_t>(count);
            give_up = now + patience;
        }
        return true;
    }

    Descriptor own_;
    bool late_ = false;
    bool has_waited_ = false;
};

// All that is asked for once, and answered once.
PictureRead answered(const ReaderAsk& ask, const std::string& path, const std::string& layer, const ReadWatch& watch,
                     std::string& list, Picture* picture, std::string& error) {
    bool stopped = false;
    const auto goes_on = [&](bool on) {
        stopped = stopped || !on;
        return !stopped;
    };
    const ReadWatch watched(
        [&](double share) { return goes_on(watch(share)); },
        [&](int width, int height, int bytes) { return goes_on(watch.admits(width, height, bytes)); });
    PictureRead done = PictureRead::unreadable;
    // Once more where not the file is to blame, but the program was ended.
    for (int tries = 0; tries < 2; ++tries) {
        Answers answers;
        if (!answers.ask(ask, path, layer, error)) break;
        done = answers.take(watched, list, picture, error);
        if (done == PictureRead::done || stopped || !program().has_gone()) break;
    }
    return done;
}

// What `unpack` makes of the list that was given.
template <class Unpack, class Value>
PictureRead list_apart(ReaderTask task, const std::string& path, const Unpack& unpack, Value& value,
                       std::string& error) {
    std::string list;
    const PictureRead done = answered({task}, path, {}, never_stopped, list, nullptr, error);
    if (done != PictureRead::done) return done;
    const auto unpacked = unpack(list);
    if (!unpacked) {
        error = "what its reader says makes no sense";
        return PictureRead::unreadable;
    }
    value = *unpacked;
    return PictureRead::done;
}

class SequenceApart : public PictureSequence {
public:
    explicit SequenceApart(Answers answers) : answers_(std::move(answers)) {}

    PictureRead read(int frame, PictureMeaning meaning, const ReadWatch& watch, Picture& picture,
                     std::string& error) override {
        std::string list;
        if (answers_.ask_on({frame, meaning})) return answers_.take(watch, list, &picture, error);
        error = "its reader has stopped";
        return PictureRead::unreadable;
    }

private:
    Answers answers_;
};

}  // namespace

void start_reader() { program().begin(); }

void prepare_reader() {
    std::string error;
    (void)program().ask({ReaderTask::prepare}, {}, {}, -1, error);
}

PictureRead read_apart(const std::string& path, PictureMeaning meaning, int frame, const ReadWatch& watch,
                       Picture& picture, std::string& error) {
    std::string list;
    return answered({ReaderTask::picture, meaning, frame}, path, {}, watch, list, &picture, error);
}

PictureRead frames_apart(const std::string& path, PictureFrames& frames, std::string& error) {
    return list_apart(ReaderTask::frames, path, unpacked_frames, frames, error);
}

PictureRead layers_apart(const std::string& path, std::vector<PictureLayer>& layers, std::string& error) {
    return list_apart(ReaderTask::layers, path, unpacked_layers, layers, error);
}

PictureRead read_layer_apart(const std::string& path, const std::string& layer, PictureMeaning meaning,
                             const ReadWatch& watch, Picture& picture, std::string& error) {
    std::string list;
    return answered({ReaderTask::layer, meaning}, path, layer, watch, list, &picture, error);
}

PictureRead open_sequence_apart(const std::string& path, std::shared_ptr<PictureSequence>& opened, std::string& error) {
    Answers answers;
    std::string list;
    if (!answers.ask({ReaderTask::sequence}, path, {}, error)) return PictureRead::unreadable;
    const PictureRead done = answers.take(never_stopped, list, nullptr, error);
    if (done == PictureRead::done) opened = std::make_shared<SequenceApart>(std::move(answers));
    return done;
}

std::string missing_walls(const Walls& walls) {
    std::string words;
    if (!walls.files) words += "; it can read other files (no Landlock)";
    if (!walls.calls) words += "; it can reach the network (no seccomp)";
    if (!walls.memory) words += "; its memory has no limit";
    return words;
}

Walls reader_walls(std::string& error) {
    Walls walls;
    (void)list_apart(ReaderTask::walls, {}, unpacked_walls, walls, error);
    return walls;
}

}  // namespace lacquer
