#include "core/finish/json_line.h"

#include <cmath>

#include "core/base/text.h"

namespace lacquer {

namespace {

using Json = nlohmann::ordered_json;

std::string scalar_text(const Json& value) {
    if (value.is_number_float()) {
        const double number = value.get<double>();
        return std::isfinite(number) ? shortest_number(number) : "0";
    }
    return value.dump(-1, ' ', false, Json::error_handler_t::replace);
}

}  // namespace

std::string one_line(const Json& value) {
    std::string text;
    if (value.is_object()) {
        for (const auto& [key, member] : value.items()) {
            text += (text.empty() ? "" : ", ") + scalar_text(Json(key)) + ": " + one_line(member);
        }
        return "{" + text + "}";
    }
    if (value.is_array()) {
        for (const Json& member : value) text += (text.empty() ? "" : ", ") + one_line(member);
        return "[" + text + "]";
    }
    return scalar_text(value);
}

std::string one_line(const Json& object, const KeptKeys& kept) {
    std::string text = one_line(object);
    text.pop_back();
    for (const KeptKey& each : kept) {
        if (object.contains(each.key)) continue;
        text += (text.size() > 1 ? ", " : "") + scalar_text(Json(each.key)) + ": " + each.json;
    }
    return text + "}";
}

KeptKeys kept_keys_of(const Json& object) {
    KeptKeys kept;
    for (const auto& [key, value] : object.items()) kept.push_back({key, one_line(value)});
    return kept;
}

}  // namespace lacquer
