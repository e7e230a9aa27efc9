#include "core/link/receiver.h"

#include <arpa/inet.h>
#include <poll.h>
#include <sys/eventfd.h>
#include <sys/socket.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <cstring>

namespace lacquer {

namespace {

/// What may wait to be fetched; more is dropped, so that a flood takes no memory.
constexpr std::size_t most_waiting = 65'536;
constexpr std::size_t most_unknown = 64;
/// Of one sender. A game sends a few hundred; whoever sends without end must not keep the others from being heard.
constexpr double most_messages_a_second = 8000;
/// Answers are larger than questions: who asks in another's name must not be able to flood that one.
constexpr double most_questions_a_second = 20;
/// Of what a sender has not used: one that was held up may catch up.
constexpr double saved_seconds = 2;
/// That are heard in the same second.
constexpr std::size_t most_senders = 64;
constexpr int receive_buffer = 4 * 1024 * 1024;

Fault port_fault(int port, int error) {
    return {"link.port",
            "port " + std::to_string(port) + " cannot be listened at: " + std::strerror(error),
            "choose another port, or close what has it",
            {},
            Severity::fault};
}

}  // namespace

struct LinkReceiver::Sender {
    sockaddr_in address{};
    socklen_t length = sizeof(sockaddr_in);
};

Result<std::unique_ptr<LinkReceiver>> LinkReceiver::open(int port, bool everywhere, std::function<double()> clock) {
    if (port < 0 || port > 65'535) return port_fault(port, EINVAL);
    const int opened = ::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC | SOCK_NONBLOCK, 0);
    if (opened < 0) return port_fault(port, errno);
    // More room for bursts, where the system gives it.
    (void)::setsockopt(opened, SOL_SOCKET, SO_RCVBUF, &receive_buffer, sizeof(receive_buffer));
    sockaddr_in address{};
    address.sin_family = AF_INET;
    address.sin_port = htons(static_cast<std::uint16_t>(port));
    address.sin_addr.s_addr = htonl(everywhere ? INADDR_ANY : INADDR_LOOPBACK);
    socklen_t length = sizeof(address);
    if (::bind(opened, reinterpret_cast<sockaddr*>(&address), length) != 0 ||
        ::getsockname(opened, reinterpret_cast<sockaddr*>(&address), &length) != 0) {
        const int error = errno;
        ::close(opened);
        return port_fault(port, error);
    }
    return std::unique_ptr<LinkReceiver>(new LinkReceiver(opened, ntohs(address.sin_port), std::move(clock)));
}

LinkReceiver::LinkReceiver(int socket, int port, std::function<double()> clock)
    : socket_(socket), wake_(::eventfd(0, EFD_CLOEXEC)), port_(port), clock_(std::move(clock)), thread_([this] {
          serve();
      }) {}

LinkReceiver::~LinkReceiver() {
    stopping_ = true;
    const std::uint64_t one = 1;
    (void)!::write(wake_, &one, sizeof(one));
    thread_.join();
    ::close(socket_);
    ::close(wake_);
}

void LinkReceiver::set_names(LinkNames names) {
    const std::lock_guard lock(mutex_);
    if (names == names_) return;
    names_ = std::move(names);
    told_.clear();
}

LinkArrivals LinkReceiver::fetch() {
    const std::lock_guard lock(mutex_);
    return std::exchange(arrivals_, LinkArrivals());
}

LinkCounts LinkReceiver::counts() const {
    const std::lock_guard lock(mutex_);
    return counts_;
}

void LinkReceiver::serve() {
    std::vector<std::uint8_t> packet(max_packet);
    while (!stopping_) {
        std::array<pollfd, 2> waits{pollfd{socket_, POLLIN, 0}, pollfd{wake_, POLLIN, 0}};
        if (::poll(waits.data(), waits.size(), -1) < 0 && errno != EINTR) return;
        while (!stopping_) {
            Sender from;
            const ssize_t size = ::recvfrom(socket_, packet.data(), packet.size(), 0,
                                            reinterpret_cast<sockaddr*>(&from.address), &from.length);
            if (size < 0) break;
            take_packet(std::span(packet).first(static_cast<std::size_t>(size)), from);
        }
    }
}

// Null for one more than are heard at a time.
LinkReceiver::Heard* LinkReceiver::heard_of(const Sender& from, double now) {
    const std::uint64_t who = std::uint64_t{from.address.sin_addr.s_addr} << 16U | from.address.sin_port;
    if (heard_.size() >= most_senders && !heard_.contains(who))
        std::erase_if(heard_, [&](const auto& other) { return now - other.second.last >= 1; });
    if (heard_.size() >= most_senders && !heard_.contains(who)) return nullptr;
    const auto [found, is_new] = heard_.try_emplace(who);
    Heard& heard = found->second;
    const double passed = is_new ? saved_seconds : std::max(0.0, now - heard.last);
    heard.last = now;
    heard.messages = std::min(saved_seconds * most_messages_a_second, heard.messages + passed * most_messages_a_second);
    heard.questions = std::min(most_questions_a_second, heard.questions + passed * most_questions_a_second);
    return &heard;
}

void LinkReceiver::take_packet(std::span<const std::uint8_t> packet, const Sender& from) {
    const double now = clock_();
    Heard* heard = nullptr;  // of this thread only
    {
        const std::lock_guard lock(mutex_);
        heard = heard_of(from, now);
        if (heard == nullptr || heard->messages <= 0) {
            ++counts_.dropped;
            return;
        }
    }
    const Result<std::vector<LinkMessage>> messages = messages_in(packet);
    std::vector<LinkUnknown> to_answer;
    {
        const std::lock_guard lock(mutex_);
        if (!messages) {
            --heard->messages;
            ++counts_.junk;
            return;
        }
        for (const LinkMessage& message : *messages) {
            LinkEvent event = understood(message, names_);
            if (const auto* number = std::get_if<LinkNumber>(&event)) {
                // A sender that starts anew counts from 1 again.
                if (number->number > last_number_ + 1 && last_number_ > 0)
                    counts_.lost += static_cast<std::uint64_t>(number->number - last_number_ - 1);
                last_number_ = number->number;
                continue;
            }
            --heard->messages;
            ++counts_.messages;
            if (auto* unknown = std::get_if<LinkUnknown>(&event)) {
                ++counts_.unknown;
                if (told_.size() < most_unknown && told_.insert(unknown->address).second) {
                    arrivals_.unknown.push_back(*unknown);
                    to_answer.push_back(std::move(*unknown));
                }
                continue;
            }
            if (auto* question = std::get_if<LinkQuestion>(&event)) {
                if (--heard->questions < 0) {
                    ++counts_.dropped;
                    continue;
                }
                arrivals_.questions.push_back(
                    {std::move(*question), ntohl(from.address.sin_addr.s_addr), ntohs(from.address.sin_port)});
                continue;
            }
            if (arrivals_.events.cues.size() + arrivals_.events.changes.size() >= most_waiting) {
                ++counts_.dropped;
                continue;
            }
            if (auto* cue = std::get_if<Cue>(&event)) {
                cue->at = now;
                arrivals_.events.cues.push_back(std::move(*cue));
            } else if (auto* change = std::get_if<Change>(&event)) {
                change->at = now;
                arrivals_.events.changes.push_back(std::move(*change));
            }
        }
    }
    for (const LinkUnknown& unknown : to_answer) answer(unknown, from);
}

void LinkReceiver::answer(const LinkUnknown& unknown, const Sender& to) const {
    const LinkBytes bytes = packet_of({"/lacquer/unknown", {unknown.address, unknown.nearest}});
    // Whoever does not listen any more misses nothing.
    (void)::sendto(socket_, bytes.data(), bytes.size(), MSG_DONTWAIT, reinterpret_cast<const sockaddr*>(&to.address),
                   to.length);
}

void LinkReceiver::reply(const LinkArrivals::Asked& asked, const std::vector<LinkMessage>& answers) const {
    sockaddr_in to{};
    to.sin_family = AF_INET;
    to.sin_addr.s_addr = htonl(asked.host);
    to.sin_port = htons(asked.port);
    for (const LinkMessage& message : answers) {
        const LinkBytes bytes = packet_of(message);
        (void)::sendto(socket_, bytes.data(), bytes.size(), MSG_DONTWAIT, reinterpret_cast<const sockaddr*>(&to),
                       sizeof(to));
    }
}

}  // namespace lacquer
