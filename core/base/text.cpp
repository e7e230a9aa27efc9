#include "core/base/text.h"

#include <fmt/core.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numeric>

namespace lacquer {

namespace {

bool is_lower(char c) { return c >= 'a' && c <= 'z'; }
bool is_digit(char c) { return c >= '0' && c <= '9'; }

std::size_t edit_distance(std::string_view a, std::string_view b) {
    std::vector<std::size_t> row(b.size() + 1);
    std::iota(row.begin(), row.end(), std::size_t{0});
    for (std::size_t i = 1; i <= a.size(); ++i) {
        std::size_t diagonal = row[0];
        row[0] = i;
        for (std::size_t j = 1; j <= b.size(); ++j) {
            const std::size_t replace = diagonal + (a[i - 1] == b[j - 1] ? 0 : 1);
            diagonal = row[j];
            row[j] = std::min({replace, row[j] + 1, row[j - 1] + 1});
        }
    }
    return row[b.size()];
}

}  // namespace

bool is_identifier(std::string_view name) {
    if (name.empty() || name.size() > max_name_length || !is_lower(name[0])) return false;
    return std::all_of(name.begin(), name.end(), [](char c) { return is_lower(c) || is_digit(c) || c == '_'; });
}

std::string identifier_from(std::string_view typed) {
    std::string name;
    for (char c : typed) {
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
        if (is_lower(c) || (is_digit(c) && !name.empty())) {
            name += c;
        } else if ((c == ' ' || c == '_' || c == '-') && !name.empty() && name.back() != '_') {
            name += '_';
        }
    }
    if (name.size() > max_name_length) name.resize(max_name_length);
    while (!name.empty() && name.back() == '_') name.pop_back();
    return name;
}

std::string shown_name(std::string_view identifier) {
    std::string shown(identifier);
    std::replace(shown.begin(), shown.end(), '_', ' ');
    return shown;
}

std::optional<std::string> nearest_name(std::string_view name, const std::vector<std::string>& candidates) {
    // Longer than any name there is: nothing can be near, and the distance costs its length squared.
    if (name.size() > 2 * max_name_length) return std::nullopt;
    std::optional<std::string> best;
    std::size_t best_distance = std::max<std::size_t>(1, name.size() / 3) + 1;
    for (const std::string& candidate : candidates) {
        const std::size_t distance = edit_distance(name, candidate);
        if (distance < best_distance) {
            best_distance = distance;
            best = candidate;
        }
    }
    return best;
}

std::string shortest_number(double value) {
    if (std::isnan(value)) return "nan";
    if (std::isinf(value)) return value > 0 ? "inf" : "-inf";
    char buffer[64];
    const auto [end, error] = std::to_chars(std::begin(buffer), std::end(buffer), value);
    return error == std::errc() ? std::string(std::begin(buffer), end) : std::string("0");
}

std::string plain_number(double value, int decimals) {
    if (!std::isfinite(value)) return shortest_number(value);
    if (std::fabs(value) >= 1e9) return fmt::format("{:.4g}", value);
    std::string text = fmt::format("{:.{}f}", value, decimals);
    if (text.find('.') != std::string::npos) {
        while (text.back() == '0') text.pop_back();
        if (text.back() == '.') text.pop_back();
    }
    return text == "-0" ? "0" : text;
}

std::string counted(std::size_t count, std::string_view one, std::string_view many) {
    if (count == 1) return fmt::format("1 {}", one);
    return many.empty() ? fmt::format("{} {}s", count, one) : fmt::format("{} {}", count, many);
}

std::optional<double> parse_number(std::string_view text) {
    const auto first = text.find_first_not_of(" \t");
    if (first == std::string_view::npos) return std::nullopt;
    const auto last = text.find_last_not_of(" \t");
    text = text.substr(first, last - first + 1);
    if (text[0] == '+') text.remove_prefix(1);
    double value = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(value)) return std::nullopt;
    return value;
}

}  // namespace lacquer
