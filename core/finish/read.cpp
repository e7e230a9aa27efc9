// From the text of a file to a finish. Nothing in the file is trusted: what has the wrong shape is named and left out.
#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/json_fields.h"
#include "core/finish/json_line.h"
#include "core/finish/json_things.h"
#include "core/finish/json_tree.h"
#include "core/finish/kinds.h"
#include "core/finish/read_ground.h"
#include "core/finish/read_play.h"
#include "core/finish/shared_dials.h"
#include "core/finish/variants.h"
#include "core/picture/picture.h"

namespace lacquer {

namespace {

bool setting_from_json(DialKind kind, const Json& json, DialValue& value) {
    switch (kind) {
        case DialKind::toggle:
            if (!json.is_boolean()) return false;
            value = {json.flag() ? 1.0 : 0.0, 0, 0};
            return true;
        case DialKind::colour:
            if (json.list().size() != 3 || !std::all_of(json.list().begin(), json.list().end(), Fields::is_number))
                return false;
            for (std::size_t i = 0; i < 3; ++i) value[i] = json.list()[i].number();
            return true;
        case DialKind::number:
        case DialKind::integer:
            break;
    }
    if (!Fields::is_number(json)) return false;
    value = {json.number(), 0, 0};
    return true;
}

std::vector<std::string> read_promises(Fields& fields) {
    std::vector<std::string> promises;
    Json json;
    if (!fields.take("promises", json)) return promises;
    for (const Json& promise : json.list()) {
        if (promise.is_string() && is_identifier(promise.text()) && promises.size() < max_promises)
            promises.push_back(promise.text());
    }
    if (promises.size() != json.list().size() || !json.is_array()) fields.complain("promises", "names of measures");
    return promises;
}

}  // namespace

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
    dial.shared = fields.flag("shared", false);
    dial.promises = read_promises(fields);
    dial.extra = fields.kept();
    return dial;
}

namespace {

void read_ticking(Fields& step, Ticking& ticking) {
    const double width = step.number("numbers", 0);
    if (width == std::floor(width) && width >= 0 && width <= 4) {
        ticking.width = static_cast<int>(width);
    } else {
        step.complain("numbers", "1 to 4");
    }
    ticking.starts = step.text("starts");
    ticking.share = step.number("share", 1);
    if (ticking.share != 1 && ticking.share != 0.5 && ticking.share != 0.25) {
        step.complain("share", "1, 0.5 or 0.25");
        ticking.share = 1;
    }
    const double pixels = step.number("pixels_wide", 0);
    if (pixels == std::floor(pixels) && pixels >= 0 && pixels <= max_picture_side) {
        ticking.pixels = static_cast<int>(pixels);
    } else {
        step.complain("pixels_wide", "a width in pixels");
    }
    ticking.smooth = step.flag("smooth", false);
    ticking.half = step.flag("half", false);
}

}  // namespace

Step read_step(Fields& fields) {
    Step step;
    step.name = fields.text("name");
    step.formula = fields.text("formula");
    const std::string rules = fields.text("rules");
    if (rules == "glsl") {
        step.rules = CodeRules::glsl;
    } else if (!rules.empty()) {
        fields.complain("rules", "glsl");
    }
    step.note = fields.text("note");
    step.on = fields.flag("on", true);
    step.stand_in = fields.flag("stand_in", false);
    read_ticking(fields, step.ticking);
    step.extra = fields.kept();
    return step;
}

namespace {

Coat read_coat(Fields& fields) {
    Coat coat;
    coat.name = fields.text("name", "Coat");
    coat.note = fields.text("note");
    coat.on = fields.flag("on", true);
    coat.folded = fields.flag("folded", false);
    fields.each("steps", [&](Fields& step) { coat.steps.push_back(read_step(step)); });
    coat.extra = fields.kept();
    return coat;
}

Patches read_patches(Fields& fields, const char* key) {
    Patches patches;
    Json json;
    if (!fields.take(key, json)) return patches;
    if (!json.is_object()) fields.complain(key, "changes by name");
    for (const auto& [name, patch] : json.members()) {
        if (patch.is_object()) {
            patches[name] = one_line(patch);
        } else {
            fields.complain(key, "changes by name");
        }
    }
    return patches;
}

Overlay read_overlay(Fields& fields) {
    return {read_patches(fields, "dials"), read_patches(fields, "steps"), read_patches(fields, "grounds"),
            read_patches(fields, "responses")};
}

std::map<std::string, DialValue, std::less<>> read_held(Fields& fields) {
    std::map<std::string, DialValue, std::less<>> held;
    Json json;
    if (!fields.take("held", json)) return held;
    if (!json.is_object()) fields.complain("held", "three numbers by name");
    for (const auto& [name, value] : json.members()) {
        DialValue& setting = held[name];
        if (setting_from_json(DialKind::colour, value, setting)) continue;
        fields.complain("held", "three numbers by name");
        held.erase(name);
    }
    return held;
}

void read_variants(Fields& fields, Finish& finish) {
    fields.each("variants", [&](Fields& each) {
        Variant variant;
        variant.name = each.text("name");
        variant.note = each.text("note");
        variant.overlay = read_overlay(each);
        variant.extra = each.kept();
        if (!is_identifier(variant.name) || find_variant(finish, variant.name) != nullptr) {
            each.complain("name", "a name of its own");
            variant.name = free_variant_name(finish, variant.name);
        }
        finish.variants.push_back(std::move(variant));
    });
    fields.each("set_aside", [&](Fields& each) {
        SetAside look;
        look.words = each.text("words");
        look.time = each.number("time", 0);
        look.picture = each.text("picture");
        look.overlay = read_overlay(each);
        look.held = read_held(each);
        look.extra = each.kept();
        finish.set_aside.push_back(std::move(look));
    });
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
    if (length > 0 && length <= max_length) {
        finish.length = length;
    } else {
        fields.complain("length", "more than 0 and at most 3600 seconds");
    }
    const double rate = fields.number("tick_rate", finish.ticks.rate);
    if (rate >= least_tick_rate && rate <= most_tick_rate) {
        finish.ticks.rate = rate;
    } else {
        fields.complain("tick_rate", "24 to 240 ticks a second");
    }
    finish.ticks.reset = fields.text("tick_reset");
    fields.each("grounds", [&](Fields& ground) { finish.grounds.push_back(read_ground(ground)); });
    fields.each("cues", [&](Fields& cue) { finish.cues.push_back(read_cue_kind(cue)); });
    fields.each("signals", [&](Fields& signal) { finish.signals.push_back(read_signal(signal)); });
    finish.shared_dials = fields.text("shared_dials");
    if (!finish.shared_dials.empty() && !is_shared_dials_file(finish.shared_dials)) {
        fields.complain("shared_dials", "a .dials file");
        finish.shared_dials.clear();
    }
    fields.each("responses", [&](Fields& response) { finish.responses.push_back(read_response(response)); });
    fields.each("dials", [&](Fields& dial) { finish.dials.push_back(read_dial(dial)); });
    fields.each("coats", [&](Fields& coat) { finish.coats.push_back(read_coat(coat)); });
    read_variants(fields, finish);
    const std::string variant = fields.text("variant");
    fields.each(
        "tape", [&](Fields& event) { read_event(event, finish.tape); }, max_tape_events);
    sort_tape(finish.tape);
    finish.extra = fields.kept();
    if (variant.empty()) return finish;
    if (find_variant(finish, variant) != nullptr) return switch_variant(std::move(finish), variant);
    fields.complain("variant", "the name of a variant");
    return finish;
}

}  // namespace

Result<OpenedFinish> finish_from_text(std::string_view text, const std::string& where) {
    const Place place{where, {}, 0, 0};
    if (text.size() > max_file_size) {
        return Fault{"file.size", "the file is larger than " + std::to_string(max_file_size / 1024 / 1024) + " MB",
                     "open another file", place, Severity::fault};
    }
    Result<Json> json = json_from_text(text, where);
    if (!json) return json.fault();
    if (!json->is_object()) {
        return Fault{"file.shape", "the file is JSON but not a finish", "open a .lacquer file", place, Severity::fault};
    }
    OpenedFinish opened;
    Fields fields(std::move(*json), "", where, opened.notices);
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
