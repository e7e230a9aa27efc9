#include "core/ship/manifest.h"

#include <algorithm>
#include <map>

#include "core/finish/ground_pictures.h"
#include "core/finish/json_line.h"
#include "core/finish/kinds.h"
#include "core/finish/play.h"
#include "core/lang/known_names.h"
#include "core/lang/past.h"
#include "core/picture/table.h"
#include "core/ship/play/play_names.h"

namespace lacquer {

namespace {

Json numbers(const DialValue& value, int width) {
    if (width == 1) return value[0];
    Json list = Json::array();
    for (int k = 0; k < width; ++k) list.push_back(value[static_cast<std::size_t>(k)]);
    return list;
}

Json dial_json(const Dial& dial) {
    const int width = dial.kind == DialKind::colour ? 3 : 1;
    Json json = Json::object({{"kind", "dial"}, {"code_name", dial.code_name}, {"as", dial_kind_name(dial.kind)}});
    if (dial.kind == DialKind::toggle) {
        json["default"] = dial.default_value[0] != 0;
        json["value"] = dial.value[0] != 0;
    } else {
        json["default"] = numbers(dial.default_value, width);
        json["value"] = numbers(dial.value, width);
    }
    if (dial.kind == DialKind::number || dial.kind == DialKind::integer) {
        json["least"] = dial.least;
        json["most"] = dial.most;
        json["increment"] = dial.increment;
    }
    if (!dial.unit.empty()) json["unit"] = dial.unit;
    if (!dial.note.empty()) json["note"] = dial.note;
    if (!dial.formula.empty()) json["driven_by"] = dial.formula;
    return json;
}

// What stands behind a uniform, by the name that formulas use.
Json source_json(const Finish& finish, const std::string& source) {
    if (source == "lq_drawn_size")
        return Json::object({{"kind", "drawn_size"}, {"words", "width and height of what this pass draws, in pixels"}});
    if (const KnownName* known = find_known(source)) return Json::object({{"kind", "known"}, {"words", known->words}});
    if (const Dial* dial = find_dial(finish, source)) return dial_json(*dial);
    const std::string owner = source.substr(0, source.find('.'));
    if (const Signal* signal = find_signal(finish, owner)) {
        Json json = Json::object({{"kind", "signal"}, {"as", signal_kind_name(signal->kind)}});
        json["default"] = numbers(signal->value, signal->kind == SignalKind::place ? 2 : 1);
        json["least"] = signal->least;
        json["most"] = signal->most;
        if (!signal->unit.empty()) json["unit"] = signal->unit;
        if (!signal->note.empty()) json["note"] = signal->note;
        return json;
    }
    if (const Response* response = find_response(finish, owner))
        return Json::object({{"kind", "response"}, {"of", response->kind}, {"cue", response->cue}});
    return Json::object({{"kind", "droplets"}});
}

struct PictureFacts {
    std::string kind;
    Sampling sampling;
    Json json = Json::object();
};

PictureFacts picture_facts(const ShipMaterial& material, const Pass& pass, const std::string& source) {
    const Finish& finish = material.finish();
    PictureFacts facts;
    if (const auto sampling = pass.samplings.find(source); sampling != pass.samplings.end())
        facts.sampling = sampling->second;
    if (const auto step = step_of_tick_picture(source)) {
        facts.kind = source.ends_with(".previous") ? "previous_tick" : "present_tick";
        facts.json["step"] = std::string(*step);
        return facts;
    }
    if (const auto named = find_ground_picture(finish, source)) {
        facts.kind = "ground";
        facts.json["ground"] = named->ground->name;
        facts.json["words"] = named->picture.words;
        return facts;
    }
    const Ground* ground = find_ground(finish, source);
    if (ground != nullptr && stops_of(*ground) != nullptr) {
        facts.kind = "table";
        facts.json["ground"] = ground->name;
        return facts;
    }
    facts.kind = "step";
    facts.json["step"] = source;
    return facts;
}

std::string stored_format(const Resource& resource) {
    static const std::map<int, std::string> single = {{1, "r32f"}, {2, "rg32f"}, {4, "rgba32f"}};
    const auto found = single.find(resource.channels);
    return found != single.end() ? found->second : "rgba32f";
}

// Where each value stands in NAME_values, counted in doubles.
std::map<std::string, int> value_places(const Finish& finish) {
    std::map<std::string, int> places;
    int at = 0;
    for (const auto& [name, field] : play_names(finish).fields) {
        places[name] = at;
        at += field.width;
    }
    return places;
}

Json pass_json(const ShipMaterial& material, const ShippedPass& shipped, std::span<const ShipOutput* const> outputs,
               const std::map<std::string, int>& values) {
    const Shader shader = shipped_shader(material, shipped, Dialect::vulkan_450);
    Json files = Json::object();
    for (const ShipOutput* output : outputs) {
        if (!output->ending.empty()) files[output->id] = shader_path(*output, shipped);
    }
    Json uniforms = Json::array();
    for (const ShaderUniform& uniform : shader.uniforms) {
        Json json = Json::object({{"name", uniform.name},
                                  {"source", uniform.source},
                                  {"type", glsl_name(uniform.type)},
                                  {"parts", width_of(uniform.type)},
                                  {"offset", uniform.offset}});
        if (const auto value = values.find(uniform.source); value != values.end()) json["value_at"] = value->second;
        uniforms.push_back(std::move(json));
    }
    Json pictures = Json::array();
    for (const ShaderPicture& picture : shader.pictures) {
        PictureFacts facts = picture_facts(material, shipped.pass, picture.source);
        const auto& pyramids = shipped.pass.pyramids;
        Json json = Json::object({{"name", picture.name},
                                  {"source", picture.source},
                                  {"kind", facts.kind},
                                  {"binding", picture.binding},
                                  {"wrap", wrap_name(facts.sampling.wrap)},
                                  {"filter", filter_name(facts.sampling.filter)},
                                  {"weighed_by_opacity", facts.sampling.weighed}});
        if (std::find(pyramids.begin(), pyramids.end(), picture.source) != pyramids.end())
            json["smaller_copies"] = true;
        pictures.push_back(std::move(json));
    }
    Json writes = Json::array();
    for (const std::string& name : shader.outputs) {
        const Resource resource = resource_of(shipped.pass, name);
        const TickedStep* ticked = find_ticked(*material.request.checked, name);
        const bool half = ticked != nullptr && ticked->half && shipped.when == PassMoment::tick;
        writes.push_back(Json::object({{"name", name},
                                       {"type", glsl_name(resource.type)},
                                       {"format", stored_format(resource)},
                                       {"round_to_half", half},
                                       {"kept", resource.lifetime == Lifetime::tick    ? "from tick to tick"
                                                : resource.lifetime == Lifetime::frame ? "for the frame"
                                                                                       : "for this pass"}}));
    }
    return Json::object({{"name", shipped.stem},
                         {"at_each", pass_moment_name(shipped.when)},
                         {"scale", shipped.pass.scale},
                         {"shaders", std::move(files)},
                         {"uniform_block_size", shader.block_size},
                         {"uniforms", std::move(uniforms)},
                         {"pictures", std::move(pictures)},
                         {"writes", std::move(writes)}});
}

// Every uniform of any pass once, with what stands behind it.
Json uniforms_json(const ShipMaterial& material) {
    std::map<std::string, Type> all;
    for (const ShippedPass& shipped : material.passes) {
        for (const ShaderUniform& uniform : shipped_shader(material, shipped, Dialect::es_300).uniforms)
            all.emplace(uniform.source, uniform.type);
    }
    Json list = Json::array();
    for (const auto& [source, type] : all) {
        Json json = Json::object({{"source", source}, {"type", glsl_name(type)}});
        const Json facts = source_json(material.finish(), source);
        for (const auto& [key, value] : facts.members()) json[key] = value;
        list.push_back(std::move(json));
    }
    return list;
}

// Every ground picture and table of any pass once.
Json grounds_json(const ShipMaterial& material, std::span<const ShippedFile> files) {
    const Finish& finish = material.finish();
    Json list = Json::array();
    std::vector<std::string> seen;
    for (const ShippedPass& shipped : material.passes) {
        for (const std::string& source : shipped.pass.grounds) {
            if (std::find(seen.begin(), seen.end(), source) != seen.end()) continue;
            seen.push_back(source);
            PictureFacts facts = picture_facts(material, shipped.pass, source);
            if (facts.kind != "ground" && facts.kind != "table") continue;
            Json json = Json::object({{"name", source}, {"kind", facts.kind}});
            for (const auto& [key, value] : facts.json.members()) json[key] = value;
            json["wrap"] = wrap_name(facts.sampling.wrap);
            json["filter"] = filter_name(facts.sampling.filter);
            const Ground* ground = find_ground(finish, facts.json.find("ground")->text());
            json["values"] = facts.kind == "table" || (ground != nullptr && is_data(*ground)) ? "data" : "linear light";
            if (const auto named = find_ground_picture(finish, source)) {
                json["type"] = glsl_name(named->picture.type);
                if (named->picture.layer != GroundLayer::colour) json["values"] = "data";
            }
            if (ground != nullptr && ground->as<DropletsGround>() != nullptr) json["droplets"] = true;
            for (const ShippedFile& file : files) {
                if (file.of != source) continue;
                for (const auto& [key, value] : file.facts.members()) json[key] = value;
            }
            list.push_back(std::move(json));
        }
    }
    return list;
}

Json ticks_json(const ShipMaterial& material) {
    const CheckedFinish& checked = *material.request.checked;
    Json keeps = Json::array();
    for (const TickedStep& step : checked.ticked) {
        keeps.push_back(Json::object({{"step", step.name},
                                      {"previous", past_picture(step.name)},
                                      {"present", present_picture(step.name)},
                                      {"scale", step.scale},
                                      {"channels", stored_channels(step.type)},
                                      {"starts_by", step.has_start ? start_picture(step.name) : std::string()}}));
    }
    return Json::object(
        {{"rate", checked.finish->ticks.rate}, {"reset", checked.finish->ticks.reset}, {"keeps", std::move(keeps)}});
}

// As a finish's file has them; see docs/format.md.
Json droplets_json(const Finish& finish) {
    Json list = Json::array();
    for (const Ground& ground : finish.grounds) {
        const auto* droplets = ground.as<DropletsGround>();
        if (droplets == nullptr) continue;
        Json json = Json::object({{"name", ground.name}});
        write(json, *droplets);
        list.push_back(std::move(json));
    }
    return list;
}

Json limits_json(const std::vector<ShipLimit>& limits) {
    Json list = Json::array();
    for (const auto& [fault, instead] : limits) {
        list.push_back(Json::object(
            {{"id", fault.id}, {"where", fault.place.where}, {"message", fault.message}, {"mend", fault.mend}}));
    }
    return list;
}

}  // namespace

Json manifest_of(const ShipMaterial& material, std::span<const ShipOutput* const> outputs,
                 std::span<const ShippedFile> files) {
    const Finish& finish = material.finish();
    const std::map<std::string, int> values = value_places(finish);
    Json passes = Json::array();
    for (const ShippedPass& pass : material.passes) passes.push_back(pass_json(material, pass, outputs, values));
    Json targets = Json::array();
    for (const ShipOutput* output : outputs) targets.push_back(output->id);
    const PlayNames names = play_names(finish);
    Json cues = Json::array();
    for (const CueKind& cue : finish.cues) {
        cues.push_back(Json::object({{"name", cue.name},
                                     {"call", material.stem + "_cue_" + names.cues.at(cue.name)},
                                     {"strength", cue.strength},
                                     {"direction", cue.direction}}));
    }
    Json signals = Json::array();
    for (const Signal& signal : finish.signals) {
        Json json = Json::object(
            {{"name", signal.name}, {"call", material.stem + "_set_" + names.fields.at(signal.name).name}});
        const Json facts = source_json(finish, signal.name);
        for (const auto& [key, value] : facts.members()) json[key] = value;
        signals.push_back(std::move(json));
    }
    Json manifest =
        Json::object({{"lacquer_set", manifest_version},
                      {"name", finish.name},
                      {"variant", finish.variant},
                      {"brief", finish.brief},
                      {"targets", std::move(targets)},
                      {"frame", Json::object({{"width", finish.frame_width}, {"height", finish.frame_height}})},
                      {"reading", material.request.access == PictureAccess::exact ? "exact" : "native"},
                      {"colour", Json::object({{"space", "linear light, primaries of sRGB"}, {"opacity", "straight"}})},
                      {"orientation", "the first row of every picture is its top"},
                      {"finished", material.finished},
                      {"length", finish.length},
                      {"cues", std::move(cues)},
                      {"signals", std::move(signals)},
                      {"uniforms", uniforms_json(material)},
                      {"grounds", grounds_json(material, files)},
                      {"passes", std::move(passes)}});
    if (!material.request.checked->ticked.empty()) manifest["ticks"] = ticks_json(material);
    if (Json droplets = droplets_json(finish); droplets.size() > 0) manifest["droplets"] = std::move(droplets);
    manifest["limits"] = limits_json(material.limits);
    return manifest;
}

Json manifest_dial(const Dial& dial) {
    Json json = Json::object({{"name", dial.name}});
    const Json facts = dial_json(dial);
    for (const auto& [key, value] : facts.members()) json[key] = value;
    return json;
}

namespace {

constexpr std::size_t longest_line = 110;

std::string indented(const Json& value, const std::string& indent) {
    std::string plain = one_line(value);
    if (plain.size() + indent.size() <= longest_line || value.size() == 0) return plain;
    const std::string inner = indent + "  ";
    std::string text;
    for (const auto& [key, member] : value.members())
        text += (text.empty() ? "" : ",\n") + inner + one_line(Json(key)) + ": " + indented(member, inner);
    for (const Json& member : value.list()) text += (text.empty() ? "" : ",\n") + inner + indented(member, inner);
    return (value.is_object() ? "{\n" : "[\n") + text + "\n" + indent + (value.is_object() ? "}" : "]");
}

}  // namespace

std::string readable_json(const Json& value) { return indented(value, "") + "\n"; }

}  // namespace lacquer
