// Messages of Open Sound Control 1.0, to bytes and back. Source: M. Wright, "The Open Sound Control 1.0 Specification",
// 2002; the bytes are liblo's work.
#pragma once

#include <cstdint>
#include <span>
#include <string>
#include <variant>
#include <vector>

#include "core/base/result.h"

namespace lacquer {

/// An argument of a message: a whole number, a number, a text, a yes or no.
using LinkArgument = std::variant<std::int32_t, double, std::string, bool>;

/// An address and what follows it.
struct LinkMessage {
    std::string address;
    std::vector<LinkArgument> arguments = {};
    friend bool operator==(const LinkMessage&, const LinkMessage&) = default;
};

using LinkBytes = std::vector<std::uint8_t>;

/// Largest packet that is taken, in bytes.
inline constexpr std::size_t max_packet = 65'507;

/// One message as a packet. Numbers go as single-precision floats.
LinkBytes packet_of(const LinkMessage& message);

/// Several messages as one bundle, to be heeded at once.
LinkBytes bundle_of(const std::vector<LinkMessage>& messages);

/// The messages of a packet: one, or those of a bundle and of bundles in it. Arguments of other types than those above
/// are left out. Faults: `link.packet`, for bytes that are none.
Result<std::vector<LinkMessage>> messages_in(std::span<const std::uint8_t> packet);

}  // namespace lacquer
