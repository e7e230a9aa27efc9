#include "core/finish/json.h"

#include <algorithm>

namespace lacquer {

Json Json::array() {
    Json made;
    made.value_ = std::vector<Json>();
    return made;
}

Json Json::object(std::initializer_list<Member> members) {
    Json made;
    made.value_ = std::vector<Member>(members);
    return made;
}

bool Json::flag() const {
    const bool* own = std::get_if<bool>(&value_);
    return own != nullptr && *own;
}

double Json::number() const {
    if (is_integer()) return static_cast<double>(integer());
    if (is_natural()) return static_cast<double>(natural());
    const double* own = std::get_if<double>(&value_);
    return own != nullptr ? *own : 0;
}

std::int64_t Json::integer() const {
    const auto* own = std::get_if<std::int64_t>(&value_);
    return own != nullptr ? *own : 0;
}

std::uint64_t Json::natural() const {
    const auto* own = std::get_if<std::uint64_t>(&value_);
    return own != nullptr ? *own : 0;
}

const std::string& Json::text() const {
    static const std::string none;
    const auto* own = std::get_if<std::string>(&value_);
    return own != nullptr ? *own : none;
}

const std::vector<Json>& Json::list() const {
    static const std::vector<Json> none;
    const auto* own = std::get_if<std::vector<Json>>(&value_);
    return own != nullptr ? *own : none;
}

const std::vector<Json::Member>& Json::members() const {
    static const std::vector<Member> none;
    const auto* own = std::get_if<std::vector<Member>>(&value_);
    return own != nullptr ? *own : none;
}

Json& Json::push_back(Json value) {
    if (!is_array()) value_ = std::vector<Json>();
    auto& own = std::get<std::vector<Json>>(value_);
    own.push_back(std::move(value));
    return own.back();
}

Json& Json::operator[](std::string_view key) {
    if (!is_object()) value_ = std::vector<Member>();
    auto& own = std::get<std::vector<Member>>(value_);
    const auto found = std::find_if(own.begin(), own.end(), [&](const Member& member) { return member.first == key; });
    if (found != own.end()) return found->second;
    own.emplace_back(std::string(key), Json());
    return own.back().second;
}

const Json* Json::find(std::string_view key) const {
    for (const auto& [name, value] : members()) {
        if (name == key) return &value;
    }
    return nullptr;
}

Json Json::take(std::string_view key) {
    auto* own = std::get_if<std::vector<Member>>(&value_);
    if (own == nullptr) return {};
    const auto found =
        std::find_if(own->begin(), own->end(), [&](const Member& member) { return member.first == key; });
    if (found == own->end()) return {};
    Json taken = std::move(found->second);
    own->erase(found);
    return taken;
}

}  // namespace lacquer
