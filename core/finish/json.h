// A JSON value in memory (ECMA-404). Only the parser and the printer know the library that does the work, since
// whatever includes that takes long to compile.
#pragma once

#include <cstdint>
#include <initializer_list>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

namespace lacquer {

class Json {
public:
    using Member = std::pair<std::string, Json>;

    Json() = default;
    Json(bool value) : value_(value) {}
    Json(int value) : value_(static_cast<std::int64_t>(value)) {}
    Json(std::int64_t value) : value_(value) {}
    Json(std::uint64_t value) : value_(value) {}
    Json(double value) : value_(value) {}
    Json(const char* value) : value_(std::string(value)) {}
    Json(std::string_view value) : value_(std::string(value)) {}
    Json(std::string value) : value_(std::move(value)) {}
    /// A list of what stands between the brackets.
    Json(std::initializer_list<Json> members) : value_(std::vector<Json>(members)) {}

    static Json array();
    static Json object(std::initializer_list<Member> members = {});

    bool is_boolean() const { return std::holds_alternative<bool>(value_); }
    bool is_integer() const { return std::holds_alternative<std::int64_t>(value_); }
    bool is_natural() const { return std::holds_alternative<std::uint64_t>(value_); }
    bool is_number() const { return std::holds_alternative<double>(value_) || is_integer() || is_natural(); }
    bool is_string() const { return std::holds_alternative<std::string>(value_); }
    bool is_array() const { return std::holds_alternative<std::vector<Json>>(value_); }
    bool is_object() const { return std::holds_alternative<std::vector<Member>>(value_); }

    /// What it holds; false, 0 or nothing if it holds something else.
    bool flag() const;
    double number() const;
    std::int64_t integer() const;
    std::uint64_t natural() const;
    const std::string& text() const;
    const std::vector<Json>& list() const;
    const std::vector<Member>& members() const;

    /// How many members a list or object has; 0 for all else.
    std::size_t size() const { return is_object() ? members().size() : list().size(); }

    /// Adds to a list; what is nothing yet becomes one.
    Json& push_back(Json value);
    /// The value under a key, in the order in which keys came; what is nothing yet becomes an object.
    Json& operator[](std::string_view key);
    /// Null if it is no object or has no such key.
    const Json* find(std::string_view key) const;
    bool contains(std::string_view key) const { return find(key) != nullptr; }
    /// Takes a key out, and gives what it held; nothing if it was not there.
    Json take(std::string_view key);

private:
    std::variant<std::monostate, bool, std::int64_t, std::uint64_t, double, std::string, std::vector<Json>,
                 std::vector<Member>>
        value_;
};

}  // namespace lacquer
