#include "core/finish/json_line.h"

#include <cmath>
#include <nlohmann/json.hpp>

#include "core/base/text.h"

namespace lacquer {

namespace {

// In quotes; what is no UTF-8 is replaced.
std::string quoted(const std::string& text) {
    return nlohmann::json(text).dump(-1, ' ', false, nlohmann::json::error_handler_t::replace);
}

std::string scalar_text(const Json& value) {
    if (value.is_string()) return quoted(value.text());
    if (value.is_boolean()) return value.flag() ? "true" : "false";
    if (value.is_integer()) return std::to_string(value.integer());
    if (value.is_natural()) return std::to_string(value.natural());
    if (!value.is_number()) return "null";
    return std::isfinite(value.number()) ? shortest_number(value.number()) : "0";
}

}  // namespace

std::string one_line(const Json& value) {
    std::string text;
    if (value.is_object()) {
        for (const auto& [key, member] : value.members()) {
            text += (text.empty() ? "" : ", ") + quoted(key) + ": " + one_line(member);
        }
        return "{" + text + "}";
    }
    if (value.is_array()) {
        for (const Json& member : value.list()) text += (text.empty() ? "" : ", ") + one_line(member);
        return "[" + text + "]";
    }
    return scalar_text(value);
}

std::string one_line(const Json& object, const KeptKeys& kept) {
    std::string text = one_line(object);
    text.pop_back();
    for (const KeptKey& each : kept) {
        if (object.contains(each.key)) continue;
        text += (text.size() > 1 ? ", " : "") + quoted(each.key) + ": " + each.json;
    }
    return text + "}";
}

KeptKeys kept_keys_of(const Json& object) {
    KeptKeys kept;
    for (const auto& [key, value] : object.members()) kept.push_back({key, one_line(value)});
    return kept;
}

}  // namespace lacquer
