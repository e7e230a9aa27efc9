#include "core/picture/moving_format.h"

#include <array>
#include <cstdint>
#include <fstream>
#include <string_view>

namespace lacquer {

namespace {

constexpr std::string_view png_begins = "\x89PNG\r\n\x1a\n";

std::uint32_t big_endian(const char* bytes) {
    std::uint32_t number = 0;
    for (int i = 0; i < 4; ++i) number = number << 8 | static_cast<unsigned char>(bytes[i]);
    return number;
}

}  // namespace

bool is_png(const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    std::array<char, 8> head{};
    file.read(head.data(), head.size());
    return std::string_view(head.data(), static_cast<std::size_t>(file.gcount())) == png_begins;
}

const char* moving_format(const std::string& path) {
    std::ifstream file(path, std::ios::binary);
    std::array<char, 8> head{};
    file.read(head.data(), head.size());
    const std::string_view begins(head.data(), static_cast<std::size_t>(file.gcount()));
    if (begins.starts_with("GIF8")) return "gif";
    if (begins != png_begins) return nullptr;
    constexpr int most_chunks = 256;
    for (int i = 0; i < most_chunks && file.read(head.data(), head.size()); ++i) {
        const std::string_view kind(head.data() + 4, 4);
        if (kind == "acTL") return "apng";
        if (kind == "IDAT" || kind == "IEND") return nullptr;
        file.seekg(static_cast<std::streamoff>(big_endian(head.data())) + 4, std::ios::cur);
    }
    return nullptr;
}

}  // namespace lacquer
