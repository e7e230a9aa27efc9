// The game's side of the link.
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/link/message.h"

namespace lacquer {

/// Sends packets to one address, each with its number.
class LinkSender {
public:
    /// `host` is a number such as 127.0.0.1. Faults: `link.host`.
    static Result<std::unique_ptr<LinkSender>> open(const std::string& host, int port);
    ~LinkSender();
    LinkSender(const LinkSender&) = delete;
    LinkSender& operator=(const LinkSender&) = delete;

    /// Sends messages together, as one packet. False if the system would not take it.
    bool send(std::vector<LinkMessage> messages);
    /// Sends bytes as they are, without a number; for what is no good packet.
    bool send_bytes(const LinkBytes& bytes);
    /// An answer that has come, if there is one. Waits up to so many milliseconds.
    std::optional<LinkMessage> answer(int milliseconds);

private:
    explicit LinkSender(int socket) : socket_(socket) {}
    int socket_;
    std::int32_t number_ = 0;
};

}  // namespace lacquer
