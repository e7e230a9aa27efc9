#include "core/finish/colour_text.h"

#include <fmt/core.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <vector>

#include "core/base/text.h"
#include "core/picture/transfer.h"

namespace lacquer {

namespace {

std::vector<std::string> pieces(std::string_view text) {
    std::vector<std::string> found;
    std::string piece;
    const auto end = [&] {
        if (!piece.empty()) found.push_back(std::move(piece));
        piece.clear();
    };
    for (const char c : text) {
        // The bytes of the multiplication sign part pieces like blanks do.
        const bool parts =
            c == ' ' || c == ',' || c == '\t' || c == '*' || c == 'x' || static_cast<unsigned char>(c) >= 0x80;
        if (parts) {
            end();
        } else {
            piece += c;
        }
    }
    end();
    return found;
}

}  // namespace

std::string colour_text(const DialValue& colour) {
    const double largest = std::max({colour[0], colour[1], colour[2]});
    if (std::min({colour[0], colour[1], colour[2]}) < 0) {
        return fmt::format("{} {} {}", shortest_number(colour[0]), shortest_number(colour[1]),
                           shortest_number(colour[2]));
    }
    const double brightness = std::max(1.0, largest);
    std::string text = "#";
    for (const double part : colour) {
        text += fmt::format("{:02X}",
                            static_cast<int>(std::lround(std::clamp(srgb_encode(part / brightness), 0.0, 1.0) * 255)));
    }
    if (brightness > 1) text += " x " + shortest_number(std::round(brightness * 1000) / 1000);
    return text;
}

std::optional<DialValue> parse_colour(std::string_view text) {
    const std::vector<std::string> words = pieces(text);
    DialValue colour{};
    if (!words.empty() && words[0][0] == '#' && words[0].size() == 7 && words.size() <= 2) {
        double brightness = 1;
        if (words.size() == 2) {
            const auto number = parse_number(words[1]);
            if (!number || *number < 0) return std::nullopt;
            brightness = *number;
        }
        for (std::size_t c = 0; c < 3; ++c) {
            int level = 0;
            const char* first = words[0].data() + 1 + 2 * c;
            const auto [end, error] = std::from_chars(first, first + 2, level, 16);
            if (error != std::errc() || end != first + 2) return std::nullopt;
            colour[c] = srgb_decode(level / 255.0) * brightness;
        }
        return colour;
    }
    if (words.size() != 3) return std::nullopt;
    for (std::size_t c = 0; c < 3; ++c) {
        const auto number = parse_number(words[c]);
        if (!number) return std::nullopt;
        colour[c] = *number;
    }
    return colour;
}

}  // namespace lacquer
