// Listens for a game: takes packets off a socket in a thread of its own, so that no cue waits for a picture.
#pragma once

#include <atomic>
#include <cstdint>
#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <set>
#include <string>
#include <thread>
#include <vector>

#include "core/base/result.h"
#include "core/link/vocabulary.h"

namespace lacquer {

/// What came, with the time at which it did, by the receiver's clock.
struct LinkArrivals {
    Tape events;
    std::vector<LinkUnknown> unknown;  ///< each address once
    /// What is to be answered, with whom it came from.
    struct Asked {
        LinkQuestion question;
        std::uint32_t host = 0;
        std::uint16_t port = 0;
    };
    std::vector<Asked> questions;
};

/// Counts since the beginning.
struct LinkCounts {
    std::uint64_t messages = 0;
    std::uint64_t lost = 0;     ///< by the numbers of packets
    std::uint64_t junk = 0;     ///< packets that were none
    std::uint64_t unknown = 0;  ///< messages to addresses that nobody here knows
    std::uint64_t dropped = 0;  ///< events that nobody fetched in time, and what a sender sent beyond its share
};

class LinkReceiver {
public:
    /// Listens at a port of this machine's own address, or with `everywhere` at all addresses. Port 0 is any that is
    /// free. `clock` gives seconds and is asked on the receiver's thread. Faults: `link.port`.
    static Result<std::unique_ptr<LinkReceiver>> open(int port, bool everywhere, std::function<double()> clock);
    ~LinkReceiver();
    LinkReceiver(const LinkReceiver&) = delete;
    LinkReceiver& operator=(const LinkReceiver&) = delete;

    int port() const { return port_; }
    /// The names that are understood from here on; others are answered with the nearest.
    void set_names(LinkNames names);
    /// Takes what has come since the last time.
    LinkArrivals fetch();
    /// Sends messages to whoever asked, each as a packet.
    void reply(const LinkArrivals::Asked& asked, const std::vector<LinkMessage>& answers) const;
    LinkCounts counts() const;

private:
    struct Sender;
    LinkReceiver(int socket, int port, std::function<double()> clock);
    void serve();
    void take_packet(std::span<const std::uint8_t> packet, const Sender& from);
    void answer(const LinkUnknown& unknown, const Sender& to) const;

    int socket_;
    int wake_;  ///< an event that ends the wait
    int port_;
    std::function<double()> clock_;
    mutable std::mutex mutex_;
    LinkNames names_;
    LinkArrivals arrivals_;
    LinkCounts counts_;
    std::set<std::string> told_;  ///< addresses that were answered since the names were others
    std::int64_t last_number_ = 0;
    /// What a sender may still send; it grows with time.
    struct Heard {
        double last = 0;  ///< when it was heard
        double messages = 0;
        double questions = 0;
    };
    Heard* heard_of(const Sender& from, double now);
    std::map<std::uint64_t, Heard> heard_;  ///< by address and port
    std::atomic<bool> stopping_ = false;
    std::thread thread_;
};

}  // namespace lacquer
