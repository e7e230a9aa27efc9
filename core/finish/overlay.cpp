#include "core/finish/overlay.h"

#include <algorithm>
#include <array>
#include <string_view>
#include <utility>

#include "core/finish/finish.h"
#include "core/finish/json_line.h"
#include "core/finish/json_merge.h"
#include "core/finish/json_things.h"
#include "core/finish/json_tree.h"
#include "core/finish/read_ground.h"
#include "core/finish/read_play.h"
#include "core/lang/rename.h"

namespace lacquer {

namespace {

Dial read_as(Fields& fields, const Dial&) { return read_dial(fields); }
Step read_as(Fields& fields, const Step&) { return read_step(fields); }
Ground read_as(Fields& fields, const Ground&) { return read_ground(fields); }
Response read_as(Fields& fields, const Response&) { return read_response(fields); }

constexpr std::array<std::string_view, 3> dial_keys{"value", "range", "formula"};
constexpr std::array<std::string_view, 3> step_keys{"formula", "starts", "on"};

// The part of an object that an overlay may change.
template <class Keys>
Json only(const Json& object, const Keys& keys) {
    Json part = Json::object();
    for (const std::string_view key : keys) {
        if (const Json* value = object.find(key)) part[key] = *value;
    }
    return part;
}
Json changeable(const Dial& dial) { return only(json_of(dial), dial_keys); }
Json changeable(const Step& step) { return only(json_of(step), step_keys); }
Json changeable(const Ground& ground) {
    Json object = json_of(ground);
    object.take("name");
    return object;
}
Json changeable(const Response& response) {
    Json object = json_of(response);
    object.take("name");
    return object;
}

// A patch may have come from a file: what an overlay has no business with is left out.
Json held_patch(const Json& patch, const Dial&) { return only(patch, dial_keys); }
Json held_patch(const Json& patch, const Step&) { return only(patch, step_keys); }
template <class Thing>
Json held_patch(Json patch, const Thing&) {
    patch.take("name");
    return patch;
}

Json parsed(const std::string& text) {
    Result<Json> json = json_from_text(text, "overlay");
    return json && json->is_object() ? std::move(*json) : Json::object();
}

enum class Laid { over, in_place };

// Applies the patch of one thing, and gives the way back.
template <class Thing>
std::string patch_thing(Thing& thing, const std::string& text, Laid laid) {
    const Json before = changeable(thing);
    Json object = json_of(thing);
    if (laid == Laid::in_place) {
        for (const auto& [key, value] : before.members()) object.take(key);
    }
    Faults complaints;
    Fields fields(merged(std::move(object), held_patch(parsed(text), thing)), "", "overlay", complaints);
    Thing changed = read_as(fields, thing);
    changed.name = thing.name;
    thing = std::move(changed);
    return one_line(merge_patch(changeable(thing), before));
}

template <class Things>
auto* find_named(Things& things, const std::string& name) {
    const auto found = std::find_if(things.begin(), things.end(), [&](const auto& each) { return each.name == name; });
    return found == things.end() ? nullptr : &*found;
}

Step* find_named(std::vector<Coat>& coats, const std::string& name) {
    for (std::size_t coat = 0; coat < coats.size(); ++coat) {
        const auto& steps = std::as_const(coats[coat].steps);
        for (std::size_t i = 0; i < steps.size(); ++i) {
            // What is only looked at isn't made this one's own.
            if (steps[i].name == name) return &coats[coat].steps.own()[i];
        }
    }
    return nullptr;
}

template <class Things>
void patch_all(Things& things, const Patches& patches, Laid laid, Patches* way_back = nullptr) {
    for (const auto& [name, text] : patches) {
        auto* thing = find_named(things, name);
        std::string back = thing != nullptr ? patch_thing(*thing, text, laid) : text;
        if (way_back != nullptr) way_back->insert_or_assign(name, std::move(back));
    }
}

template <class Thing>
void add_difference(const Thing& base, const Thing& other, Patches& patches) {
    if (base == other) return;
    const Json patch = merge_patch(changeable(base), changeable(other));
    if (patch.size() > 0) patches[base.name] = one_line(patch);
}

template <class Things>
void add_differences(const Things& base, const Things& other, Patches& patches) {
    for (const auto& thing : base) {
        const auto* changed = find_named(other, thing.name);
        if (changed != nullptr) add_difference(thing, *changed, patches);
    }
}

template <class Things>
void add_entries(const char* kind, const Patches& patches, const Things& things, std::vector<OverlayEntry>& entries) {
    for (const auto& [name, text] : patches) entries.push_back({kind, name, text, find_named(things, name) == nullptr});
}

// Formulas are the strings under some keys, those of responses all settings.
void rename_formulas(Json& patch, bool in_settings, const std::string& from, const std::string& to) {
    for (const auto& [key, value] : std::vector<Json::Member>(patch.members())) {
        if (value.is_object()) {
            rename_formulas(patch[key], key == "settings", from, to);
        } else if (value.is_string() && (in_settings || key == "formula" || key == "starts")) {
            patch[key] = rename_in_formula(value.text(), from, to);
        }
    }
}

Patches renamed_patches(const Patches& patches, const std::string& from, const std::string& to) {
    Patches renamed;
    for (const auto& [name, text] : patches) {
        std::string changed = text;
        if (text.find(from) != std::string::npos) {
            Json patch = parsed(text);
            rename_formulas(patch, false, from, to);
            changed = one_line(patch);
        }
        renamed.insert_or_assign(name == from ? to : name, std::move(changed));
    }
    return renamed;
}

}  // namespace

Finish with_overlay(Finish finish, const Overlay& overlay, Overlay* way_back) {
    if (way_back != nullptr) *way_back = {};
    const auto back = [&](Patches Overlay::*patches) { return way_back != nullptr ? &(way_back->*patches) : nullptr; };
    patch_all(finish.dials, overlay.dials, Laid::over, back(&Overlay::dials));
    patch_all(finish.coats, overlay.steps, Laid::over, back(&Overlay::steps));
    patch_all(finish.grounds, overlay.grounds, Laid::over, back(&Overlay::grounds));
    patch_all(finish.responses, overlay.responses, Laid::over, back(&Overlay::responses));
    return finish;
}

Finish with_whole(Finish finish, const Overlay& overlay) {
    patch_all(finish.dials, overlay.dials, Laid::in_place);
    patch_all(finish.coats, overlay.steps, Laid::in_place);
    patch_all(finish.grounds, overlay.grounds, Laid::in_place);
    patch_all(finish.responses, overlay.responses, Laid::in_place);
    return finish;
}

Overlay overlay_between(const Finish& base, const Finish& other) {
    Overlay overlay;
    add_differences(base.dials, other.dials, overlay.dials);
    for_each_step(base, [&](const Coat&, const Step& step) {
        if (const Step* changed = find_step(other, step.name)) add_difference(step, *changed, overlay.steps);
    });
    add_differences(base.grounds, other.grounds, overlay.grounds);
    add_differences(base.responses, other.responses, overlay.responses);
    return overlay;
}

Overlay whole_overlay(const Finish& finish) {
    Overlay overlay;
    const auto add_all = [](const auto& things, Patches& patches) {
        for (const auto& thing : things) patches[thing.name] = one_line(changeable(thing));
    };
    add_all(finish.dials, overlay.dials);
    for_each_step(finish,
                  [&](const Coat&, const Step& step) { overlay.steps[step.name] = one_line(changeable(step)); });
    add_all(finish.grounds, overlay.grounds);
    add_all(finish.responses, overlay.responses);
    return overlay;
}

std::vector<OverlayEntry> entries_of(const Overlay& overlay, const Finish& finish) {
    std::vector<OverlayEntry> entries;
    add_entries("dial", overlay.dials, finish.dials, entries);
    for (const auto& [name, text] : overlay.steps)
        entries.push_back({"step", name, text, find_step(finish, name) == nullptr});
    add_entries("ground", overlay.grounds, finish.grounds, entries);
    add_entries("response", overlay.responses, finish.responses, entries);
    return entries;
}

Overlay renamed_in(Overlay overlay, const std::string& from, const std::string& to) {
    for (Patches* patches : {&overlay.dials, &overlay.steps, &overlay.grounds, &overlay.responses})
        *patches = renamed_patches(*patches, from, to);
    return overlay;
}

}  // namespace lacquer
