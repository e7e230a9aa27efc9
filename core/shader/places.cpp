// What can be set, and how one of several is found by a number.
#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "core/lang/fitting.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

ShaderPlace ShaderTranslator::place(const ShaderNode& node) {
    const Span span = at(node.span);
    switch (node.kind) {
        case ShaderNodeKind::name: {
            const ShaderName* known = find(node.text);
            if (known == nullptr) {
                name(node);
                refuse("lang.assignment", span, quoted(span) + " isn't a variable, and only variables change",
                       "make a variable of it");
            }
            if (known->is_type || !known->writable)
                refuse("lang.assignment", span, quoted(span) + " cannot be set", "make a variable of it");
            ShaderPlace made{known->shape, span, {}, {}, {}};
            for (const int number : known->variables)
                made.leaves.push_back({number, making_->function.variables[static_cast<std::size_t>(number)].type});
            return made;
        }
        case ShaderNodeKind::field: {
            ShaderPlace whole = place(node.args[0]);
            if (whole.shape.is(GlslShape::Kind::structure)) {
                std::size_t first = 0;
                for (const auto& [name, shape] : whole.shape.structure->parts) {
                    const std::size_t count = leaf_count(shape);
                    if (name == node.text) {
                        ShaderPlace taken = part(std::move(whole), first, count, shape);
                        taken.span = span;
                        return taken;
                    }
                    first += count;
                }
            }
            if (!whole.shape.is(GlslShape::Kind::leaf) || width_of(whole.shape.leaf) == 1)
                refuse("lang.parts", at(node.word),
                       fmt::format("a {} has no part '{}'", shape_text(whole.shape), node.text.substr(0, 40)), "");
            const PartsOf taken = swizzle(node, whole.shape.leaf);
            for (int i = 0; i < taken.count; ++i) {
                for (int k = 0; k < i; ++k) {
                    if (taken.parts[static_cast<std::size_t>(i)] == taken.parts[static_cast<std::size_t>(k)])
                        refuse("lang.assignment", span, "a part is set twice at once", "set each part once");
                }
            }
            return component(std::move(whole), taken, span);
        }
        case ShaderNodeKind::index: {
            ShaderPlace whole = place(node.args[0]);
            const int count = place_count(whole.shape);
            if (count == 0)
                refuse("lang.parts", at(node.word), fmt::format("a {} has no parts to take", shape_text(whole.shape)),
                       "leave the brackets out");
            ShaderPlace found = indexed(std::move(whole), index_of(node.args[1], count), count);
            found.span = span;
            return found;
        }
        default:
            refuse("lang.assignment", span, quoted(span) + " isn't a variable, and only variables change",
                   "make a variable of it");
    }
}

ShaderPlace ShaderTranslator::part(ShaderPlace whole, std::size_t first, std::size_t count,
                                   const GlslShape& shape) const {
    if (whole.index) {
        for (ShaderPlace& option : whole.options) option = part(std::move(option), first, count, shape);
    } else {
        const auto begin = whole.leaves.begin() + static_cast<std::ptrdiff_t>(first);
        whole.leaves = std::vector<LeafPlace>(begin, begin + static_cast<std::ptrdiff_t>(count));
    }
    whole.shape = shape;
    return whole;
}

ShaderPlace ShaderTranslator::component(ShaderPlace whole, const PartsOf& parts, Span span) const {
    const Type type = make_type(scalar_of(whole.shape.leaf), parts.count);
    if (whole.index) {
        for (ShaderPlace& option : whole.options) option = component(std::move(option), parts, span);
    } else {
        LeafPlace& leaf = whole.leaves[0];
        const LeafPlace old = leaf;
        leaf.type = type;
        leaf.part_count = parts.count;
        for (std::size_t k = 0; k < static_cast<std::size_t>(parts.count); ++k)
            leaf.parts[k] = old.part_count > 0 ? old.parts[parts.parts[k]] : parts.parts[k];
    }
    whole.shape = leaf_shape(type);
    whole.span = span;
    return whole;
}

// One of its parts, vectors' numbers included.
ShaderPlace ShaderTranslator::indexed(ShaderPlace whole, const Typed& index, int count) const {
    const bool vector = whole.shape.is(GlslShape::Kind::leaf);
    const GlslShape shape = place_shape(whole.shape);
    const auto option = [&](int k) {
        if (!vector) {
            const std::size_t each = leaf_count(shape);
            return part(whole, static_cast<std::size_t>(k) * each, each, shape);
        }
        PartsOf one;
        one.count = 1;
        one.parts[0] = static_cast<std::uint8_t>(k);
        return component(whole, one, whole.span);
    };
    if (const auto* number = index.as<Literal>()) return option(static_cast<int>(number->number));
    ShaderPlace made{shape, whole.span, {}, index, {}};
    made.options.reserve(static_cast<std::size_t>(count));
    for (int k = 0; k < count; ++k) made.options.push_back(option(k));
    return made;
}

void ShaderTranslator::store(const ShaderPlace& place, const std::vector<Typed>& leaves, const Typed* only_where) {
    if (place.index) {
        std::vector<Typed> simple;
        simple.reserve(leaves.size());
        for (const Typed& leaf : leaves) simple.push_back(bound(leaf));
        count_work(place.span, place.options.size() * simple.size());
        for (std::size_t k = 0; k < place.options.size(); ++k) {
            Typed is_here = joined(Operator::equal, *place.index,
                                   literal_leaf(Type::integer, static_cast<double>(k), place.span), Type::boolean);
            if (only_where != nullptr) is_here = joined(Operator::both, *only_where, std::move(is_here), Type::boolean);
            store(place.options[k], simple, &is_here);
        }
        return;
    }
    for (std::size_t k = 0; k < place.leaves.size(); ++k) {
        const LeafPlace& leaf = place.leaves[k];
        TypedStatement s;
        s.kind = StatementKind::assign;
        s.span = place.span;
        s.variable = leaf.variable;
        s.part_count = leaf.part_count;
        s.parts = leaf.parts;
        Typed fresh = leaves[k];
        if (only_where != nullptr) {
            const ShaderPlace here{leaf_shape(leaf.type), place.span, {leaf}, {}, {}};
            fresh = chosen_leaf(*only_where, std::move(fresh), value_at(here).leaves[0]);
        }
        s.values.push_back(std::move(fresh));
        emit(std::move(s));
    }
}

ShaderValue ShaderTranslator::value_at(const ShaderPlace& place) const {
    ShaderValue made{place.shape, {}, place.span};
    if (place.index) {
        std::vector<std::vector<Typed>> options;
        for (const ShaderPlace& option : place.options) options.push_back(value_at(option).leaves);
        made.leaves = choice_of(options, *place.index);
        return made;
    }
    for (const LeafPlace& leaf : place.leaves) {
        const TypedVariable& variable = making_->function.variables[static_cast<std::size_t>(leaf.variable)];
        Typed whole = variable_leaf(leaf.variable, variable.name, variable.type, place.span);
        if (leaf.part_count > 0) {
            PartsOf taken;
            taken.count = leaf.part_count;
            taken.parts = leaf.parts;
            whole = wrap(taken, leaf.type, std::move(whole));
        }
        made.leaves.push_back(std::move(whole));
    }
    return made;
}

// A whole number held to 0..count-1: a literal, or a variable.
Typed ShaderTranslator::index_of(const ShaderNode& node, int count) {
    ShaderValue number = folded(value(node));
    if (!number.shape.is(Type::integer) && !number.shape.is(Type::natural))
        does_not_fit(number, leaf_shape(Type::integer), "a place in brackets");
    Typed& leaf = number.leaves[0];
    if (const auto* literal = leaf.as<Literal>()) {
        if (literal->number < 0 || literal->number >= count)
            refuse("lang.parts", number.span,
                   fmt::format("there are the places 0 to {}, and this is none of them", count - 1),
                   "write one of these numbers");
        return literal_leaf(Type::integer, literal->number, number.span);
    }
    if (number.shape.is(Type::natural)) {
        // Beyond the largest whole number with a sign it is beyond the range in any case.
        Typed held{BuiltinCall{Builtin::min_uint}, Type::natural, number.span};
        held.args.push_back(std::move(leaf));
        held.args.push_back(literal_leaf(Type::natural, count - 1, number.span));
        return bound(wrap(Conversion(), Type::integer, std::move(held)));
    }
    Typed held{BuiltinCall{Builtin::clamp_int}, Type::integer, number.span};
    held.args.push_back(std::move(leaf));
    held.args.push_back(literal_leaf(Type::integer, 0, number.span));
    held.args.push_back(literal_leaf(Type::integer, count - 1, number.span));
    return bound(std::move(held));
}

// By halves, so that the choice is as deep as its logarithm.
std::vector<Typed> ShaderTranslator::choice_of(const std::vector<std::vector<Typed>>& options,
                                               const Typed& index) const {
    std::vector<Typed> made;
    for (std::size_t leaf = 0; leaf < options[0].size(); ++leaf) {
        const std::function<Typed(std::size_t, std::size_t)> among = [&](std::size_t begin, std::size_t end) {
            if (end - begin == 1) return options[begin][leaf];
            const std::size_t middle = begin + (end - begin) / 2;
            Typed is_low = joined(Operator::less, index,
                                  literal_leaf(Type::integer, static_cast<double>(middle), index.span), Type::boolean);
            return chosen_leaf(std::move(is_low), among(begin, middle), among(middle, end));
        };
        made.push_back(among(0, options.size()));
    }
    return made;
}

}  // namespace lacquer
