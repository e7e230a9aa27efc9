// Calls: constructors, functions of the shader, of GLSL and of Lacquer, and reading pictures.
#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <utility>

#include "core/base/text.h"
#include "core/lang/expression_checker.h"
#include "core/lang/fitting.h"
#include "core/lang/past.h"
#include "core/shader/prelude.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

namespace {

bool is_general(char letter) { return std::string_view("gwnaB").find(letter) != std::string_view::npos; }

// Arguments that may be one number though the others are vectors, as bits: GLSL ES 3.00, sections 8.3 and 8.5.
unsigned lone_numbers(std::string_view name) {
    static constexpr std::array<std::pair<std::string_view, unsigned>, 7> rows = {
        {{"mod", 2}, {"min", 2}, {"max", 2}, {"clamp", 6}, {"mix", 4}, {"step", 1}, {"smoothstep", 3}}};
    for (const auto& [known, bits] : rows) {
        if (known == name) return bits;
    }
    return 0;
}

// Whether GLSL has the function of this row for such arguments; what its letters stand for then.
std::optional<LetterTypes> fitting(const BuiltinRow& row, const std::vector<ShaderValue>& args) {
    if (row.params.size() != args.size()) return std::nullopt;
    for (const ShaderValue& arg : args) {
        if (!arg.shape.is(GlslShape::Kind::leaf)) return std::nullopt;
    }
    const unsigned lone = lone_numbers(row.name);
    LetterTypes common;
    for (std::size_t k = 0; k < args.size(); ++k) {
        if (!is_general(row.params[k])) continue;
        common.width = std::max(common.width, width_of(args[k].shape.leaf));
        if (row.params[k] == 'a') common.scalar = scalar_of(args[k].shape.leaf);
    }
    // All that may be lone numbers are, or none is.
    bool some_lone = false;
    bool some_wide = false;
    for (std::size_t k = 0; k < args.size(); ++k) {
        const Type type = args[k].shape.leaf;
        const Type wanted = letter_type(row.params[k], common);
        const bool may_be_lone = (lone >> k & 1U) != 0 && row.params[k] != 'B';
        if (type == wanted) {
            some_wide = some_wide || (may_be_lone && common.width > 1);
            continue;
        }
        if (!may_be_lone || type != make_type(scalar_of(wanted), 1)) return std::nullopt;
        some_lone = true;
    }
    if (some_lone && some_wide) return std::nullopt;
    // These are for vectors only.
    const bool vectors_only = row.id >= Builtin::less_than && row.id <= Builtin::opposite;
    if (vectors_only && common.width == 1) return std::nullopt;
    return common;
}

bool is_derivative(Builtin id) { return id >= Builtin::derivative_x && id <= Builtin::derivative_width; }

// Only what GLSL has; the others of our table are looked for later.
bool is_read(const BuiltinRow& row) { return row.params[0] == 'p' || row.params[0] == 't' || row.params[0] == 's'; }

}  // namespace

ShaderValue ShaderTranslator::call(const ShaderNode& node) {
    const ShaderName* hidden = find(node.text);
    if (hidden != nullptr && hidden->is_type) return construct(hidden->shape, node.span, values(node.args));
    if (hidden != nullptr)
        refuse("lang.unknown-function", at(node.word), "'" + node.text + "' is a variable, not a function",
               "give one of them another name");
    const GlslShape shape = shape_named(node.text);
    if (shape.is(GlslShape::Kind::leaf) || shape.is(GlslShape::Kind::matrix))
        return construct(shape, node.span, values(node.args));
    if (node.text == "at" && !overloads_.contains("at")) return gradient(node);
    if (node.text == "previous" && !overloads_.contains("previous")) return previous(node);
    GivenArguments given = given_to(node);
    std::vector<ShaderValue>& args = given.values;
    if (ShaderFunction* own = chosen(node.text, args, false)) return called(*own, node, std::move(given));
    if (node.text == "texture" && args.size() == 2) return read(node, Builtin::texture, std::move(args));
    if (node.text == "textureLod" && args.size() == 3) return read(node, Builtin::texture_lod, std::move(args));
    const bool ours = elsewhere_.has_value();
    if (ours && node.text == "texelFetch" && args.size() == 2) return read(node, Builtin::texel_fetch, std::move(args));
    if (ours && node.text == "textureSize" && args.size() == 1)
        return read(node, Builtin::texture_size, std::move(args));
    if (ShaderFunction* ready = chosen(node.text, args, true)) {
        if (!is_glsl_function(node.text) && !elsewhere_)
            note(node.word, "'" + node.text + "' is read as GLSL ES 3.00 has it");
        return called(*ready, node, std::move(given));
    }
    const bool of_matrices = node.text == "outerProduct" ||
                             std::any_of(args.begin(), args.end(),
                                         [](const ShaderValue& arg) { return !arg.shape.is(GlslShape::Kind::leaf); });
    if (of_matrices) return matrix_call(node, args);
    return built_in(node, std::move(args));
}

// GLSL's own function, of those in our table, or one of Lacquer's.
ShaderValue ShaderTranslator::built_in(const ShaderNode& node, std::vector<ShaderValue> args) {
    if (is_glsl_function(node.text)) {
        for (const BuiltinRow& row : builtin_rows()) {
            if (row.name != node.text || is_read(row)) continue;
            const std::optional<LetterTypes> common = fitting(row, args);
            if (!common) continue;
            const Type type = letter_type(row.result, *common);
            Typed made{BuiltinCall{row.id}, type, at(node.span)};
            bool constant = !is_derivative(row.id);
            for (std::size_t k = 0; k < args.size(); ++k) {
                constant = constant && args[k].constant;
                made.args.push_back(spread(std::move(args[k].leaves[0]), letter_type(row.params[k], *common)));
            }
            if (is_derivative(row.id) && !scope_.no_neighbours.empty())
                refuse("lang.derivative", at(node.word), scope_.no_neighbours, "use it in a step");
            // In a whole shader the next pixel upwards is the one above.
            const bool turned = upward_ && !elsewhere_ && row.id == Builtin::derivative_y;
            if (turned) {
                Typed negative{UnaryOperation{Operator::negate}, type, made.span};
                negative.args.push_back(std::move(made));
                made = std::move(negative);
            }
            return {leaf_shape(type), {std::move(made)}, at(node.span), constant};
        }
    } else if (std::optional<ShaderValue> made = our_own(node, args)) {
        return std::move(*made);
    }
    unknown_function(node, args);
}

// Operations, and functions that GLSL has not; they go by the widths of formulas.
std::optional<ShaderValue> ShaderTranslator::our_own(const ShaderNode& node, std::vector<ShaderValue>& args) {
    const bool operation = scope_.functions != nullptr && scope_.functions->contains(node.text);
    const bool known = std::any_of(builtin_rows().begin(), builtin_rows().end(),
                                   [&](const BuiltinRow& row) { return row.name == node.text && !is_read(row); });
    if (!operation && !known) return std::nullopt;
    std::vector<Typed> given;
    given.reserve(args.size());
    for (ShaderValue& arg : args) given.push_back(std::move(arg.leaves[0]));
    Expression call;
    call.kind = ExpressionKind::call;
    call.span = at(node.span);
    call.word = at(node.word);
    call.text = node.text;
    call.args.resize(given.size());
    Result<Typed> made = ExpressionChecker(scope_, text_).called(call, std::move(given));
    if (!made) throw Refusal{made.fault()};
    const Type type = made->type;
    return ShaderValue{leaf_shape(type), {std::move(*made)}, at(node.span)};
}

void ShaderTranslator::unknown_function(const ShaderNode& node, const std::vector<ShaderValue>& args) const {
    std::string given;
    for (const ShaderValue& arg : args) given += (given.empty() ? "" : ", ") + shape_text(arg.shape);
    std::vector<std::string> names;
    for (const BuiltinRow& row : builtin_rows()) names.emplace_back(row.name);
    for (const auto& [name, overloads] : overloads_) names.push_back(name);
    const bool is_known = is_glsl_function(node.text) || overloads_.contains(node.text);
    if (is_known)
        refuse("lang.kind", at(node.span), fmt::format("there is no {} for ({})", node.text, given),
               "convert what is handed over, for example float(...)");
    if (scope_.not_called != nullptr) {
        if (const auto why = scope_.not_called->find(node.text); why != scope_.not_called->end()) {
            Fault told = why->second;
            told.place.span = at(node.word);
            throw Refusal{told};
        }
    }
    const auto near = nearest_name(node.text, names);
    refuse("lang.unknown-function", at(node.word), "there is no function '" + node.text.substr(0, 40) + "'",
           near ? "did you mean " + *near + "?" : "define it above");
}

// Functions of matrices of any size.
ShaderValue ShaderTranslator::matrix_call(const ShaderNode& node, std::vector<ShaderValue>& args) {
    const Span span = at(node.span);
    const auto is_vector = [&](std::size_t k) {
        return args[k].shape.is(GlslShape::Kind::leaf) && is_float(args[k].shape.leaf) && !args[k].shape.is_scalar();
    };
    const auto is_matrix_arg = [&](std::size_t k) { return args[k].shape.is(GlslShape::Kind::matrix); };
    const bool constant = std::all_of(args.begin(), args.end(), [](const ShaderValue& arg) { return arg.constant; });
    if (node.text == "transpose" && args.size() == 1 && is_matrix_arg(0)) {
        const GlslShape from = args[0].shape;
        const ShaderValue whole = bound(std::move(args[0]));
        ShaderValue made{matrix_shape(from.rows, from.columns), {}, span, constant};
        for (int r = 0; r < from.rows; ++r) {
            Typed column{Construction(), float_type(from.columns), span};
            for (const Typed& leaf : whole.leaves) column.args.push_back(part_of(leaf, r));
            made.leaves.push_back(std::move(column));
        }
        return made;
    }
    if (node.text == "outerProduct" && args.size() == 2 && is_vector(0) && is_vector(1)) {
        const int rows = width_of(args[0].shape.leaf);
        const int columns = width_of(args[1].shape.leaf);
        const Typed down = bound(std::move(args[0].leaves[0]));
        const Typed across = bound(std::move(args[1].leaves[0]));
        ShaderValue made{matrix_shape(columns, rows), {}, span, constant};
        for (int c = 0; c < columns; ++c)
            made.leaves.push_back(
                joined(Operator::multiply, down, spread(part_of(across, c), float_type(rows)), float_type(rows)));
        return made;
    }
    if (node.text == "matrixCompMult" && args.size() == 2 && is_matrix_arg(0) && args[0].shape == args[1].shape) {
        ShaderValue made{args[0].shape, {}, span, constant};
        for (std::size_t k = 0; k < args[0].leaves.size(); ++k)
            made.leaves.push_back(joined(Operator::multiply, std::move(args[0].leaves[k]), std::move(args[1].leaves[k]),
                                         float_type(args[0].shape.rows)));
        return made;
    }
    unknown_function(node, args);
}

// Pictures.

ShaderValue ShaderTranslator::read(const ShaderNode& node, Builtin builtin, std::vector<ShaderValue> args) {
    const Span span = at(node.span);
    if (!args[0].picture)
        refuse("lang.picture", args[0].span, quoted(args[0].span) + " is no picture",
               "name a step or a ground, or declare a uniform sampler2D");
    const PictureSource& source = *args[0].picture;
    const bool by_pixel = builtin == Builtin::texel_fetch;
    const bool has_place = builtin != Builtin::texture_size;
    Typed made{PictureReading{builtin, source.name, source.symbol, false}, source.type, span};
    if (has_place) {
        const Type wanted = by_pixel ? Type::ivec2 : Type::vec2;
        if (!args[1].shape.is(wanted)) does_not_fit(args[1], leaf_shape(wanted), "the place to read");
        Typed place = std::move(args[1].leaves[0]);
        if (upward_) place = turned_over(std::move(place), source, span);
        made.args.push_back(std::move(place));
    }
    if (builtin == Builtin::texture_lod) {
        if (!args[2].shape.is(Type::number)) does_not_fit(args[2], leaf_shape(Type::number), "the level");
        made.args.push_back(std::move(args[2].leaves[0]));
    }
    if (!has_place) {
        made.type = Type::ivec2;
        return {leaf_shape(Type::ivec2), {std::move(made)}, span};
    }
    made.get<PictureReading>().weighed = source.weighed && width_of(source.type) == 4 && !by_pixel;
    if (source.type == Type::vec4) return {leaf_shape(Type::vec4), {std::move(made)}, span};
    // What a picture has not is 0, its opacity 1: GLSL ES 3.00, 8.8 by OpenGL ES 3.0, table 3.12.
    const int width = width_of(source.type);
    Typed whole{Construction(), Type::vec4, span};
    whole.args.push_back(std::move(made));
    for (int k = width; k < 4; ++k) whole.args.push_back(literal_leaf(Type::number, k == 3 ? 1 : 0, span));
    return {leaf_shape(Type::vec4), {std::move(whole)}, span};
}

// A place that counts upwards, as pictures have it.
Typed ShaderTranslator::turned_over(Typed place, const PictureSource& source, Span span) {
    const bool by_pixel = place.type == Type::ivec2;
    place = bound(std::move(place));
    Typed from = literal_leaf(Type::number, 1, span);
    if (by_pixel) {
        const Typed size{PictureReading{Builtin::texture_size, source.name, source.symbol, false}, Type::ivec2, span};
        from = joined(Operator::subtract, part_of(size, 1), literal_leaf(Type::integer, 1, span), Type::integer);
    }
    Typed made{Construction(), place.type, span};
    made.args.push_back(part_of(place, 0));
    made.args.push_back(
        joined(Operator::subtract, std::move(from), part_of(place, 1), by_pixel ? Type::integer : Type::number));
    return made;
}

// at(gradient, t)
ShaderValue ShaderTranslator::gradient(const ShaderNode& node) {
    const Span span = at(node.span);
    const auto known = node.args.size() == 2 && node.args[0].kind == ShaderNodeKind::name
                           ? scope_.symbols.find(node.args[0].text)
                           : scope_.symbols.end();
    if (known == scope_.symbols.end() || known->second.kind != SymbolKind::gradient)
        refuse("lang.picture", span, "at() reads a gradient or a curve at a place", "write at(gradient, t)");
    ShaderValue place = value(node.args[1]);
    if (!place.shape.is(Type::number)) does_not_fit(place, leaf_shape(Type::number), "the place to read");
    const Symbol& symbol = known->second;
    Typed made{PictureReading{Builtin::at, symbol.actual.empty() ? node.args[0].text : symbol.actual,
                              SymbolKind::gradient, false},
               symbol.type, span};
    made.args.push_back(std::move(place.leaves[0]));
    return {leaf_shape(symbol.type), {std::move(made)}, span};
}

// previous(step) and previous(step, where)
ShaderValue ShaderTranslator::previous(const ShaderNode& node) {
    const Span span = at(node.span);
    if (node.args.empty() || node.args.size() > 2 || node.args[0].kind != ShaderNodeKind::name)
        refuse("lang.previous", span, "previous takes a step and perhaps a place", "write previous(step)");
    const std::string& step = node.args[0].text;
    const auto known = scope_.past.find(step);
    if (known == scope_.past.end()) {
        const auto why = scope_.no_past.find(step);
        if (why != scope_.no_past.end()) {
            Fault told = why->second;
            told.place.span = at(node.args[0].span);
            throw Refusal{told};
        }
        refuse("lang.previous", at(node.args[0].span),
               "'" + step + "' isn't a step: only steps go on from tick to tick", "name a step");
    }
    if (node.args.size() == 1)
        return {
            leaf_shape(known->second), {{NameHere{past_picture(step), SymbolKind::ground}, known->second, span}}, span};
    ShaderValue where = value(node.args[1]);
    if (!where.shape.is(Type::vec2)) does_not_fit(where, leaf_shape(Type::vec2), "the place to read");
    const PictureSource source{past_picture(step), SymbolKind::ground, known->second, false};
    Typed made{PictureReading{Builtin::texture, source.name, source.symbol, false}, known->second, span};
    Typed place = std::move(where.leaves[0]);
    made.args.push_back(upward_ ? turned_over(std::move(place), source, span) : std::move(place));
    return {leaf_shape(known->second), {std::move(made)}, span};
}

}  // namespace lacquer
