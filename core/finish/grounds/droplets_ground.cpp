#include "core/finish/grounds/droplets_ground.h"

#include <algorithm>
#include <cmath>

#include "core/finish/grounds/picture_fields.h"
#include "core/finish/json_fields.h"

namespace lacquer {

namespace {

constexpr std::string_view condition_key = "born_while";
constexpr int most_cells = 4096;

template <class Kind, std::size_t count>
void read_word(Fields& fields, const char* key, const std::array<std::string_view, count>& words, Kind& kind) {
    const std::string text = fields.text(key, std::string(words[static_cast<std::size_t>(kind)]));
    if (const auto found = drop_word<Kind>(words, text)) {
        kind = *found;
        return;
    }
    std::string offered;
    for (const std::string_view word : words) offered += (offered.empty() ? "" : ", ") + std::string(word);
    fields.complain(key, "one of " + offered);
}

template <class Kind, std::size_t count>
void write_word(Json& object, const char* key, const std::array<std::string_view, count>& words, Kind kind,
                Kind usual) {
    if (kind != usual) object[key] = words[static_cast<std::size_t>(kind)];
}

// A number, from and to, or a formula.
void read_number(Fields& fields, const DropNumberSpec& spec, DropNumber& number) {
    const std::string key(spec.key);
    Json value;
    if (!fields.has(key) || !fields.take(key.c_str(), value)) return;
    if (value.is_string()) {
        number.formula = value.text();
        return;
    }
    const auto fits = [&](const Json& each) {
        return Fields::is_number(each) && each.number() >= spec.least && each.number() <= spec.most;
    };
    if (fits(value)) {
        number.from = number.to = value.number();
    } else if (spec.spreads && value.is_array() && value.size() == 2 && fits(value.list()[0]) &&
               fits(value.list()[1])) {
        number.from = value.list()[0].number();
        number.to = value.list()[1].number();
    } else {
        fields.complain(key, "a number within its limits, two of them, or a formula");
    }
}

void write_number(Json& object, const DropNumberSpec& spec, const DropNumber& number) {
    if (!number.formula.empty()) {
        object[spec.key] = number.formula;
    } else if (number.from != number.to) {
        object[spec.key] = {number.from, number.to};
    } else if (number.from != spec.usual) {
        object[spec.key] = number.from;
    }
}

void read_cells(Fields& fields, Droplets& drops) {
    std::vector<double> cells;
    if (!fields.has("cells") || !fields.numbers("cells", 3, cells)) return;
    const bool good =
        cells[0] >= 1 && cells[1] >= 1 && cells[0] * cells[1] <= most_cells && cells[2] >= 0 && cells[2] <= 1000;
    if (!good) return fields.complain("cells", "columns, rows, and how many a second or 0");
    drops.columns = static_cast<int>(cells[0]);
    drops.rows = static_cast<int>(cells[1]);
    drops.cell_rate = cells[2];
}

struct NamedText {
    const char* key;
    std::string Droplets::*text;
};
// Names of cues, of a place, and of other grounds.
constexpr NamedText names[] = {{"cue", &Droplets::cue},
                               {"ends_at", &Droplets::ends_at},
                               {"ends_near", &Droplets::ends_near},
                               {"size_over_life", &Droplets::size_curve},
                               {"opacity_over_life", &Droplets::opacity_curve},
                               {"opacity_over_end", &Droplets::ending_curve},
                               {"tint", &Droplets::tint}};

struct NamedFlag {
    const char* key;
    bool Droplets::*flag;
};
constexpr NamedFlag flags[] = {{"by_strength", &Droplets::by_strength},
                               {"at_cue", &Droplets::at_cue},
                               {"settled", &Droplets::settled},
                               {"new_each_cue", &Droplets::new_each_cue},
                               {"oldest_on_top", &Droplets::oldest_on_top}};

}  // namespace

void read(Fields& fields, DropletsGround& ground) {
    Droplets& drops = ground.drops;
    read_word(fields, "droplets", drop_shape_words, drops.shape);
    ground.picture = fields.text("drop_picture");
    read_cells(fields, drops);
    drops.born_while = fields.text("born_while");
    for (const auto& [key, text] : names) drops.*text = fields.text(key);
    for (const auto& [key, flag] : flags) drops.*flag = fields.flag(key, drops.*flag);
    read_word(fields, "field", drop_field_words, drops.field);
    read_word(fields, "place", drop_place_words, drops.place);
    read_word(fields, "leaves", drop_leaves_words, drops.leaves);
    read_word(fields, "facing", drop_facing_words, drops.facing);
    read_word(fields, "blend", drop_blend_words, drops.blend);
    const double seed = fields.number("seed", drops.seed);
    drops.seed = static_cast<int>(std::clamp(std::round(seed), 0.0, 1e9));
    for (const DropNumberSpec& spec : drop_numbers()) read_number(fields, spec, drops.number(spec.id));
    ground.opacity = read_opacity(fields);
    ground.sampling = read_sampling(fields);
}

void write(Json& object, const DropletsGround& ground) {
    const Droplets& drops = ground.drops;
    const Droplets usual;
    object["droplets"] = drop_shape_words[static_cast<std::size_t>(drops.shape)];
    if (!ground.picture.empty()) object["drop_picture"] = ground.picture;
    if (drops.columns != 1 || drops.rows != 1 || drops.cell_rate != 0)
        object["cells"] = {drops.columns, drops.rows, drops.cell_rate};
    if (!drops.born_while.empty()) object["born_while"] = drops.born_while;
    for (const auto& [key, text] : names) {
        if (!(drops.*text).empty()) object[key] = drops.*text;
    }
    for (const auto& [key, flag] : flags) {
        if (drops.*flag != usual.*flag) object[key] = drops.*flag;
    }
    write_word(object, "field", drop_field_words, drops.field, usual.field);
    write_word(object, "place", drop_place_words, drops.place, usual.place);
    write_word(object, "leaves", drop_leaves_words, drops.leaves, usual.leaves);
    write_word(object, "facing", drop_facing_words, drops.facing, usual.facing);
    write_word(object, "blend", drop_blend_words, drops.blend, usual.blend);
    if (drops.seed != usual.seed) object["seed"] = drops.seed;
    for (const DropNumberSpec& spec : drop_numbers()) write_number(object, spec, drops.number(spec.id));
    write_opacity(object, ground.opacity);
    write_sampling(object, ground.sampling);
}

std::vector<GroundPicture> pictures_of(const DropletsGround&, const std::string& name) {
    return {{name, GroundLayer::colour, Type::vec4, "the drops' colours, clear where none is"},
            {name + "_age", GroundLayer::age, Type::number, "share of its life that a drop has lived, 0..1"},
            {name + "_seed", GroundLayer::seed, Type::number, "a number of each drop's own, 0..1"},
            {name + "_place", GroundLayer::place, Type::vec2, "coordinates within a drop, -1..1"},
            {name + "_push", GroundLayer::push, Type::vec2, "the slope of the drops' height, for lenses"}};
}

std::vector<std::string*> paths_of(DropletsGround& ground) {
    return ground.drops.shape == DropShape::picture ? std::vector<std::string*>{&ground.picture}
                                                    : std::vector<std::string*>();
}

ListLength list_of(const DropletsGround&) { return {}; }

std::vector<DropFormula> formulas_of(DropletsGround& ground) {
    std::vector<DropFormula> formulas;
    if (!ground.drops.born_while.empty()) formulas.push_back({condition_key, &ground.drops.born_while, true});
    for (const DropNumberSpec& spec : drop_numbers()) {
        std::string& formula = ground.drops.number(spec.id).formula;
        if (!formula.empty()) formulas.push_back({spec.key, &formula, false});
    }
    return formulas;
}

std::vector<std::string*> cues_in(DropletsGround& ground) { return {&ground.drops.cue, &ground.drops.ends_at}; }

std::vector<std::string*> names_in(DropletsGround& ground) {
    Droplets& drops = ground.drops;
    return {&drops.ends_near, &drops.size_curve, &drops.opacity_curve, &drops.ending_curve, &drops.tint};
}

}  // namespace lacquer
