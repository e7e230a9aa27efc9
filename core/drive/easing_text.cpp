// Easings by name and by the functions of CSS Easing.
#include <algorithm>
#include <charconv>
#include <cmath>

#include "core/base/text.h"
#include "core/drive/easing.h"

namespace lacquer {

namespace {

constexpr std::size_t most_points = 256;
constexpr int most_steps = 10'000;

std::string_view trimmed(std::string_view text) {
    while (!text.empty() && (text.front() == ' ' || text.front() == '\t')) text.remove_prefix(1);
    while (!text.empty() && (text.back() == ' ' || text.back() == '\t')) text.remove_suffix(1);
    return text;
}

std::vector<std::string_view> split(std::string_view text, char at) {
    std::vector<std::string_view> parts;
    while (true) {
        const std::size_t end = text.find(at);
        parts.push_back(trimmed(text.substr(0, end)));
        if (end == std::string_view::npos) return parts;
        text.remove_prefix(end + 1);
    }
}

// What stands between the brackets of `function(...)`.
std::optional<std::string_view> inside(std::string_view text, std::string_view function) {
    if (!text.starts_with(function) || !text.ends_with(')')) return std::nullopt;
    text.remove_prefix(function.size());
    if (!text.starts_with('(')) return std::nullopt;
    return text.substr(1, text.size() - 2);
}

std::optional<Easing> bezier_from(std::string_view text) {
    const std::vector<std::string_view> parts = split(text, ',');
    if (parts.size() != 4) return std::nullopt;
    std::array<double, 4> numbers{};
    for (std::size_t i = 0; i < 4; ++i) {
        const auto number = parse_number(parts[i]);
        if (!number || std::fabs(*number) > 1e6) return std::nullopt;
        numbers[i] = *number;
    }
    if (numbers[0] < 0 || numbers[0] > 1 || numbers[2] < 0 || numbers[2] > 1) return std::nullopt;
    return Easing{BezierEasing{numbers[0], numbers[1], numbers[2], numbers[3]}};
}

std::optional<Easing> steps_from(std::string_view text) {
    using Jump = StepsEasing::Jump;
    const std::vector<std::string_view> parts = split(text, ',');
    if (parts.size() > 2) return std::nullopt;
    StepsEasing stair;
    const auto read = std::from_chars(parts[0].data(), parts[0].data() + parts[0].size(), stair.count);
    if (read.ec != std::errc() || read.ptr != parts[0].data() + parts[0].size()) return std::nullopt;
    if (parts.size() == 2) {
        const std::string_view jump = parts[1];
        if (jump == "jump-start" || jump == "start") {
            stair.jump = Jump::start;
        } else if (jump == "jump-none") {
            stair.jump = Jump::none;
        } else if (jump == "jump-both") {
            stair.jump = Jump::both;
        } else if (jump != "jump-end" && jump != "end") {
            return std::nullopt;
        }
    }
    const int least = stair.jump == Jump::none ? 2 : 1;
    if (stair.count < least || stair.count > most_steps) return std::nullopt;
    return Easing{stair};
}

std::optional<double> share_of(std::string_view text) {
    if (!text.ends_with('%')) return std::nullopt;
    text.remove_suffix(1);
    const auto number = parse_number(text);
    return number ? std::optional<double>(*number / 100) : std::nullopt;
}

// A point without a time lies evenly between its neighbours that have one; times never go back.
std::optional<Easing> linear_from(std::string_view text) {
    struct Point {
        double value;
        std::optional<double> at;
    };
    std::vector<Point> points;
    for (const std::string_view part : split(text, ',')) {
        std::optional<double> value;
        std::vector<double> at;
        for (const std::string_view word : split(part, ' ')) {
            if (word.empty()) continue;
            const std::optional<double> share = share_of(word);
            const std::optional<double> number = share ? std::nullopt : parse_number(word);
            if (share && at.size() < 2) {
                at.push_back(*share);
            } else if (number && !value) {
                value = *number;
            } else {
                return std::nullopt;
            }
        }
        if (!value || std::fabs(*value) > 1e6) return std::nullopt;
        points.push_back({*value, at.empty() ? std::nullopt : std::optional<double>(at[0])});
        if (at.size() == 2) points.push_back({*value, at[1]});
    }
    if (points.size() < 2 || points.size() > most_points) return std::nullopt;
    if (!points.front().at) points.front().at = 0;
    if (!points.back().at) points.back().at = 1;
    double latest = *points.front().at;
    for (Point& point : points) {
        if (point.at) point.at = latest = std::max(latest, *point.at);
    }
    for (std::size_t i = 1; i < points.size(); ++i) {
        if (points[i].at) continue;
        std::size_t next = i;
        while (!points[next].at) ++next;
        const double from = *points[i - 1].at;
        points[i].at = from + (*points[next].at - from) / static_cast<double>(next - i + 1);
    }
    LinearEasing line;
    for (const Point& point : points) line.points.push_back({*point.at, point.value});
    return Easing{line};
}

constexpr std::array<std::string_view, 10> curve_names = {"sine", "quad", "cubic", "quart",   "quint",
                                                          "expo", "circ", "back",  "elastic", "bounce"};

std::optional<Easing> css_named(std::string_view name) {
    if (name == "linear") return Easing{BezierEasing{0, 0, 1, 1}};
    if (name == "ease") return Easing{BezierEasing{0.25, 0.1, 0.25, 1}};
    if (name == "ease_in") return Easing{BezierEasing{0.42, 0, 1, 1}};
    if (name == "ease_out") return Easing{BezierEasing{0, 0, 0.58, 1}};
    if (name == "ease_in_out") return Easing{BezierEasing{0.42, 0, 0.58, 1}};
    return std::nullopt;
}

std::optional<Easing> curve_named(std::string_view name) {
    using End = NamedEasing::End;
    End end = End::in;
    if (name.starts_with("in_out_")) {
        end = End::in_out;
        name.remove_prefix(7);
    } else if (name.starts_with("in_")) {
        name.remove_prefix(3);
    } else if (name.starts_with("out_")) {
        end = End::out;
        name.remove_prefix(4);
    } else {
        return std::nullopt;
    }
    const auto found = std::find(curve_names.begin(), curve_names.end(), name);
    if (found == curve_names.end()) return std::nullopt;
    return Easing{NamedEasing{static_cast<NamedEasing::Curve>(found - curve_names.begin()), end}};
}

}  // namespace

const std::vector<std::string>& css_easing_names() {
    static const std::vector<std::string> names = {"linear", "ease", "ease_in", "ease_out", "ease_in_out"};
    return names;
}

const std::vector<std::string>& easing_names() {
    static const std::vector<std::string> names = [] {
        std::vector<std::string> all = css_easing_names();
        for (const std::string_view curve : curve_names) {
            for (const char* end : {"in_", "out_", "in_out_"}) all.push_back(end + std::string(curve));
        }
        return all;
    }();
    return names;
}

std::optional<Easing> easing_named(std::string_view text) {
    text = trimmed(text);
    if (auto css = css_named(text)) return css;
    if (auto curve = curve_named(text)) return curve;
    if (const auto numbers = inside(text, "cubic-bezier")) return bezier_from(*numbers);
    if (const auto stair = inside(text, "steps")) return steps_from(*stair);
    if (const auto points = inside(text, "linear")) return linear_from(*points);
    return std::nullopt;
}

Result<Easing> easing_from(std::string_view text) {
    if (auto easing = easing_named(text)) return *easing;
    const auto near = nearest_name(text, easing_names());
    return Fault{"drive.easing",
                 "there is no easing '" + std::string(text) + "'",
                 near ? "did you mean " + *near + "?"
                      : "write a name such as ease_out, or cubic-bezier(0.2, 0, 0.6, 1), steps(4, jump-end), "
                        "linear(0, 0.3 25%, 1)",
                 {},
                 Severity::fault};
}

}  // namespace lacquer
