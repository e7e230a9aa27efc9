#include "core/finish/stops_text.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/finish/colour_text.h"
#include "core/finish/stops_table.h"

namespace lacquer {

namespace {

constexpr std::string_view opacity_word = " opacity ";

std::string_view trimmed(std::string_view text) {
    const auto begin = text.find_first_not_of(" \t\n");
    if (begin == std::string_view::npos) return {};
    return text.substr(begin, text.find_last_not_of(" \t\n") - begin + 1);
}

Fault unread(std::string_view stop, StopValues values) {
    return {"finish.stops", "'" + std::string(stop.substr(0, 40)) + "' isn't a stop",
            values == StopValues::heights
                ? "write a place and a height, such as 0.5 1"
                : "write a place and a colour, such as 0.5 #FFCC88 or 0.5 #FFCC88 opacity 0.4",
            Place{}, Severity::fault};
}

bool read_colour(std::string_view text, Stop& stop) {
    const auto opacity = text.find(opacity_word);
    if (opacity != std::string_view::npos) {
        const auto share = parse_number(trimmed(text.substr(opacity + opacity_word.size())));
        if (!share) return false;
        stop.value[3] = *share;
        text = text.substr(0, opacity);
    }
    const auto colour = parse_colour(trimmed(text));
    if (!colour) return false;
    for (std::size_t c = 0; c < 3; ++c) stop.value[c] = (*colour)[c];
    return true;
}

// An easing as the last word, taken off the text.
std::string easing_at_end(std::string_view& text) {
    const auto space = text.rfind(' ');
    const std::string word(
        stop_easing_named(space == std::string_view::npos ? std::string_view() : text.substr(space + 1)));
    const auto& known = stop_easings();
    if (std::find(known.begin(), known.end(), word) == known.end()) return {};
    text = trimmed(text.substr(0, space));
    return word;
}

bool read_stop(StopValues values, std::string_view text, Stop& stop) {
    stop.easing = easing_at_end(text);
    const auto space = text.find(' ');
    const auto at = parse_number(text.substr(0, space));
    if (!at || space == std::string_view::npos) return false;
    stop.at = *at;
    const std::string_view rest = trimmed(text.substr(space));
    if (values != StopValues::heights) return read_colour(rest, stop);
    const auto height = parse_number(rest);
    stop.value = {height.value_or(0), 0, 0, 1};
    return height.has_value();
}

}  // namespace

std::string stops_text(StopValues values, const std::vector<Stop>& stops) {
    std::string text;
    for (const Stop& stop : stops) {
        text += (text.empty() ? "" : ", ") + shortest_number(stop.at) + " ";
        if (values == StopValues::heights) {
            text += shortest_number(stop.value[0]);
        } else {
            text += colour_text({stop.value[0], stop.value[1], stop.value[2]});
            if (stop.value[3] != 1) text += std::string(opacity_word) + shortest_number(stop.value[3]);
        }
        if (!stop.easing.empty()) text += " " + stop.easing;
    }
    return text;
}

Result<std::vector<Stop>> parse_stops(StopValues values, std::string_view text) {
    std::vector<Stop> stops;
    while (true) {
        const auto comma = text.find(',');
        const std::string_view words = trimmed(text.substr(0, comma));
        Stop stop;
        if (!read_stop(values, words, stop)) return unread(words, values);
        stops.push_back(stop);
        if (comma == std::string_view::npos) return stops;
        text = text.substr(comma + 1);
    }
}

}  // namespace lacquer
