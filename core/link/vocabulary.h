// What a finish can be told over the link, and what a message comes to.
#pragma once

#include <array>
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

using LinkEvent = std::variant<Cue, Change, LinkNumber, LinkUnknown>;

/// Understands one message; times are left at 0. Addresses: `/lacquer/cue/NAME` with strength, direction, place (two
/// numbers), object, of which those at the end may be left out; `/lacquer/signal/NAME` and `/lacquer/dial/CODE_NAME`
/// with one to three numbers; `/lacquer/number` with a whole number. docs/play-link.md tells more.
LinkEvent understood(const LinkMessage& message, const LinkNames& names);

/// All addresses that these names give.
std::vector<std::string> addresses_of(const LinkNames& names);

}  // namespace lacquer
