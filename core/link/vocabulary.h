// What a finish can be told over the link, and what a message comes to.
#pragma once

#include <array>
#include <functional>
#include <string>
#include <variant>
#include <vector>

#include "core/drive/signal.h"
#include "core/drive/tape.h"
#include "core/link/message.h"

namespace lacquer {

/// The names that a game may use: cues and signals by their names, dials by their code names.
struct LinkNames {
    struct DialName {
        std::string code_name;
        std::string name;
        std::string kind = "number";  ///< number, integer, switch or colour
        double least = 0;
        double most = 1;
        std::string unit = {};
        friend bool operator==(const DialName&, const DialName&) = default;
    };
    std::vector<std::string> cues = {};
    std::vector<Signal> signals = {};
    std::vector<DialName> dials = {};
    friend bool operator==(const LinkNames&, const LinkNames&) = default;
};

/// The number of a packet among all that a sender sends, from 1; by it losses are counted.
struct LinkNumber {
    std::int32_t number = 0;
};

/// Something that nobody here knows; `nearest` is an address that may have been meant, or empty.
struct LinkUnknown {
    std::string address;
    std::string nearest;
};

/// Something that is asked: who is there, or what can be told and what it is worth.
struct LinkQuestion {
    std::string address;
};

using LinkEvent = std::variant<Cue, Change, LinkNumber, LinkUnknown, LinkQuestion>;

/// Understands one message; times are left at 0. Addresses: `/lacquer/cue/NAME` with strength, direction, place (two
/// numbers), object, of which those at the end may be left out; `/lacquer/signal/NAME` and `/lacquer/dial/CODE_NAME`
/// with one to three numbers; `/lacquer/number` with a whole number; `/lacquer/hello`, `/lacquer/ask` and
/// `/lacquer/ask/` before `cue/NAME`, `signal/NAME` or `dial/CODE_NAME` ask. docs/play-link.md tells more.
LinkEvent understood(const LinkMessage& message, const LinkNames& names);

/// What a signal or a dial is worth now, by its name; up to three numbers.
using LinkValues = std::function<std::array<double, 3>(const std::string& name)>;

/// What a question is answered with: `/lacquer/here` for a hello; else a `/lacquer/told/...` for each name that it is
/// about and `/lacquer/told` with their number at the end. `finish` is what the open finish is called.
std::vector<LinkMessage> answers_to(const LinkQuestion& question, const LinkNames& names, const std::string& finish,
                                    int port, const LinkValues& values);

/// All addresses that these names give.
std::vector<std::string> addresses_of(const LinkNames& names);

}  // namespace lacquer
