#include "core/finish/json_tree.h"

#include <nlohmann/json.hpp>
#include <vector>

namespace lacquer {

namespace {

// Builds the tree from parser events, and stops at the first thing that is too deep: the library's own builder would go
// on for as long as there are brackets.
class TreeBuilder : public nlohmann::json_sax<nlohmann::json> {
public:
    bool null() override { return put(Json()); }
    bool boolean(bool value) override { return put(value); }
    bool number_integer(number_integer_t value) override { return put(value); }
    bool number_unsigned(number_unsigned_t value) override { return put(value); }
    bool number_float(number_float_t value, const string_t&) override { return put(value); }
    bool string(string_t& value) override { return put(std::move(value)); }
    bool binary(binary_t&) override { return false; }
    bool start_object(std::size_t) override { return open(Json::object()); }
    bool start_array(std::size_t) override { return open(Json::array()); }
    bool end_object() override { return close(); }
    bool end_array() override { return close(); }
    bool key(string_t& value) override {
        // Keys are looked up one by one, so a flood of them would cost its square.
        too_many = open_.back()->size() >= max_json_keys;
        keys_.back() = std::move(value);
        return !too_many;
    }
    bool parse_error(std::size_t position, const std::string&, const nlohmann::detail::exception&) override {
        if (error_position == 0) error_position = position;
        return false;
    }

    Json root;
    bool too_deep = false;
    bool too_many = false;
    std::size_t error_position = 0;

private:
    bool put(Json value) {
        place(std::move(value));
        too_many = ++values_ > max_json_values;
        return !too_many;
    }
    Json* place(Json value) {
        if (open_.empty()) {
            root = std::move(value);
            return &root;
        }
        Json& parent = *open_.back();
        if (parent.is_array()) {
            return &parent.push_back(std::move(value));
        }
        Json& there = parent[keys_.back()];
        there = std::move(value);
        return &there;
    }
    bool open(Json value) {
        if (open_.size() >= max_json_depth) {
            too_deep = true;
            return false;
        }
        open_.push_back(place(std::move(value)));
        keys_.emplace_back();
        too_many = ++values_ > max_json_values;
        return !too_many;
    }
    bool close() {
        open_.pop_back();
        keys_.pop_back();
        return true;
    }

    std::vector<Json*> open_;
    std::vector<std::string> keys_;
    std::size_t values_ = 0;
};

Place place_at(std::string_view text, std::size_t position, const std::string& where) {
    Place place{where, {}, 1, 1};
    // The parser counts what it has read, so its position lies one past the character at fault.
    for (std::size_t i = 0; i + 1 < position && i < text.size(); ++i) {
        ++place.column;
        if (text[i] == '\n') {
            ++place.line;
            place.column = 1;
        }
    }
    return place;
}

}  // namespace

Result<Json> json_from_text(std::string_view text, const std::string& where) {
    TreeBuilder builder;
    if (nlohmann::json::sax_parse(text.begin(), text.end(), &builder)) return std::move(builder.root);
    if (builder.too_deep || builder.too_many) {
        return Fault{
            "file.depth",
            builder.too_deep ? "the file is nested deeper than any finish" : "the file has more in it than any finish",
            "open another file", Place{where, {}, 0, 0}, Severity::fault};
    }
    const bool cut_off = builder.error_position > text.size();
    return Fault{"file.json", cut_off ? "the file stops short" : "the file is not JSON from here on",
                 "open a copy that is whole", place_at(text, builder.error_position, where), Severity::fault};
}

}  // namespace lacquer
