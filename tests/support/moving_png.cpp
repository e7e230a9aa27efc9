#include "tests/support/moving_png.h"

#include <cstdint>

namespace lacquer::test {

namespace {

std::string big_endian(std::uint32_t number, int bytes) {
    std::string text;
    for (int i = bytes - 1; i >= 0; --i) text += static_cast<char>(number >> (8 * i) & 255U);
    return text;
}

// CRC-32 as PNG has it (ISO 3309, polynomial 0xEDB88320 reflected).
std::uint32_t crc(const std::string& bytes) {
    std::uint32_t sum = 0xFFFFFFFFU;
    for (const char byte : bytes) {
        sum ^= static_cast<unsigned char>(byte);
        for (int bit = 0; bit < 8; ++bit) sum = (sum & 1U) != 0 ? 0xEDB88320U ^ sum >> 1U : sum >> 1U;
    }
    return ~sum;
}

std::string chunk(const std::string& kind, const std::string& data) {
    return big_endian(static_cast<std::uint32_t>(data.size()), 4) + kind + data + big_endian(crc(kind + data), 4);
}

// A zlib stream (RFC 1950) of one stored block (RFC 1951).
std::string stored(const std::string& data) {
    std::uint32_t a = 1;
    std::uint32_t b = 0;
    for (const char byte : data) {
        a = (a + static_cast<unsigned char>(byte)) % 65521;
        b = (b + a) % 65521;
    }
    const auto size = static_cast<std::uint32_t>(data.size());
    const auto low_first = [](std::uint32_t n) {
        return std::string{static_cast<char>(n & 255U), static_cast<char>(n >> 8U & 255U)};
    };
    return std::string("\x78\x01\x01") + low_first(size) + low_first(~size & 0xFFFFU) + data +
           big_endian(b << 16U | a, 4);
}

std::string pixels(int width, int height, std::uint8_t red) {
    std::string rows;
    for (int y = 0; y < height; ++y) {
        rows += '\0';  // no filter
        for (int x = 0; x < width; ++x) rows += {static_cast<char>(red), 20, 30, static_cast<char>(255)};
    }
    return stored(rows);
}

std::string control(std::uint32_t number, std::uint32_t width, std::uint32_t x, std::uint32_t hundredths) {
    return chunk("fcTL", big_endian(number, 4) + big_endian(width, 4) + big_endian(2, 4) + big_endian(x, 4) +
                             big_endian(0, 4) + big_endian(hundredths, 2) + big_endian(100, 2) + big_endian(0, 1) +
                             big_endian(0, 1));
}

}  // namespace

std::string moving_png(const TemporaryFolder& folder, const std::string& name) {
    const std::string head = big_endian(4, 4) + big_endian(2, 4) + std::string("\x08\x06\x00\x00\x00", 5);
    const std::string bytes = std::string("\x89PNG\r\n\x1a\n") + chunk("IHDR", head) +
                              chunk("acTL", big_endian(3, 4) + big_endian(0, 4)) + control(0, 4, 0, 25) +
                              chunk("IDAT", pixels(4, 2, 10)) + control(1, 2, 2, 50) +
                              chunk("fdAT", big_endian(2, 4) + pixels(2, 2, 200)) + control(3, 2, 0, 10) +
                              chunk("fdAT", big_endian(4, 4) + pixels(2, 2, 90)) + chunk("IEND", "");
    write_file(folder.file(name), bytes);
    return folder.file(name);
}

}  // namespace lacquer::test
