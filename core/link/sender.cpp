#include "core/link/sender.h"

#include <arpa/inet.h>
#include <poll.h>
#include <sys/socket.h>
#include <unistd.h>

namespace lacquer {

Result<std::unique_ptr<LinkSender>> LinkSender::open(const std::string& host, int port) {
    sockaddr_in address{};
    address.sin_family = AF_INET;
    address.sin_port = htons(static_cast<std::uint16_t>(port));
    const bool good = port > 0 && port <= 65'535 && ::inet_pton(AF_INET, host.c_str(), &address.sin_addr) == 1;
    const int opened = good ? ::socket(AF_INET, SOCK_DGRAM | SOCK_CLOEXEC, 0) : -1;
    if (opened < 0 || ::connect(opened, reinterpret_cast<sockaddr*>(&address), sizeof(address)) != 0) {
        if (opened >= 0) ::close(opened);
        return Fault{"link.host",
                     "nothing can be sent to " + host + ", port " + std::to_string(port),
                     "give an address such as 127.0.0.1 and a port from 1 to 65535",
                     {},
                     Severity::fault};
    }
    return std::unique_ptr<LinkSender>(new LinkSender(opened));
}

LinkSender::~LinkSender() { ::close(socket_); }

bool LinkSender::send(std::vector<LinkMessage> messages) {
    messages.insert(messages.begin(), LinkMessage{"/lacquer/number", {++number_}});
    return send_bytes(bundle_of(messages));
}

bool LinkSender::send_bytes(const LinkBytes& bytes) {
    return ::send(socket_, bytes.data(), bytes.size(), 0) == static_cast<ssize_t>(bytes.size());
}

std::optional<LinkMessage> LinkSender::answer(int milliseconds) {
    pollfd wait{socket_, POLLIN, 0};
    if (::poll(&wait, 1, milliseconds) <= 0) return std::nullopt;
    LinkBytes bytes(max_packet);
    const ssize_t size = ::recv(socket_, bytes.data(), bytes.size(), MSG_DONTWAIT);
    if (size <= 0) return std::nullopt;
    const auto messages = messages_in(std::span(bytes).first(static_cast<std::size_t>(size)));
    if (!messages || messages->empty()) return std::nullopt;
    return messages->front();
}

}  // namespace lacquer
