#include "core/finish/json_fields.h"

#include <fmt/core.h>

#include <cmath>
#include <utility>

#include "core/finish/json_line.h"

namespace lacquer {

Fields::Fields(Json object, std::string path, std::string where, Faults& notices)
    : path_(std::move(path)), where_(std::move(where)), notices_(notices) {
    if (object.is_object()) {
        left_ = std::move(object);
    } else {
        complain("", "an object");
    }
}

std::string Fields::text(const char* key, std::string otherwise) {
    Json value;
    if (!take(key, value)) return otherwise;
    if (value.is_string()) return value.text();
    complain(key, "a text");
    return otherwise;
}

bool Fields::flag(const char* key, bool otherwise) {
    Json value;
    if (!take(key, value)) return otherwise;
    if (value.is_boolean()) return value.flag();
    complain(key, "true or false");
    return otherwise;
}

double Fields::number(const char* key, double otherwise) {
    Json value;
    if (!take(key, value)) return otherwise;
    if (is_number(value)) return value.number();
    complain(key, "a number");
    return otherwise;
}

bool Fields::numbers(const char* key, std::size_t count, std::vector<double>& numbers) {
    Json value;
    if (!take(key, value)) return false;
    const std::vector<Json>& list = value.list();
    if (list.size() == count && std::all_of(list.begin(), list.end(), is_number)) {
        numbers.clear();
        for (const Json& member : list) numbers.push_back(member.number());
        return true;
    }
    complain(key, fmt::format("{} numbers", count));
    return false;
}

bool Fields::take(const char* key, Json& value) {
    if (!has(key)) return false;
    value = left_.take(key);
    return true;
}

std::vector<Json> Fields::listed(const char* key, std::size_t most) {
    Json value;
    if (!take(key, value)) return {};
    if (!value.is_array() || value.size() > most) complain(key, fmt::format("a list of at most {}", most));
    std::vector<Json> list = value.list();
    if (list.size() > most) list.resize(most);
    return list;
}

std::string Fields::member_path(const char* key, std::size_t index) const {
    return fmt::format("{}{}{}[{}]", path_, path_.empty() ? "" : ".", key, index + 1);
}

void Fields::complain(const std::string& key, const std::string& wanted) {
    const std::string name = path_.empty() || key.empty() ? path_ + key : path_ + "." + key;
    notices_.push_back({"file.value", fmt::format("'{}' should be {}", name, wanted), "its usual value was taken",
                        Place{where_, {}, 0, 0}, Severity::warning});
}

KeptKeys Fields::kept() const { return kept_keys_of(left_); }

bool Fields::is_number(const Json& value) { return value.is_number() && std::fabs(value.number()) <= largest_number; }

}  // namespace lacquer
