// lacquer-pictures: reads picture files for whoever asks, each in a process of its own with walls around it, so that a
// file which breaks a reader breaks nothing else. What it is told and answers is in reader_process.h.
//
// The program itself reads nothing. It loads the readers once, and forks for each file: a child is there at once.
#include <poll.h>
#include <sys/socket.h>
#include <sys/syscall.h>
#include <sys/wait.h>
#include <unistd.h>

#include <fcntl.h>
#include <array>
#include <cerrno>
#include <csignal>
#include <cstring>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/base/descriptor.h"
#include "core/base/guarded.h"
#include "core/base/module.h"
#include "core/picture/coded.h"
#include "core/picture/confine.h"
#include "core/picture/png.h"
#include "core/picture/reader_lists.h"
#include "core/picture/reader_process.h"
#include "core/picture/reading.h"

namespace {

using namespace lacquer;

struct Readers {
    ReadWatchedFunction read = nullptr;
    PictureFramesFunction frames = nullptr;
    PictureLayersFunction layers = nullptr;
    ReadLayerFunction read_layer = nullptr;
    OpenSequenceFunction open_sequence = nullptr;
    std::string error;
};

Readers load_readers() {
    Module module(picture_module_file);
    Readers loaded;
    loaded.read = module.function<ReadWatchedFunction>("lacquer_read_picture");
    loaded.frames = module.function<PictureFramesFunction>("lacquer_picture_frames");
    loaded.layers = module.function<PictureLayersFunction>("lacquer_picture_layers");
    loaded.read_layer = module.function<ReadLayerFunction>("lacquer_read_layer");
    loaded.open_sequence = module.function<OpenSequenceFunction>("lacquer_open_sequence");
    loaded.error = module.error();
    return loaded;
}

struct Asked {
    ReaderAsk ask;
    std::string path;
    std::string layer;
    Descriptor answer;
};

// What was asked for, with the socket that came along; nothing at the end, or where it makes no sense.
struct Received {
    bool ended = false;
    std::optional<Asked> asked;
};

Received receive(int control) {
    std::string bytes(sizeof(ReaderAsk) + longest_path + longest_layer_name, '\0');
    iovec part{bytes.data(), bytes.size()};
    alignas(cmsghdr) std::array<char, CMSG_SPACE(sizeof(int))> beside{};
    msghdr message{};
    message.msg_iov = &part;
    message.msg_iovlen = 1;
    message.msg_control = beside.data();
    message.msg_controllen = beside.size();
    const ssize_t count = ::recvmsg(control, &message, MSG_CMSG_CLOEXEC);
    if (count < 0 && errno == EINTR) return {};
    if (count <= 0) return {true, std::nullopt};
    Asked asked;
    const cmsghdr* head = CMSG_FIRSTHDR(&message);
    if (head != nullptr && head->cmsg_type == SCM_RIGHTS) {
        int fd = -1;
        std::memcpy(&fd, CMSG_DATA(head), sizeof(fd));
        asked.answer = Descriptor(fd);
    }
    const auto size = static_cast<std::size_t>(count);
    if (size < sizeof(ReaderAsk)) return {};
    std::memcpy(&asked.ask, bytes.data(), sizeof(ReaderAsk));
    if (sizeof(ReaderAsk) + asked.ask.path + asked.ask.layer != size) return {};
    asked.path = bytes.substr(sizeof(ReaderAsk), asked.ask.path);
    asked.layer = bytes.substr(sizeof(ReaderAsk) + asked.ask.path, asked.ask.layer);
    return {false, std::move(asked)};
}

// In the child.
class Answering {
public:
    explicit Answering(int to) : to_(to) {}

    bool put(const void* bytes, std::size_t size) {
        const char* from = static_cast<const char*>(bytes);
        while (size > 0) {
            const ssize_t written = ::write(to_, from, size);
            if (written < 0 && errno == EINTR) continue;
            if (written <= 0) return false;
            from += written;
            size -= static_cast<std::size_t>(written);
        }
        return true;
    }

    bool take(void* to, std::size_t size) const {
        char* at = static_cast<char*>(to);
        while (size > 0) {
            const ssize_t count = ::read(to_, at, size);
            if (count < 0 && errno == EINTR) continue;
            if (count <= 0) return false;
            at += count;
            size -= static_cast<std::size_t>(count);
        }
        return true;
    }

    bool progress(double share) {
        ReaderAnswer answer;
        answer.share = share;
        return put(&answer, sizeof(answer));
    }

    bool size(int width, int height, int bytes) {
        ReaderAnswer answer;
        answer.kind = ReaderAnswer::size;
        answer.width = width;
        answer.height = height;
        answer.coding = bytes == bytes_a_pixel(Coding::numbers) ? Coding::numbers : Coding::shares;
        return put(&answer, sizeof(answer));
    }

    bool give(PictureRead read, const std::string& list, const Picture* picture = nullptr) {
        ReaderAnswer answer;
        answer.kind = ReaderAnswer::given;
        answer.read = read;
        answer.share = 1;
        answer.bytes = static_cast<std::uint32_t>(std::min<std::size_t>(list.size(), longest_list));
        if (picture != nullptr && bytes_held(*picture) > 0) {
            answer.width = picture->width;
            answer.height = picture->height;
            answer.channels = picture->channels;
            answer.coding = picture->coding;
        }
        return put(&answer, sizeof(answer)) && put(list.data(), answer.bytes) &&
               (answer.width == 0 || (put(picture->data.data(), picture->data.size() * sizeof(float)) &&
                                      put(picture->bytes.data(), picture->bytes.size())));
    }

private:
    int to_;
};

template <class Read>
bool give_picture(Answering& answering, const Read& read) {
    Picture picture;
    std::string error;
    const Result<PictureRead> done = guarded([&]() -> Result<PictureRead> { return read(picture, error); });
    if (!done) error = done.fault().message;
    const PictureRead how = done ? *done : PictureRead::unreadable;
    return how == PictureRead::done ? answering.give(how, {}, &picture) : answering.give(how, error);
}

void read_sequence(const Readers& readers, const Asked& asked, const ReadWatch& watch, Answering& answering) {
    std::shared_ptr<PictureSequence> opened;
    std::string error;
    const PictureRead done = readers.open_sequence(asked.path, opened, error);
    if (!answering.give(done, error) || done != PictureRead::done) return;
    SequenceAsk ask;
    while (answering.take(&ask, sizeof(ask))) {
        const bool given = give_picture(answering, [&](Picture& picture, std::string& why) {
            return opened->read(ask.frame, ask.meaning, watch, picture, why);
        });
        if (!given) return;
    }
}

void answer(const Readers& readers, const Asked& asked, const Walls& walls) {
    Answering answering(asked.answer.get());
    const ReadWatch watch([&](double share) { return answering.progress(share); },
                          [&](int width, int height, int bytes) { return answering.size(width, height, bytes); });
    std::string error;
    switch (asked.ask.task) {
        case ReaderTask::prepare:
            return;
        case ReaderTask::walls:
            answering.give(PictureRead::done, packed(walls));
            return;
        case ReaderTask::picture:
            give_picture(answering, [&](Picture& picture, std::string& why) {
                if (is_still_png(asked.path)) return read_png(asked.path, asked.ask.meaning, watch, picture, why);
                return readers.read(asked.path, asked.ask.meaning, asked.ask.frame, watch, picture, why);
            });
            return;
        case ReaderTask::layer:
            give_picture(answering, [&](Picture& picture, std::string& why) {
                return readers.read_layer(asked.path, asked.layer, asked.ask.meaning, watch, picture, why);
            });
            return;
        case ReaderTask::frames: {
            PictureFrames frames;
            const PictureRead done = readers.frames(asked.path, frames, error);
            answering.give(done, done == PictureRead::done ? packed(frames) : error);
            return;
        }
        case ReaderTask::layers: {
            std::vector<PictureLayer> layers;
            const PictureRead done = readers.layers(asked.path, layers, error);
            answering.give(done, done == PictureRead::done ? packed(layers) : error);
            return;
        }
        case ReaderTask::sequence:
            read_sequence(readers, asked, watch, answering);
            return;
    }
}

struct Child {
    pid_t process = -1;
    Descriptor ended;   // readable once it has
    Descriptor answer;  // hung up once nobody waits for it
};

[[noreturn]] void be_child(const Readers& readers, Asked asked, const Confinement& confinement) {
    // Nothing of what the others answer on.
    constexpr int own = STDERR_FILENO + 1;
    if (asked.answer.get() != own) {
        if (::dup2(asked.answer.get(), own) < 0) _exit(1);
        asked.answer = Descriptor(own);
    }
    ::close_range(own + 1, ~0U, 0);
    ::close(STDIN_FILENO);
    Allowed allowed;
    allowed.readable = {asked.path};
    // One that is played is kept open for long.
    if (asked.ask.task == ReaderTask::sequence) allowed.processor_seconds = 3600;
    const Walls walls = confinement.put_around_this(allowed);
    if (!readers.error.empty() && asked.ask.task != ReaderTask::walls &&
        !(asked.ask.task == ReaderTask::picture && is_still_png(asked.path))) {
        Answering(own).give(PictureRead::unreadable, "the part that reads it did not load: " + readers.error);
        _exit(1);
    }
    (void)guarded([&]() -> Result<Done> {
        answer(readers, asked, walls);
        return Done{};
    });
    _exit(0);
}

// Whether what is asked for takes more than what this program holds itself.
bool needs_module(const Asked& asked) {
    if (asked.ask.task == ReaderTask::walls) return false;
    return asked.ask.task != ReaderTask::picture || !is_still_png(asked.path);
}

}  // namespace

int main() {
    const int control = STDIN_FILENO;
    ::close_range(STDERR_FILENO + 1, ~0U, 0);
    (void)::signal(SIGPIPE, SIG_IGN);
    const Confinement confinement;
    std::optional<Readers> readers;
    const Readers none;
    std::vector<Child> children;
    while (true) {
        std::vector<pollfd> waited = {{control, POLLIN, 0}};
        bool must_look = false;
        for (const Child& child : children) {
            waited.push_back({child.ended.get(), POLLIN, 0});
            waited.push_back({child.answer.get(), 0, 0});
            must_look = must_look || child.ended.get() < 0;
        }
        constexpr int look_every_ms = 100;
        if (::poll(waited.data(), waited.size(), must_look ? look_every_ms : -1) < 0 && errno != EINTR) return 1;
        for (std::size_t i = 0; i < children.size(); ++i) {
            if ((waited[2 + 2 * i].revents & (POLLHUP | POLLERR)) != 0) ::kill(children[i].process, SIGKILL);
        }
        std::erase_if(children, [](const Child& child) { return ::waitpid(child.process, nullptr, WNOHANG) != 0; });
        if ((waited[0].revents & (POLLIN | POLLHUP)) == 0) continue;
        Received received = receive(control);
        if (received.ended) break;
        if (!received.asked) continue;
        Asked& asked = *received.asked;
        if (!readers && needs_module(asked)) readers = load_readers();
        if (asked.ask.task == ReaderTask::prepare || asked.answer.get() < 0) continue;
        const pid_t process = ::fork();
        if (process == 0) be_child(readers ? *readers : none, std::move(asked), confinement);
        if (process > 0)
            children.push_back({process, Descriptor(static_cast<int>(::syscall(SYS_pidfd_open, process, 0))),
                                std::move(asked.answer)});
    }
    for (const Child& child : children) ::kill(child.process, SIGKILL);
    return 0;
}
