#include "core/ship/pictures/moving_png.h"

#include <zlib.h>

#include <cmath>
#include <cstdint>
#include <string_view>

#include "core/picture/png.h"

namespace lacquer {

namespace {

constexpr std::size_t signature_length = 8;

void put32(std::string& bytes, std::uint32_t word) {
    for (const unsigned shift : {24U, 16U, 8U, 0U}) bytes += static_cast<char>((word >> shift) & 255U);
}
void put16(std::string& bytes, std::uint32_t word) {
    for (const unsigned shift : {8U, 0U}) bytes += static_cast<char>((word >> shift) & 255U);
}
std::uint32_t word_at(std::string_view bytes, std::size_t at) {
    std::uint32_t word = 0;
    for (std::size_t k = 0; k < 4; ++k) word = (word << 8U) | static_cast<unsigned char>(bytes[at + k]);
    return word;
}

std::string chunk(std::string_view kind, const std::string& data) {
    std::string bytes;
    put32(bytes, static_cast<std::uint32_t>(data.size()));
    const std::string body = std::string(kind) + data;
    bytes += body;
    put32(bytes, static_cast<std::uint32_t>(
                     crc32(0, reinterpret_cast<const Bytef*>(body.data()), static_cast<uInt>(body.size()))));
    return bytes;
}

// Calls `visit(kind, data)` on the chunks of a file of ours.
template <class Visit>
void for_each_chunk(std::string_view png, Visit visit) {
    for (std::size_t at = signature_length; at + 12 <= png.size();) {
        const std::size_t length = word_at(png, at);
        visit(png.substr(at + 4, 4), png.substr(at + 8, length));
        at += length + 12;
    }
}

std::string control(std::uint32_t number, const Image8& image, double rate) {
    std::string data;
    put32(data, number);
    put32(data, static_cast<std::uint32_t>(image.width));
    put32(data, static_cast<std::uint32_t>(image.height));
    put32(data, 0);
    put32(data, 0);
    put16(data, 1000);
    put16(data, static_cast<std::uint32_t>(std::lround(rate * 1000) & 0xFFFF));
    // What was there before is taken away and written over: frames may be clear.
    data += '\1';
    data += '\0';
    return chunk("fcTL", data);
}

}  // namespace

Result<std::string> moving_png(const DrawnFrames& frames) {
    std::string bytes;
    std::uint32_t number = 0;
    for (std::size_t k = 0; k < frames.images.size(); ++k) {
        const Image8& image = frames.images[k];
        const Result<std::string> written = png_bytes(image);
        if (!written) return written.fault();
        const std::string& still = *written;
        if (k == 0) {
            bytes = still.substr(0, signature_length);
            for_each_chunk(still, [&](std::string_view kind, std::string_view data) {
                if (kind == "IDAT" || kind == "IEND") return;
                bytes += chunk(kind, std::string(data));
            });
            std::string all;
            put32(all, static_cast<std::uint32_t>(frames.images.size()));
            put32(all, 0);
            bytes += chunk("acTL", all);
        }
        bytes += control(number++, image, frames.rate);
        for_each_chunk(still, [&](std::string_view kind, std::string_view data) {
            if (kind != "IDAT") return;
            if (k == 0) {
                bytes += chunk("IDAT", std::string(data));
                return;
            }
            std::string later;
            put32(later, number++);
            bytes += chunk("fdAT", later + std::string(data));
        });
    }
    return bytes + chunk("IEND", {});
}

}  // namespace lacquer
