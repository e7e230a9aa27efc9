// From the text of a file to a finish. Nothing in the file is trusted: what has the wrong shape is named and left out.
#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/finish/file.h"
#include "core/finish/json_tree.h"
#include "core/finish/kinds.h"
#include "core/picture/picture.h"

namespace lacquer {

namespace {

using Json = nlohmann::ordered_json;

/// Most members of any list in a file.
constexpr std::size_t max_members = 4096;
constexpr double largest_number = 1e12;

// Takes known keys out of an object one by one; what is left over is kept as it is.
class Fields {
public:
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
    /// Calls `read(Fields&)` for each object of a list.
    template <class Read>
    void each(const char* key, Read read) {
        Json list;
        if (!take(key, list)) return;
        if (!list.is_array() || list.size() > max_members) {
            complain(key, "a list of at most 4096");
            return;
        }
        for (std::size_t i = 0; i < list.size(); ++i) {
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

bool setting_from_json(DialKind kind, const Json& json, DialValue& value) {
    switch (kind) {
        case DialKind::toggle:
            if (!json.is_boolean()) return false;
            value = {json.get<bool>() ? 1.0 : 0.0, 0, 0};
            return true;
        case DialKind::colour:
            if (!json.is_array() || json.size() != 3 || !std::all_of(json.begin(), json.end(), Fields::is_number))
                return false;
            for (std::size_t i = 0; i < 3; ++i) value[i] = json[i].get<double>();
            return true;
        case DialKind::number:
        case DialKind::integer:
            break;
    }
    if (!Fields::is_number(json)) return false;
    value = {json.get<double>(), 0, 0};
    return true;
}

Dial read_dial(Fields& fields) {
    Dial dial;
    dial.name = fields.text("name");
    dial.code_name = fields.text("code_name", dial.name);
    const auto kind = dial_kind_named(fields.text("kind", "number"));
    if (!kind) fields.complain("kind", "number, integer, switch or colour");
    dial.kind = kind.value_or(DialKind::number);
    const auto read_setting = [&](const char* key, DialValue& value) {
        Json json;
        if (fields.take(key, json) && !setting_from_json(dial.kind, json, value))
            fields.complain(key, "a value of the dial's kind");
    };
    read_setting("default", dial.default_value);
    dial.value = dial.default_value;
    read_setting("value", dial.value);
    if (std::vector<double> range; fields.numbers("range", 2, range)) {
        if (range[0] < range[1]) {
            dial.least = range[0];
            dial.most = range[1];
        } else {
            fields.complain("range", "two rising numbers");
        }
    }
    dial.increment = fields.number("increment", dial.increment);
    if (!(dial.increment > 0)) {
        fields.complain("increment", "more than 0");
        dial.increment = 0.01;
    }
    dial.unit = fields.text("unit");
    dial.note = fields.text("note");
    dial.group = fields.text("group");
    dial.formula = fields.text("formula");
    dial.extra = fields.left();
    return dial;
}

Response read_response(Fields& fields) {
    Response response;
    response.name = fields.text("name");
    response.kind = fields.text("kind");
    response.cue = fields.text("cue");
    Json settings;
    if (fields.take("settings", settings) && settings.is_object()) {
        for (const auto& [name, value] : settings.items()) {
            if (Fields::is_number(value)) {
                response.settings[name] = value.get<double>();
            } else if (value.is_string()) {
                response.settings[name] = value.get<std::string>();
            } else {
                fields.complain(name, "a number or a word");
            }
        }
    }
    return response;
}

Coat read_coat(Fields& fields) {
    Coat coat;
    coat.name = fields.text("name", "Coat");
    coat.note = fields.text("note");
    coat.on = fields.flag("on", true);
    coat.folded = fields.flag("folded", false);
    fields.each("steps", [&](Fields& step) {
        Step read;
        read.name = step.text("name");
        read.formula = step.text("formula");
        read.note = step.text("note");
        read.on = step.flag("on", true);
        read.stand_in = step.flag("stand_in", false);
        read.extra = step.left();
        coat.steps.push_back(std::move(read));
    });
    coat.extra = fields.left();
    return coat;
}

// A gradient's stops are a place and four parts, a curve's a place and a height.
bool read_stops(Fields& fields, const char* key, std::size_t numbers, std::vector<Stop>& stops) {
    Json list;
    if (!fields.take(key, list)) return false;
    const auto is_stop = [&](const Json& stop) {
        return stop.is_array() && stop.size() == numbers && std::all_of(stop.begin(), stop.end(), Fields::is_number);
    };
    if (!list.is_array() || list.size() > max_members || !std::all_of(list.begin(), list.end(), is_stop)) {
        fields.complain(key, fmt::format("a list of stops, each {} numbers", numbers));
        return true;
    }
    for (const Json& each : list) {
        Stop stop{each[0].get<double>(), {0, 0, 0, 1}};
        for (std::size_t c = 1; c < numbers; ++c) stop.value[c - 1] = each[c].get<double>();
        stops.push_back(stop);
    }
    return true;
}

Ground read_ground(Fields& fields) {
    Ground ground;
    ground.name = fields.text("name");
    if (read_stops(fields, "gradient", 5, ground.stops)) {
        ground.kind = GroundKind::gradient;
    } else if (read_stops(fields, "curve", 2, ground.stops)) {
        ground.kind = GroundKind::curve;
    } else {
        ground.path = fields.text("picture");
        ground.data = fields.flag("data", false);
        const auto wrap = wrap_named(fields.text("wrap", "clamp"));
        if (!wrap) fields.complain("wrap", "clamp, repeat or mirror");
        const auto filter = filter_named(fields.text("filter", "linear"));
        if (!filter) fields.complain("filter", "linear or nearest");
        ground.sampling = {wrap.value_or(Wrap::clamp), filter.value_or(Filter::linear)};
    }
    ground.extra = fields.left();
    return ground;
}

void read_frame(Fields& fields, Finish& finish) {
    std::vector<double> frame;
    if (!fields.numbers("frame", 2, frame)) return;
    const auto width = static_cast<std::int64_t>(frame[0]);
    const auto height = static_cast<std::int64_t>(frame[1]);
    if (is_drawable_size(width, height)) {
        finish.frame_width = static_cast<int>(width);
        finish.frame_height = static_cast<int>(height);
    } else {
        fields.complain("frame", "a size of at most 64 million pixels");
    }
}

Finish read_finish(Fields& fields) {
    Finish finish;
    finish.name = fields.text("name", finish.name);
    finish.brief = fields.text("brief");
    read_frame(fields, finish);
    const double length = fields.number("length", finish.length);
    if (length > 0 && length <= 3600) {
        finish.length = length;
    } else {
        fields.complain("length", "more than 0 and at most 3600 seconds");
    }
    fields.each("grounds", [&](Fields& ground) { finish.grounds.push_back(read_ground(ground)); });
    fields.each("cues", [&](Fields& cue) {
        CueKind read;
        read.name = cue.text("name");
        read.strength = std::clamp(cue.number("strength", read.strength), 0.0, 1.0);
        read.extra = cue.left();
        finish.cues.push_back(std::move(read));
    });
    fields.each("responses", [&](Fields& response) { finish.responses.push_back(read_response(response)); });
    fields.each("dials", [&](Fields& dial) { finish.dials.push_back(read_dial(dial)); });
    fields.each("coats", [&](Fields& coat) { finish.coats.push_back(read_coat(coat)); });
    fields.each("tape", [&](Fields& cue) {
        finish.tape.push_back({cue.text("cue"), cue.number("at", 0), std::clamp(cue.number("strength", 1), 0.0, 1.0)});
    });
    sort_cues(finish.tape);
    finish.extra = fields.left();
    return finish;
}

}  // namespace

Result<OpenedFinish> finish_from_text(std::string_view text, const std::string& where) {
    const Place place{where, {}, 0, 0};
    if (text.size() > max_file_size) {
        return Fault{"file.size", "the file is larger than 16 MB, no finish is", "open another file", place,
                     Severity::fault};
    }
    Result<Json> json = json_from_text(text, where);
    if (!json) return json.fault();
    if (!json->is_object()) {
        return Fault{"file.shape", "the file is JSON but not a finish", "open a .lacquer file", place, Severity::fault};
    }
    OpenedFinish opened;
    Fields fields(*json, "", where, opened.notices);
    const double format = fields.number("format", 0);
    if (format > finish_format) {
        return Fault{"file.format",
                     fmt::format("the file has format {}, this Lacquer reads up to {}", format, finish_format),
                     "open it with a newer Lacquer", place, Severity::fault};
    }
    if (format != finish_format) {
        return Fault{"file.shape", "the file does not say that it is a finish", "open a .lacquer file", place,
                     Severity::fault};
    }
    opened.finish = read_finish(fields);
    return opened;
}

}  // namespace lacquer
