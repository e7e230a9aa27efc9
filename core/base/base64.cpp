#include "core/base/base64.h"

#include <cstdint>
#include <string_view>

namespace lacquer {

std::string base64(const std::string& bytes) {
    static constexpr std::string_view letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string text;
    text.reserve((bytes.size() + 2) / 3 * 4);
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        std::uint32_t word = 0;
        for (std::size_t k = 0; k < 3; ++k)
            word = (word << 8U) | (i + k < bytes.size() ? static_cast<unsigned char>(bytes[i + k]) : 0U);
        for (std::size_t k = 0; k < 4; ++k)
            text += i + k <= bytes.size() ? letters[(word >> (18U - 6U * static_cast<unsigned>(k))) & 63U] : '=';
    }
    return text;
}

}  // namespace lacquer
