// Numbers and texts as bytes, one after another, and back within bounds.
#pragma once

#include <cstdint>
#include <cstring>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>

namespace lacquer {

class Packer {
public:
    template <class Number>
    Packer& number(Number value) {
        static_assert(std::is_arithmetic_v<Number>);
        bytes_.append(reinterpret_cast<const char*>(&value), sizeof(value));
        return *this;
    }
    Packer& text(std::string_view words) {
        number(static_cast<std::uint32_t>(words.size()));
        bytes_.append(words);
        return *this;
    }
    const std::string& bytes() const { return bytes_; }

private:
    std::string bytes_;
};

/// Gives nothing where the bytes end too early.
class Unpacker {
public:
    explicit Unpacker(std::string_view bytes) : bytes_(bytes) {}

    template <class Number>
    std::optional<Number> number() {
        static_assert(std::is_arithmetic_v<Number>);
        if (bytes_.size() < sizeof(Number)) return std::nullopt;
        Number value{};
        std::memcpy(&value, bytes_.data(), sizeof(value));
        bytes_.remove_prefix(sizeof(value));
        return value;
    }
    std::optional<std::string> text() {
        const std::optional<std::uint32_t> size = number<std::uint32_t>();
        if (!size || *size > bytes_.size()) return std::nullopt;
        std::string words(bytes_.substr(0, *size));
        bytes_.remove_prefix(*size);
        return words;
    }
    bool at_end() const { return bytes_.empty(); }

private:
    std::string_view bytes_;
};

}  // namespace lacquer
