#include "core/link/message.h"

#include <lo/lo.h>

#include <cstring>
#include <memory>
#include <string_view>

namespace lacquer {

namespace {

constexpr std::string_view bundle_mark{"#bundle\0", 8};
constexpr std::size_t bundle_head = 16;  // the mark and the time
constexpr int deepest = 8;

struct FreeMessage {
    void operator()(void* message) const { lo_message_free(static_cast<lo_message>(message)); }
};
using OwnedMessage = std::unique_ptr<void, FreeMessage>;

Fault not_a_packet() {
    return {
        "link.packet", "these bytes are no Open Sound Control packet", "see docs/play-link.md", {}, Severity::warning};
}

void put_number(LinkBytes& bytes, std::uint32_t number) {
    for (const int shift : {24, 16, 8, 0}) bytes.push_back(static_cast<std::uint8_t>(number >> shift));
}

std::uint32_t number_at(std::span<const std::uint8_t> bytes, std::size_t at) {
    std::uint32_t number = 0;
    for (std::size_t i = 0; i < 4; ++i) number = (number << 8U) | bytes[at + i];
    return number;
}

// Arguments lie at every fourth byte, whatever their own alignment.
template <class Number>
Number argument_at(const lo_arg* argument) {
    Number number{};
    std::memcpy(&number, reinterpret_cast<const char*>(argument), sizeof(number));
    return number;
}

LinkMessage read_arguments(lo_message message, std::string address) {
    LinkMessage read{std::move(address), {}};
    const char* types = lo_message_get_types(message);
    lo_arg** arguments = lo_message_get_argv(message);
    for (int i = 0; i < lo_message_get_argc(message); ++i) {
        switch (types[i]) {
            case LO_INT32:
                read.arguments.emplace_back(argument_at<std::int32_t>(arguments[i]));
                break;
            case LO_FLOAT:
                read.arguments.emplace_back(static_cast<double>(argument_at<float>(arguments[i])));
                break;
            case LO_DOUBLE:
                read.arguments.emplace_back(argument_at<double>(arguments[i]));
                break;
            case LO_STRING:
            case LO_SYMBOL:
                read.arguments.emplace_back(std::string(reinterpret_cast<const char*>(arguments[i])));
                break;
            case LO_TRUE:
            case LO_FALSE:
                read.arguments.emplace_back(types[i] == LO_TRUE);
                break;
            default:
                break;
        }
    }
    return read;
}

bool read_message(std::span<const std::uint8_t> bytes, std::vector<LinkMessage>& messages) {
    if (bytes.size() < 8 || bytes.size() % 4 != 0 || bytes[0] != '/') return false;
    // Only an address that ends within the packet, with type tags after it; liblo looks at the rest.
    const std::size_t end = std::string_view(reinterpret_cast<const char*>(bytes.data()), bytes.size()).find('\0');
    const std::size_t tags = (end / 4 + 1) * 4;
    if (end == std::string_view::npos || tags >= bytes.size() || bytes[tags] != ',') return false;
    LinkBytes copy(bytes.begin(), bytes.end());  // liblo turns numbers round where they stand
    int result = 0;
    const OwnedMessage message(lo_message_deserialise(copy.data(), copy.size(), &result));
    if (message == nullptr) return false;
    messages.push_back(read_arguments(static_cast<lo_message>(message.get()),
                                      std::string(reinterpret_cast<const char*>(bytes.data()), end)));
    return true;
}

bool read_packet(std::span<const std::uint8_t> bytes, int depth, std::vector<LinkMessage>& messages) {
    const bool is_bundle =
        bytes.size() >= bundle_head && std::memcmp(bytes.data(), bundle_mark.data(), bundle_mark.size()) == 0;
    if (!is_bundle) return read_message(bytes, messages);
    if (depth >= deepest) return false;
    std::size_t at = bundle_head;
    while (at < bytes.size()) {
        if (bytes.size() - at < 4) return false;
        const std::size_t size = number_at(bytes, at);
        at += 4;
        if (size > bytes.size() - at) return false;
        if (!read_packet(bytes.subspan(at, size), depth + 1, messages)) return false;
        at += size;
    }
    return true;
}

}  // namespace

LinkBytes packet_of(const LinkMessage& message) {
    const OwnedMessage made(lo_message_new());
    auto* const raw = static_cast<lo_message>(made.get());
    for (const LinkArgument& argument : message.arguments) {
        if (const auto* whole = std::get_if<std::int32_t>(&argument)) {
            lo_message_add_int32(raw, *whole);
        } else if (const auto* number = std::get_if<double>(&argument)) {
            lo_message_add_float(raw, static_cast<float>(*number));
        } else if (const auto* text = std::get_if<std::string>(&argument)) {
            lo_message_add_string(raw, text->c_str());
        } else if (std::get<bool>(argument)) {
            lo_message_add_true(raw);
        } else {
            lo_message_add_false(raw);
        }
    }
    LinkBytes bytes(lo_message_length(raw, message.address.c_str()));
    std::size_t size = 0;
    lo_message_serialise(raw, message.address.c_str(), bytes.data(), &size);
    bytes.resize(size);
    return bytes;
}

LinkBytes bundle_of(const std::vector<LinkMessage>& messages) {
    LinkBytes bytes(bundle_mark.begin(), bundle_mark.end());
    put_number(bytes, 0);
    put_number(bytes, 1);  // at once
    for (const LinkMessage& message : messages) {
        const LinkBytes one = packet_of(message);
        put_number(bytes, static_cast<std::uint32_t>(one.size()));
        bytes.insert(bytes.end(), one.begin(), one.end());
    }
    return bytes;
}

Result<std::vector<LinkMessage>> messages_in(std::span<const std::uint8_t> packet) {
    std::vector<LinkMessage> messages;
    if (packet.size() > max_packet || !read_packet(packet, 0, messages)) return not_a_packet();
    return messages;
}

}  // namespace lacquer
