// Taking a file's values apart: nothing in it is trusted; what has the wrong shape is named and left out.
#pragma once

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <string>
#include <utility>
#include <vector>

#include "core/base/fault.h"
#include "core/finish/json_line.h"
#include "core/finish/limits.h"

namespace lacquer {

// Takes known keys out of an object one by one; what is left over is kept as it is.
class Fields {
public:
    using Json = nlohmann::ordered_json;

    Fields(const Json& object, std::string path, std::string where, Faults& notices)
        : path_(std::move(path)), where_(std::move(where)), notices_(notices) {
        if (object.is_object()) {
            left_ = object;
        } else {
            complain("", "an object");
        }
    }

    std::string text(const char* key, std::string otherwise = {}) {
        Json value;
        if (!take(key, value)) return otherwise;
        if (value.is_string()) return value.get<std::string>();
        complain(key, "a text");
        return otherwise;
    }
    bool flag(const char* key, bool otherwise) {
        Json value;
        if (!take(key, value)) return otherwise;
        if (value.is_boolean()) return value.get<bool>();
        complain(key, "true or false");
        return otherwise;
    }
    double number(const char* key, double otherwise) {
        Json value;
        if (!take(key, value)) return otherwise;
        if (is_number(value)) return value.get<double>();
        complain(key, "a number");
        return otherwise;
    }
    /// `count` numbers in a row, or false.
    bool numbers(const char* key, std::size_t count, std::vector<double>& numbers) {
        Json value;
        if (!take(key, value)) return false;
        if (value.is_array() && value.size() == count && std::all_of(value.begin(), value.end(), is_number)) {
            numbers = value.get<std::vector<double>>();
            return true;
        }
        complain(key, fmt::format("{} numbers", count));
        return false;
    }
    bool take(const char* key, Json& value) {
        const auto found = left_.find(key);
        if (found == left_.end()) return false;
        value = std::move(*found);
        left_.erase(found);
        return true;
    }
    /// Calls `read(Fields&)` for each object of a list; of one that is too long, for as many as are allowed.
    template <class Read>
    void each(const char* key, Read read, std::size_t most = max_members) {
        Json list;
        if (!take(key, list)) return;
        if (!list.is_array() || list.size() > most) complain(key, fmt::format("a list of at most {}", most));
        if (!list.is_array()) return;
        for (std::size_t i = 0; i < std::min(list.size(), most); ++i) {
            Fields fields(list[i], fmt::format("{}{}[{}]", prefix(), key, i + 1), where_, notices_);
            if (list[i].is_object()) read(fields);
        }
    }
    void complain(const std::string& key, const std::string& wanted) {
        std::string name = path_.empty() || key.empty() ? path_ + key : path_ + "." + key;
        notices_.push_back({"file.value", fmt::format("'{}' should be {}", name, wanted), "its usual value was taken",
                            Place{where_, {}, 0, 0}, Severity::warning});
    }
    const Json& left() const { return left_; }
    /// What was not taken, to be kept.
    KeptKeys kept() const { return kept_keys_of(left_); }
    static bool is_number(const Json& value) {
        return value.is_number() && std::fabs(value.get<double>()) <= largest_number;
    }

private:
    std::string prefix() const { return path_.empty() ? "" : path_ + "."; }
    Json left_ = Json::object();
    std::string path_;
    std::string where_;
    Faults& notices_;
};

}  // namespace lacquer
