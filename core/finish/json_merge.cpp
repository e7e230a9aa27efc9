#include "core/finish/json_merge.h"

#include <algorithm>

#include "core/finish/json_line.h"

namespace lacquer {

namespace {

bool is_null(const Json& value) {
    return !value.is_boolean() && !value.is_number() && !value.is_string() && !value.is_array() && !value.is_object();
}

bool equal(const Json& a, const Json& b) { return one_line(a) == one_line(b); }

bool are_alike_lists(const Json& a, const Json& b) {
    const auto all_objects = [](const Json& list) {
        return std::all_of(list.list().begin(), list.list().end(), [](const Json& each) { return each.is_object(); });
    };
    return a.is_array() && b.is_array() && a.size() == b.size() && a.size() > 0 && all_objects(a) && all_objects(b);
}

Json merged_list(const Json& target, const Json& patch) {
    Json list = Json::array();
    for (std::size_t i = 0; i < target.list().size(); ++i) {
        const Json* change = patch.find(std::to_string(i));
        list.push_back(change != nullptr ? merged(target.list()[i], *change) : target.list()[i]);
    }
    return list;
}

}  // namespace

Json merged(Json target, const Json& patch) {
    if (!patch.is_object()) return patch;
    if (target.is_array()) return merged_list(target, patch);
    if (!target.is_object()) target = Json::object();
    for (const auto& [key, value] : patch.members()) {
        if (is_null(value)) {
            target.take(key);
        } else {
            const Json* there = target.find(key);
            Json changed = merged(there != nullptr ? *there : Json(), value);
            target[key] = std::move(changed);
        }
    }
    return target;
}

Json merge_patch(const Json& from, const Json& to) {
    Json patch = Json::object();
    if (are_alike_lists(from, to)) {
        for (std::size_t i = 0; i < from.list().size(); ++i) {
            Json change = merge_patch(from.list()[i], to.list()[i]);
            if (change.size() > 0) patch[std::to_string(i)] = std::move(change);
        }
        return patch;
    }
    if (!from.is_object() || !to.is_object()) return equal(from, to) ? patch : to;
    for (const auto& [key, value] : from.members()) {
        if (!to.contains(key)) patch[key] = Json();
    }
    for (const auto& [key, value] : to.members()) {
        const Json* before = from.find(key);
        if (before != nullptr && equal(*before, value)) continue;
        const bool goes_in =
            before != nullptr && ((before->is_object() && value.is_object()) || are_alike_lists(*before, value));
        patch[key] = goes_in ? merge_patch(*before, value) : value;
    }
    return patch;
}

}  // namespace lacquer
