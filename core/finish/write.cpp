// From a finish to the text of its file.
#include <limits>

#include "core/finish/file.h"
#include "core/finish/json_line.h"
#include "core/finish/json_things.h"
#include "core/finish/json_tree.h"
#include "core/finish/kinds.h"
#include "core/finish/variants.h"

namespace lacquer {

namespace {

// A list with one member a line.
std::string lines(const std::vector<std::string>& members, const std::string& indent) {
    if (members.empty()) return "[]";
    std::string text;
    for (const std::string& member : members) text += (text.empty() ? "\n" : ",\n") + indent + "  " + member;
    return "[" + text + "\n" + indent + "]";
}

Json setting(const Dial& dial, const DialValue& value) {
    switch (dial.kind) {
        case DialKind::toggle:
            return value[0] != 0;
        case DialKind::colour:
            return {value[0], value[1], value[2]};
        case DialKind::number:
        case DialKind::integer:
            break;
    }
    return value[0];
}

void add_kept(Json& object, const KeptKeys& kept) {
    for (const KeptKey& key : kept) {
        if (object.contains(key.key)) continue;
        if (Result<Json> value = json_from_text(key.json, "kept")) object[key.key] = std::move(*value);
    }
}

Json slope_of(const Slope& slope) {
    if (slope.kind == SlopeKind::by_hand) return slope.by_hand;
    return slope_kind_name(slope.kind);
}

Json keys_of(const PathKeys& keys) {
    Json list = Json::array();
    for (const PathKey& key : keys) {
        Json one{key.at, key.value};
        if (key.before != Slope() || key.after != Slope()) one.push_back(slope_of(key.before));
        if (key.after != key.before) one.push_back(slope_of(key.after));
        list.push_back(std::move(one));
    }
    return list;
}

Json own_keys(const Step& step) {
    Json object = Json::object({{"name", step.name}, {"formula", step.formula}});
    if (step.rules == CodeRules::glsl) object["rules"] = "glsl";
    if (!step.note.empty()) object["note"] = step.note;
    if (!step.on) object["on"] = false;
    if (step.stand_in) object["stand_in"] = true;
    const Ticking& ticking = step.ticking;
    if (ticking.width != 0) object["numbers"] = ticking.width;
    if (!ticking.starts.empty()) object["starts"] = ticking.starts;
    if (ticking.share != 1) object["share"] = ticking.share;
    if (ticking.pixels != 0) object["pixels_wide"] = ticking.pixels;
    if (ticking.smooth) object["smooth"] = true;
    if (ticking.half) object["half"] = true;
    return object;
}

Json own_keys(const Dial& dial) {
    Json object = Json::object({{"name", dial.name},
                                {"code_name", dial.code_name},
                                {"kind", dial_kind_name(dial.kind)},
                                {"value", setting(dial, dial.value)},
                                {"default", setting(dial, dial.default_value)}});
    if (dial.kind != DialKind::toggle) {
        object["range"] = {dial.least, dial.most};
        object["increment"] = dial.increment;
    }
    if (!dial.unit.empty()) object["unit"] = dial.unit;
    if (!dial.note.empty()) object["note"] = dial.note;
    if (!dial.group.empty()) object["group"] = dial.group;
    if (!dial.formula.empty()) object["formula"] = dial.formula;
    if (dial.shared) object["shared"] = true;
    for (const std::string& promise : dial.promises) object["promises"].push_back(promise);
    return object;
}

Json own_keys(const Response& response) {
    Json object = Json::object({{"name", response.name}, {"kind", response.kind}});
    if (!response.cue.empty()) object["cue"] = response.cue;
    Json settings = Json::object();
    for (const auto& [name, value] : response.settings) {
        if (const PathKeys* keys = std::get_if<PathKeys>(&value)) {
            settings[name] = keys_of(*keys);
        } else if (const double* number = std::get_if<double>(&value)) {
            settings[name] = *number;
        } else {
            settings[name] = std::get<std::string>(value);
        }
    }
    object["settings"] = std::move(settings);
    return object;
}

Json own_keys(const Ground& ground) {
    Json object = Json::object({{"name", ground.name}});
    std::visit([&](const auto& kind) { write(object, kind); }, ground.kind);
    return object;
}

template <class Thing>
std::string text_of(const Thing& thing) {
    return one_line(own_keys(thing), thing.extra);
}

template <class Thing>
Json whole_object(const Thing& thing) {
    Json object = own_keys(thing);
    add_kept(object, thing.extra);
    return object;
}

// An object whose members are JSON already.
std::string object_of(const Patches& patches) {
    std::string text;
    for (const auto& [name, patch] : patches) text += (text.empty() ? "" : ", ") + one_line(name) + ": " + patch;
    return "{" + text + "}";
}

std::string with_patches(const Json& object, const Overlay& overlay, const KeptKeys& extra) {
    const std::string opened = one_line(object, extra);
    std::string text = opened.substr(0, opened.size() - 1);
    const auto add = [&](const char* key, const Patches& patches) {
        if (!patches.empty()) text += std::string(", \"") + key + "\": " + object_of(patches);
    };
    add("dials", overlay.dials);
    add("steps", overlay.steps);
    add("grounds", overlay.grounds);
    add("responses", overlay.responses);
    return text + "}";
}

std::string variant_text(const Variant& variant) {
    Json object = Json::object({{"name", variant.name}});
    if (!variant.note.empty()) object["note"] = variant.note;
    return with_patches(object, variant.overlay, variant.extra);
}

std::string look_text(const SetAside& look) {
    Json object = Json::object({{"words", look.words}, {"time", look.time}});
    if (!look.picture.empty()) object["picture"] = look.picture;
    for (const auto& [name, value] : look.held) object["held"][name] = {value[0], value[1], value[2]};
    return with_patches(object, look.overlay, look.extra);
}

std::string coat_text(const Coat& coat) {
    Json head = Json::object({{"name", coat.name}});
    if (!coat.note.empty()) head["note"] = coat.note;
    if (!coat.on) head["on"] = false;
    if (coat.folded) head["folded"] = true;
    std::vector<std::string> steps;
    for (const Step& step : coat.steps) steps.push_back(text_of(step));
    const std::string opened = one_line(head, coat.extra);
    return opened.substr(0, opened.size() - 1) + ", \"steps\": " + lines(steps, "    ") + "}";
}

std::string cue_kind_text(const CueKind& cue) {
    Json object = Json::object({{"name", cue.name}, {"strength", cue.strength}});
    if (cue.weakest) object["weakest"] = *cue.weakest;
    if (cue.direction != 0) object["direction"] = cue.direction;
    return one_line(object, cue.extra);
}

std::string signal_text(const Signal& signal) {
    Json object = Json::object({{"name", signal.name}, {"kind", signal_kind_name(signal.kind)}});
    if (signal.kind == SignalKind::place) {
        object["value"] = {signal.value[0], signal.value[1]};
    } else if (signal.kind == SignalKind::toggle) {
        object["value"] = signal.value[0] != 0;
    } else {
        object["value"] = signal.value[0];
        object["range"] = {signal.least, signal.most};
    }
    if (!signal.unit.empty()) object["unit"] = signal.unit;
    if (!signal.note.empty()) object["note"] = signal.note;
    if (!signal.zone.of.empty()) {
        object["zone_of"] = signal.zone.of;
        object["zone"] = {signal.zone.x, signal.zone.y, signal.zone.radius};
    }
    return one_line(object, signal.extra);
}

template <class Things, class Text>
std::string list(const Things& things, Text text) {
    std::vector<std::string> members;
    for (const auto& thing : things) members.push_back(text(thing));
    return lines(members, "  ");
}

}  // namespace

std::string dials_to_text(const std::vector<Dial>& dials) {
    return "{\n  \"format\": " + std::to_string(finish_format) + ",\n  \"dials\": " + list(dials, text_of<Dial>) +
           "\n}\n";
}

std::vector<std::string> tape_lines(const Tape& tape) {
    std::vector<std::string> events;
    auto change = tape.changes.begin();
    const auto changes_until = [&](double at) {
        for (; change != tape.changes.end() && change->at <= at; ++change) {
            Json object = Json::object({{"set", change->name}, {"at", change->at}});
            // As many parts as are not 0, so that a number stays a number.
            const std::size_t parts = change->value[2] != 0 ? 3 : change->value[1] != 0 ? 2 : 1;
            if (parts == 1) object["value"] = change->value[0];
            for (std::size_t i = 0; parts > 1 && i < parts; ++i) object["value"].push_back(change->value[i]);
            events.push_back(one_line(object));
        }
    };
    for (const Cue& cue : tape.cues) {
        changes_until(cue.at);
        Json object = Json::object({{"cue", cue.name}, {"at", cue.at}, {"strength", cue.strength}});
        if (cue.direction != 0) object["direction"] = cue.direction;
        if (cue.x != 0.5 || cue.y != 0.5) object["place"] = {cue.x, cue.y};
        if (cue.object != 0) object["object"] = cue.object;
        events.push_back(one_line(object));
    }
    changes_until(std::numeric_limits<double>::infinity());
    return events;
}

Json json_of(const Dial& dial) { return whole_object(dial); }
Json json_of(const Step& step) { return whole_object(step); }
Json json_of(const Ground& ground) { return whole_object(ground); }
Json json_of(const Response& response) { return whole_object(response); }

std::string finish_to_text(const Finish& shown) {
    // The file has the finish without its variant, so that each part of it can be understood by itself.
    const Finish finish = shown.variant.empty() ? shown : switch_variant(shown, "");
    std::string text = "{\n";
    const auto put = [&](const std::string& key, const std::string& value) {
        text += "  " + one_line(key) + ": " + value + ",\n";
    };
    put("format", std::to_string(finish_format));
    put("name", one_line(finish.name));
    put("brief", one_line(finish.brief));
    put("frame", one_line(Json{finish.frame_width, finish.frame_height}));
    put("length", one_line(finish.length));
    if (finish.ticks.rate != Ticks().rate) put("tick_rate", one_line(finish.ticks.rate));
    if (!finish.ticks.reset.empty()) put("tick_reset", one_line(finish.ticks.reset));
    put("grounds", list(finish.grounds, text_of<Ground>));
    put("cues", list(finish.cues, cue_kind_text));
    if (!finish.signals.empty()) put("signals", list(finish.signals, signal_text));
    if (!finish.shared_dials.empty()) put("shared_dials", one_line(finish.shared_dials));
    put("responses", list(finish.responses, text_of<Response>));
    put("dials", list(finish.dials, text_of<Dial>));
    put("coats", list(finish.coats, coat_text));
    if (!finish.variants.empty()) put("variants", list(finish.variants, variant_text));
    if (!shown.variant.empty()) put("variant", one_line(shown.variant));
    if (!finish.set_aside.empty()) put("set_aside", list(finish.set_aside, look_text));
    for (const KeptKey& kept : finish.extra) put(kept.key, kept.json);
    return text + "  \"tape\": " + lines(tape_lines(finish.tape), "  ") + "\n}\n";
}

}  // namespace lacquer
