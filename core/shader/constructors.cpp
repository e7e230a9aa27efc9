// Constructors: GLSL ES 3.00, section 5.4.
#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "core/lang/fitting.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

namespace {

Typed converted(Typed leaf, Scalar scalar) {
    if (scalar_of(leaf.type) == scalar) return leaf;
    const Type type = make_type(scalar, width_of(leaf.type));
    return wrap(Conversion(), type, std::move(leaf));
}

bool is_basic(const GlslShape& shape) { return shape.is(GlslShape::Kind::leaf) || shape.is(GlslShape::Kind::matrix); }

}  // namespace

ShaderValue ShaderTranslator::construct(const GlslShape& shape, Span span, std::vector<ShaderValue> args) {
    const std::string name = shape_text(shape);
    if (args.empty()) refuse("lang.count", at(span), name + "() needs something to make it from", "");
    ShaderValue made;
    const bool constant = std::all_of(args.begin(), args.end(), [](const ShaderValue& arg) { return arg.constant; });
    if (shape.is(GlslShape::Kind::structure)) {
        const auto& parts = shape.structure->parts;
        if (args.size() != parts.size())
            refuse("lang.count", at(span),
                   fmt::format("{} has {} parts, and here are {}", name, parts.size(), args.size()),
                   "give each part its value");
        made.shape = shape;
        for (std::size_t k = 0; k < args.size(); ++k) {
            if (!(args[k].shape == parts[k].second)) does_not_fit(args[k], parts[k].second, "'" + parts[k].first + "'");
            for (Typed& leaf : args[k].leaves) made.leaves.push_back(std::move(leaf));
        }
    } else {
        for (const ShaderValue& arg : args) {
            if (!is_basic(arg.shape))
                refuse("lang.kind", arg.span, fmt::format("{}() is not made from a {}", name, shape_text(arg.shape)),
                       "");
        }
        made = shape.is(GlslShape::Kind::matrix) ? construct_matrix(shape, span, std::move(args))
                                                 : construct_vector(shape.leaf, span, std::move(args));
    }
    made.span = at(span);
    made.constant = constant;
    for (Typed& leaf : made.leaves) leaf.span = made.span;
    return made;
}

ShaderValue ShaderTranslator::construct_vector(Type type, Span span, std::vector<ShaderValue> args) {
    const Scalar scalar = scalar_of(type);
    const int needed = width_of(type);
    const std::string name(glsl_name(type));
    if (needed == 1) {
        if (args.size() != 1) refuse("lang.count", at(span), name + "() takes one value", "take out the others");
        return {leaf_shape(type), {converted(part_of(std::move(args[0].leaves[0]), 0), scalar)}, {}};
    }
    if (args.size() == 1 && args[0].shape.is_scalar())
        return {leaf_shape(type), {spread(converted(std::move(args[0].leaves[0]), scalar), type)}, {}};
    Typed made{Construction(), type, at(span)};
    int have = 0;
    for (ShaderValue& arg : args) {
        if (have >= needed)
            refuse("lang.count", arg.span, fmt::format("{}() has its {} numbers already", name, needed),
                   "take this out");
        for (Typed& leaf : arg.leaves) {
            const int left = needed - have;
            if (left <= 0) break;
            Typed part = converted(std::move(leaf), scalar);
            const int width = std::min(left, width_of(part.type));
            if (width < width_of(part.type)) {
                PartsOf first;
                first.count = width;
                for (int k = 0; k < width; ++k) first.parts[static_cast<std::size_t>(k)] = static_cast<std::uint8_t>(k);
                part = wrap(first, make_type(scalar, width), std::move(part));
            }
            have += width;
            made.args.push_back(std::move(part));
        }
    }
    if (have < needed)
        refuse("lang.count", at(span), fmt::format("{}() needs {} numbers and has {}", name, needed, have),
               "add the missing ones");
    if (made.args.size() == 1) return {leaf_shape(type), {std::move(made.args[0])}, {}};
    return {leaf_shape(type), {std::move(made)}, {}};
}

// All numbers in a row, each as a leaf of its own.
std::vector<Typed> ShaderTranslator::components(std::vector<ShaderValue> args, Scalar scalar) {
    std::vector<Typed> all;
    for (ShaderValue& arg : args) {
        for (Typed& leaf : arg.leaves) {
            Typed whole = converted(std::move(leaf), scalar);
            if (width_of(whole.type) > 1) whole = bound(std::move(whole));
            for (int k = 0; k < width_of(whole.type); ++k) all.push_back(part_of(whole, k));
        }
    }
    return all;
}

ShaderValue ShaderTranslator::construct_matrix(const GlslShape& shape, Span span, std::vector<ShaderValue> args) {
    const Type column = float_type(shape.rows);
    const auto number = [&](double value) { return literal_leaf(Type::number, value, at(span)); };
    ShaderValue made{shape, {}, {}};
    if (args.size() == 1 && (args[0].shape.is_scalar() || args[0].shape.is(GlslShape::Kind::matrix))) {
        const bool from_matrix = !args[0].shape.is_scalar();
        const GlslShape from = args[0].shape;
        std::vector<Typed> parts = components(std::move(args), Scalar::real);
        if (!from_matrix) parts[0] = bound(std::move(parts[0]));
        for (int c = 0; c < shape.columns; ++c) {
            Typed leaf{Construction(), column, at(span)};
            for (int r = 0; r < shape.rows; ++r) {
                const bool inside = from_matrix && c < from.columns && r < from.rows;
                leaf.args.push_back(inside                   ? parts[static_cast<std::size_t>(c * from.rows + r)]
                                    : c == r && !from_matrix ? parts[0]
                                                             : number(c == r ? 1 : 0));
            }
            made.leaves.push_back(std::move(leaf));
        }
        return made;
    }
    for (const ShaderValue& arg : args) {
        if (arg.shape.is(GlslShape::Kind::matrix))
            refuse("lang.matrix", arg.span, "a matrix is made from one other matrix, or from numbers and vectors", "");
    }
    const std::size_t last =
        leaf_count(args.back().shape) > 0 ? static_cast<std::size_t>(width_of(args.back().shape.leaf)) : 0;
    const std::vector<Typed> parts = components(std::move(args), Scalar::real);
    const auto needed = static_cast<std::size_t>(shape.columns * shape.rows);
    if (parts.size() < needed || parts.size() - last >= needed)
        refuse("lang.count", at(span),
               fmt::format("{}() needs {} numbers and has {}", shape_text(shape), needed, parts.size()),
               parts.size() < needed ? "add the missing ones" : "take out those that are too many");
    for (std::size_t c = 0; c < static_cast<std::size_t>(shape.columns); ++c) {
        Typed leaf{Construction(), column, at(span)};
        for (std::size_t r = 0; r < static_cast<std::size_t>(shape.rows); ++r)
            leaf.args.push_back(parts[c * static_cast<std::size_t>(shape.rows) + r]);
        made.leaves.push_back(std::move(leaf));
    }
    return made;
}

ShaderValue ShaderTranslator::construct_array(const ShaderNode& node) {
    std::vector<ShaderNode> items(node.args.begin() + (node.sized ? 1 : 0), node.args.end());
    TypeSyntax type{node.text, node.word};
    const GlslShape element = shape_of(type);
    if (items.empty()) refuse("lang.count", at(node.span), "an array needs something to make it from", "");
    if (node.sized) {
        const std::int64_t count = whole_constant(node.args[0], "the size of an array");
        if (count != static_cast<std::int64_t>(items.size()))
            refuse("lang.count", at(node.span),
                   fmt::format("the array has {} places, and here are {} values", count, items.size()),
                   "write as many as it has places");
    }
    if (items.size() > most_elements)
        refuse("shader.array", at(node.span), fmt::format("an array has {} places at most", most_elements),
               "use a picture");
    ShaderValue made{array_shape(element, static_cast<int>(items.size())), {}, at(node.span), true};
    for (ShaderValue& item : values(items)) {
        if (!(item.shape == element)) does_not_fit(item, element, "the array");
        made.constant = made.constant && item.constant;
        for (Typed& leaf : item.leaves) made.leaves.push_back(std::move(leaf));
    }
    return made;
}

}  // namespace lacquer
