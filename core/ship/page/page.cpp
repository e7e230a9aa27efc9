#include "core/ship/page/page.h"

#include <fmt/core.h>
#include <zlib.h>

#include <algorithm>

#include "core/base/base64.h"
#include "core/finish/json_line.h"
#include "core/inspect/report.h"
#include "core/ship/ground_files.h"
#include "core/ship/manifest.h"
#include "core/ship/page/page_text.h"
#include "core/ship/play/play_code.h"
#include "core/ship/play/play_names.h"

namespace lacquer {

namespace {

// Largest side of what is no colour: layers of numbers weigh more.
constexpr int most_side_of_page = 1920;

// Of pictures of droplets, which are many: how large, how often and how many.
constexpr int most_side_of_drops = 256;
constexpr double drops_rate = 10;
constexpr int most_frames_of_drops = 60;

// All first bytes of the floats, then all second ones and so on: so like stands by like.
std::string in_planes(const std::string& floats) {
    const std::size_t count = floats.size() / 4;
    std::string planes(floats.size(), '\0');
    for (std::size_t i = 0; i < count; ++i) {
        for (std::size_t k = 0; k < 4; ++k) planes[k * count + i] = floats[4 * i + k];
    }
    return planes;
}

std::string deflated(const std::string& bytes) {
    uLongf size = compressBound(static_cast<uLong>(bytes.size()));
    std::string packed(size, '\0');
    const int done = compress2(reinterpret_cast<Bytef*>(packed.data()), &size,
                               reinterpret_cast<const Bytef*>(bytes.data()), static_cast<uLong>(bytes.size()), 9);
    packed.resize(done == Z_OK ? size : 0);
    return packed;
}

Json ground_json(const GroundFile& file) {
    return Json::object({{"name", file.name},
                         {"is_png", file.is_png},
                         {"width", file.width},
                         {"height", file.height},
                         {"channels", file.channels},
                         {"bytes", base64(file.is_png ? file.bytes : deflated(in_planes(file.bytes)))}});
}

Json grounds_json(const std::vector<GroundFile>& files) {
    Json list = Json::array();
    for (const GroundFile& file : files) list.push_back(ground_json(file));
    return list;
}

Json played_json(const std::vector<PlayedGround>& played) {
    Json list = Json::array();
    for (const PlayedGround& ground : played)
        list.push_back(
            Json::object({{"name", ground.name}, {"rate", ground.rate}, {"frames", grounds_json(ground.frames)}}));
    return list;
}

std::string about_page(const std::vector<PlayedGround>& played) {
    const std::string drops = played.empty() ? "" : " Droplets move as on the tape, whatever is pressed.";
    return "Made with Lacquer. Scenes and other pictures that move stand still here." + drops;
}

Json tape_json(const Finish& finish, const PlayNames& names) {
    std::vector<std::pair<double, Json>> events;
    for (const Change& change : finish.tape.changes) {
        const auto field = names.fields.find(change.name);
        const Dial* dial = find_dial(finish, change.name);
        if (field == names.fields.end() || (dial != nullptr && !dial->formula.empty())) continue;
        Json value = Json::array();
        for (int k = 0; k < field->second.width; ++k) value.push_back(change.value[static_cast<std::size_t>(k)]);
        events.emplace_back(change.at,
                            Json::object({{"at", change.at}, {"set", field->second.name}, {"value", value}}));
    }
    for (const Cue& cue : finish.tape.cues) {
        const auto name = names.cues.find(cue.name);
        if (name == names.cues.end()) continue;
        events.emplace_back(cue.at, Json::object({{"at", cue.at},
                                                  {"cue", name->second},
                                                  {"strength", cue.strength},
                                                  {"direction", cue.direction},
                                                  {"x", cue.x},
                                                  {"y", cue.y},
                                                  {"object", cue.object}}));
    }
    // Settings stand before cues already, which is how play wants those of one time.
    std::stable_sort(events.begin(), events.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    Json list = Json::array();
    for (auto& [at, event] : events) list.push_back(std::move(event));
    return list;
}

Json fields_json(const PlayNames& names) {
    Json fields = Json::object();
    for (const auto& [name, field] : names.fields) fields[name] = field.name;
    return fields;
}

// The functions of play by the names of what they tell of.
std::string play_table(const ShipMaterial& material, const PlayNames& names) {
    const std::string& stem = material.stem;
    std::string cues;
    for (const auto& [name, own] : names.cues) cues += fmt::format("{0}: {1}_cue_{0}, ", own, stem);
    std::string sets;
    const auto add = [&](const std::string& name) {
        const std::string& field = names.fields.at(name).name;
        sets += fmt::format("{0}: {1}_set_{0}, ", field, stem);
    };
    for (const Signal& signal : material.finish().signals) add(signal.name);
    for (const Dial& dial : material.finish().dials) {
        if (dial.formula.empty()) add(dial.name);
    }
    return "const lacquerPlay = {\n    state: " + stem + "_state_new, values: " + stem + "_values_new, init: " + stem +
           "_init, at: " + stem + "_at,\n    cues: {" + cues + "},\n    sets: {" + sets + "},\n};\n";
}

std::string replaced(std::string text, const std::string& from, const std::string& to) {
    for (std::size_t at = text.find(from); at != std::string::npos; at = text.find(from, at + to.size()))
        text.replace(at, from.size(), to);
    return text;
}

// Within a script nothing may end it; within JSON there is another way to write the mark that would.
std::string in_script(std::string text) { return replaced(replaced(std::move(text), "</", "<\\/"), "<!--", "<\\!--"); }
std::string in_json(std::string text) { return replaced(std::move(text), "<", "\\u003c"); }
std::string in_html(std::string text) {
    return replaced(replaced(replaced(std::move(text), "&", "&amp;"), "<", "&lt;"), ">", "&gt;");
}

}  // namespace

// Before anything has happened there may be no drops to be seen.
double page_moment(const ShipMaterial& material) {
    const auto& droplets = material.request.checked->droplets;
    return droplets.empty() ? 0 : liveliest_moment(*material.request.checked, material.finish().tape);
}

Result<std::string> page_of(const ShipMaterial& material, const Cancel& cancel) {
    const Finish& finish = material.finish();
    Result<PlayCode> play = play_code(material);
    if (!play) return play.fault();
    const Result<std::vector<GroundFile>> grounds = ground_files(
        material, {page_moment(material), finish.frame_width, finish.frame_height}, most_side_of_page, cancel);
    if (!grounds) return grounds.fault();
    const Result<std::vector<PlayedGround>> played =
        played_droplets(material, drops_rate, most_frames_of_drops, most_side_of_drops, cancel);
    if (!played) return played.fault();
    const PlayNames names = play_names(finish);
    Json shaders = Json::object();
    for (const ShippedPass& pass : material.passes)
        shaders[pass.stem] = shipped_shader(material, pass, Dialect::es_300).text;
    Json cues = Json::object();
    for (const auto& [name, own] : names.cues) cues[name] = own;
    Json dials = Json::array();
    for (const Dial& dial : finish.dials) dials.push_back(manifest_dial(dial));
    const Json data = Json::object({{"manifest", manifest_of(material, {})},
                                    {"shaders", std::move(shaders)},
                                    {"grounds", grounds_json(*grounds)},
                                    {"moment", page_moment(material)},
                                    {"played", played_json(*played)},
                                    {"tape", tape_json(finish, names)},
                                    {"fields", fields_json(names)},
                                    {"cues", std::move(cues)},
                                    {"dials", std::move(dials)},
                                    {"about", about_page(*played)}});
    // The finish's own texts come last, so that no place is looked for in them.
    const std::string html(page_html());
    std::string page;
    std::size_t from = 0;
    const auto put = [&](const std::string& place, const std::string& text) {
        const std::size_t at = html.find(place, from);
        page += html.substr(from, at - from) + text;
        from = at + place.size();
    };
    put("@TITLE@", in_html(comment_text(finish.name)));
    put("@DATA@", in_json(one_line(data)));
    put("@PLAY@", in_script(play->module + play_table(material, names)));
    put("@SCRIPT@", std::string(page_script()));
    return page + html.substr(from);
}

}  // namespace lacquer
