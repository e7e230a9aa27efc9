#include "core/finish/read_play.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace lacquer {

namespace {

// One number, or up to three.
bool value_from(const Json& json, std::array<double, 3>& value) {
    if (json.is_boolean()) {
        value = {json.flag() ? 1.0 : 0.0, 0, 0};
        return true;
    }
    if (Fields::is_number(json)) {
        value = {json.number(), 0, 0};
        return true;
    }
    const std::vector<Json>& list = json.list();
    if (list.empty() || list.size() > 3 || !std::all_of(list.begin(), list.end(), Fields::is_number)) return false;
    for (std::size_t i = 0; i < list.size(); ++i) value[i] = list[i].number();
    return true;
}

double strength_of(Fields& fields, const char* key, double usual) {
    return std::clamp(fields.number(key, usual), 0.0, 1.0);
}

bool slope_from(const Json& json, Slope& slope) {
    if (Fields::is_number(json)) {
        slope = {SlopeKind::by_hand, json.number()};
        return true;
    }
    if (!json.is_string()) return false;
    for (const SlopeKind kind : {SlopeKind::smooth, SlopeKind::level, SlopeKind::straight, SlopeKind::stay}) {
        if (json.text() != slope_kind_name(kind)) continue;
        slope = {kind, 0};
        return true;
    }
    return false;
}

// [seconds, value], and the slopes before and after it where they are not smooth.
bool key_from(const Json& json, PathKey& key) {
    const std::vector<Json>& parts = json.list();
    if (parts.size() < 2 || parts.size() > 4) return false;
    if (!Fields::is_number(parts[0]) || !Fields::is_number(parts[1])) return false;
    key.at = std::max(parts[0].number(), 0.0);
    key.value = parts[1].number();
    if (parts.size() > 2 && !slope_from(parts[2], key.before)) return false;
    key.after = key.before;
    return parts.size() < 4 || slope_from(parts[3], key.after);
}

bool keys_from(const Json& json, PathKeys& keys) {
    if (!json.is_array() || json.size() > max_members) return false;
    for (const Json& member : json.list()) {
        PathKey key;
        if (!key_from(member, key)) return false;
        keys.push_back(key);
    }
    sort_keys(keys);
    return true;
}

// Settings that had other names in earlier files.
void rename_old_setting(std::string_view kind, std::string& name, std::string& word) {
    struct Renamed {
        std::string_view kind, setting, word, to_setting, to_word;
    };
    static constexpr std::array renamed{
        Renamed{"jolt", "dying", "straight", "decay_form", "linear"},
        Renamed{"jolt", "dying", "by_shares", "decay_form", "exponential"},
        Renamed{"wave", "shape", "size_of_sine", "shape", "absolute_sine"},
        Renamed{"chase", "way", "by_shares", "way", "exponential"},
        Renamed{"chase", "way", "evenly", "way", "linear"},
    };
    for (const Renamed& row : renamed) {
        if (row.kind != kind || row.setting != name || row.word != word) continue;
        name = row.to_setting;
        word = row.to_word;
        return;
    }
}

}  // namespace

CueKind read_cue_kind(Fields& fields) {
    CueKind cue;
    cue.name = fields.text("name");
    cue.strength = strength_of(fields, "strength", cue.strength);
    if (const double weakest = fields.number("weakest", -1); weakest >= 0) cue.weakest = std::min(weakest, 1.0);
    cue.direction = fields.number("direction", 0);
    cue.extra = fields.kept();
    return cue;
}

Signal read_signal(Fields& fields) {
    Signal signal;
    signal.name = fields.text("name");
    const auto kind = signal_kind_named(fields.text("kind", "number"));
    if (!kind) fields.complain("kind", "number, integer, switch or place");
    signal.kind = kind.value_or(SignalKind::number);
    if (std::vector<double> range; fields.numbers("range", 2, range)) {
        if (range[0] < range[1]) {
            signal.least = range[0];
            signal.most = range[1];
        } else {
            fields.complain("range", "two rising numbers");
        }
    }
    Json value;
    if (fields.take("value", value) && !value_from(value, signal.value))
        fields.complain("value", "a number, or two for a place");
    signal.value = signal_value(signal, signal.value);
    signal.unit = fields.text("unit");
    signal.note = fields.text("note");
    signal.zone.of = fields.text("zone_of");
    if (std::vector<double> zone; fields.numbers("zone", 3, zone)) {
        signal.zone.x = zone[0];
        signal.zone.y = zone[1];
        signal.zone.radius = std::max(zone[2], 0.0);
    }
    signal.extra = fields.kept();
    return signal;
}

Response read_response(Fields& fields) {
    Response response;
    response.name = fields.text("name");
    response.kind = fields.text("kind");
    response.cue = fields.text("cue");
    Json settings;
    if (fields.take("settings", settings) && settings.is_object()) {
        for (const auto& [name, value] : settings.members()) {
            if (Fields::is_number(value)) {
                response.settings[name] = value.number();
            } else if (value.is_string()) {
                std::string setting = name;
                std::string word = value.text();
                rename_old_setting(response.kind, setting, word);
                response.settings[setting] = std::move(word);
            } else if (PathKeys keys; keys_from(value, keys)) {
                response.settings[name] = std::move(keys);
            } else {
                fields.complain(name, "a number, a word, or keys");
            }
        }
    }
    response.extra = fields.kept();
    return response;
}

void read_event(Fields& fields, Tape& tape) {
    const double at = std::max(fields.number("at", 0), 0.0);
    Json value;
    if (fields.take("value", value)) {
        Change change{fields.text("set"), at, {}};
        if (!value_from(value, change.value)) return fields.complain("value", "up to three numbers");
        tape.changes.push_back(std::move(change));
        return;
    }
    Cue cue{fields.text("cue"), at, strength_of(fields, "strength", 1)};
    cue.direction = fields.number("direction", cue.direction);
    if (std::vector<double> place; fields.numbers("place", 2, place)) {
        cue.x = place[0];
        cue.y = place[1];
    }
    cue.object = static_cast<int>(std::clamp(fields.number("object", 0), -1e9, 1e9));
    tape.cues.push_back(std::move(cue));
}

}  // namespace lacquer
