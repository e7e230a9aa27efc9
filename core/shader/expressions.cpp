// Names, parts, choices, and what changes something within an expression.
#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "core/base/text.h"
#include "core/lang/completed.h"
#include "core/lang/fitting.h"
#include "core/lang/known_names.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

// Whether computing it changes anything.
bool ShaderTranslator::has_effects(const ShaderNode& node) const {
    if (node.kind == ShaderNodeKind::assign || node.kind == ShaderNodeKind::before ||
        node.kind == ShaderNodeKind::after)
        return true;
    if (node.kind == ShaderNodeKind::call) {
        const auto found = overloads_.find(node.text);
        if (found != overloads_.end() && std::any_of(found->second.begin(), found->second.end(),
                                                     [](const ShaderFunction* f) { return f->changes_things; }))
            return true;
    }
    return std::any_of(node.args.begin(), node.args.end(), [&](const ShaderNode& arg) { return has_effects(arg); });
}

std::vector<ShaderValue> ShaderTranslator::values(const std::vector<ShaderNode>& nodes) {
    std::vector<ShaderValue> made;
    for (std::size_t k = 0; k < nodes.size(); ++k) {
        made.push_back(value(nodes[k]));
        const bool changes = std::any_of(nodes.begin() + static_cast<std::ptrdiff_t>(k) + 1, nodes.end(),
                                         [&](const ShaderNode& later) { return has_effects(later); });
        if (changes) made.back() = kept(std::move(made.back()));
    }
    return made;
}

// Whether some function of this name changes what it is handed there.
bool ShaderTranslator::may_give_back(const ShaderNode& call, std::size_t argument) const {
    const auto found = overloads_.find(call.text);
    if (found == overloads_.end()) return false;
    return std::any_of(found->second.begin(), found->second.end(), [&](const ShaderFunction* function) {
        return function->directions.size() == call.args.size() && function->directions[argument] != Direction::in;
    });
}

// Each is computed once, from left to right, those that are given back with their places.
GivenArguments ShaderTranslator::given_to(const ShaderNode& call) {
    const auto& nodes = call.args;
    const auto changes = [&](const ShaderNode& node) { return has_effects(node); };
    GivenArguments given{{}, std::vector<std::optional<ShaderPlace>>(nodes.size())};
    if (std::none_of(nodes.begin(), nodes.end(), changes)) {
        given.values = values(nodes);
        return given;
    }
    for (std::size_t k = 0; k < nodes.size(); ++k) {
        if (may_give_back(call, k) && is_settable(nodes[k])) {
            given.places[k] = place(nodes[k]);
            given.values.push_back(value_at(*given.places[k]));
        } else {
            given.values.push_back(value(nodes[k]));
        }
        if (std::any_of(nodes.begin() + static_cast<std::ptrdiff_t>(k) + 1, nodes.end(), changes))
            given.values.back() = kept(std::move(given.values.back()));
    }
    return given;
}

// A variable, or parts of one.
bool ShaderTranslator::is_settable(const ShaderNode& node) const {
    if (node.kind == ShaderNodeKind::field || node.kind == ShaderNodeKind::index) return is_settable(node.args[0]);
    if (node.kind != ShaderNodeKind::name) return false;
    const ShaderName* known = find(node.text);
    return known != nullptr && !known->is_type && known->writable;
}

ShaderValue ShaderTranslator::value(const ShaderNode& node) {
    count_work(node.span);
    switch (node.kind) {
        case ShaderNodeKind::number:
            return {leaf_shape(make_type(node.scalar, 1)),
                    {literal_leaf(make_type(node.scalar, 1), node.value, at(node.span))},
                    at(node.span),
                    true};
        case ShaderNodeKind::truth:
            return {leaf_shape(Type::boolean),
                    {literal_leaf(Type::boolean, node.value, at(node.span))},
                    at(node.span),
                    true};
        case ShaderNodeKind::name:
            return name(node);
        case ShaderNodeKind::field:
            return field(node);
        case ShaderNodeKind::length:
            return length(node);
        case ShaderNodeKind::index:
            return index(node);
        case ShaderNodeKind::call:
            return call(node);
        case ShaderNodeKind::array:
            return construct_array(node);
        case ShaderNodeKind::unary:
            return unary(node);
        case ShaderNodeKind::before:
        case ShaderNodeKind::after:
        case ShaderNodeKind::assign:
            return changed(node);
        case ShaderNodeKind::binary: {
            if (node.text == "&&" || node.text == "||") return logical(node);
            std::vector<ShaderValue> sides = values(node.args);
            return operation(node.text, node.span, std::move(sides[0]), std::move(sides[1]));
        }
        case ShaderNodeKind::select:
            return select(node);
        case ShaderNodeKind::sequence: {
            value(node.args[0]);
            ShaderValue last = value(node.args[1]);
            last.constant = false;
            return last;
        }
    }
    refuse("lang.kind", at(node.span), "this cannot be computed", "");
}

const ShaderName* ShaderTranslator::find(std::string_view name) const {
    for (auto scope = names_.rbegin(); scope != names_.rend(); ++scope) {
        if (const auto found = scope->find(name); found != scope->end()) return &found->second;
    }
    const auto found = globals_.find(name);
    return found != globals_.end() ? &found->second : nullptr;
}

ShaderValue ShaderTranslator::value_of(const ShaderName& name, Span span) const {
    ShaderValue made{name.shape, {}, span, name.constant, name.picture};
    if (!name.fixed.empty()) {
        made.leaves = name.fixed;
        for (Typed& leaf : made.leaves) leaf.span = span;
        return made;
    }
    for (const int number : name.variables) {
        const TypedVariable& variable = making_->function.variables[static_cast<std::size_t>(number)];
        made.leaves.push_back(variable_leaf(number, variable.name, variable.type, span));
    }
    return made;
}

ShaderValue ShaderTranslator::name(const ShaderNode& node) {
    const Span span = at(node.span);
    if (const ShaderName* known = find(node.text)) {
        if (known->is_type)
            refuse("lang.kind", span, "'" + node.text + "' is a struct, and makes none by itself",
                   "write " + node.text + "(...)");
        return value_of(*known, span);
    }
    if (node.text == "gl_FragCoord") {
        const auto here = [&](const char* name) { return Typed{NameHere{name, SymbolKind::known}, Type::vec2, span}; };
        const Typed pixel =
            joined(Operator::add, here("pixel"), spread(literal_leaf(Type::number, 0.5, span), Type::vec2), Type::vec2);
        Typed made{Construction(), Type::vec4, span};
        if (upward_) {
            made.args.push_back(part_of(pixel, 0));
            made.args.push_back(
                joined(Operator::subtract, part_of(here("frame_size"), 1), part_of(pixel, 1), Type::number));
        } else {
            made.args.push_back(pixel);
        }
        made.args.push_back(literal_leaf(Type::number, 0.5, span));
        made.args.push_back(literal_leaf(Type::number, 1, span));
        return {leaf_shape(Type::vec4), {std::move(made)}, span};
    }
    if (node.text == "gl_FrontFacing") return {leaf_shape(Type::boolean), {literal_leaf(Type::boolean, 1, span)}, span};
    const auto symbol = scope_.symbols.find(node.text);
    if (symbol == scope_.symbols.end() || symbol->second.kind == SymbolKind::gradient) {
        const auto known = scope_.out_of_reach.find(node.text);
        if (known != scope_.out_of_reach.end())
            refuse("lang.out-of-reach", span, known->second, "use another, or move the steps");
        if (symbol != scope_.symbols.end())
            refuse("lang.picture", span, "'" + node.text + "' is read at a place of its own",
                   "write at(" + node.text + ", t)");
        std::vector<std::string> names;
        for (const auto& [candidate, known_symbol] : scope_.symbols) names.push_back(candidate);
        for (const auto& [candidate, known_name] : globals_) names.push_back(candidate);
        for (const Names& scope : names_) {
            for (const auto& [candidate, known_name] : scope) names.push_back(candidate);
        }
        const auto near = nearest_name(node.text, names);
        refuse(
            "lang.unknown-name", at(node.word),
            "nothing here is called '" + (node.text.size() <= 40 ? node.text : node.text.substr(0, 37) + "...") + "'",
            near ? "did you mean " + *near + "?" : "declare it, or name a step, dial or ground that stands above");
    }
    const Symbol& known = symbol->second;
    const std::string& actual = known.actual.empty() ? node.text : known.actual;
    ShaderValue made{leaf_shape(known.type), {{NameHere{actual, known.kind}, known.type, span}}, span};
    if ((known.kind == SymbolKind::step || known.kind == SymbolKind::ground) && is_float(known.type))
        made.picture = PictureSource{actual, known.kind, known.type, known.weighed};
    return made;
}

ShaderValue ShaderTranslator::field(const ShaderNode& node) {
    const ShaderNode& of = node.args[0];
    if (of.kind == ShaderNodeKind::name && find(of.text) == nullptr) {
        // What a response or a ground tells besides: "blow.presence".
        const std::string dotted = of.text + "." + node.text;
        if (scope_.symbols.contains(dotted)) {
            ShaderNode whole = of;
            whole.text = dotted;
            whole.span = node.span;
            return name(whole);
        }
    }
    return parts_of(value(of), node);
}

PartsOf ShaderTranslator::swizzle(const ShaderNode& node, Type of) const {
    for (const std::string_view set : {"xyzw", "rgba", "stpq"}) {
        PartsOf taken;
        for (const char letter : node.text) {
            const std::size_t part = set.find(letter);
            if (part >= static_cast<std::size_t>(width_of(of)) || taken.count == 4) {
                taken.count = -1;
                break;
            }
            taken.parts[static_cast<std::size_t>(taken.count++)] = static_cast<std::uint8_t>(part);
        }
        if (taken.count > 0) return taken;
    }
    const std::string all = std::string("xyzw").substr(0, static_cast<std::size_t>(width_of(of)));
    refuse("lang.parts", at(node.word),
           fmt::format("'.{}' names no parts of a {}", node.text.substr(0, 40), glsl_name(of)),
           "use one to four of " + all + ", all of one set of letters");
}

ShaderValue ShaderTranslator::parts_of(ShaderValue whole, const ShaderNode& node) {
    const Span span = at(node.span);
    if (whole.shape.is(GlslShape::Kind::structure)) {
        std::size_t first = 0;
        for (const auto& [name, shape] : whole.shape.structure->parts) {
            const std::size_t count = leaf_count(shape);
            if (name == node.text) {
                const auto begin = whole.leaves.begin() + static_cast<std::ptrdiff_t>(first);
                return {shape, {begin, begin + static_cast<std::ptrdiff_t>(count)}, span, whole.constant};
            }
            first += count;
        }
        refuse("lang.parts", at(node.word),
               fmt::format("{} has no part '{}'", shape_text(whole.shape), node.text.substr(0, 40)),
               "name one of its parts");
    }
    if (!whole.shape.is(GlslShape::Kind::leaf) || width_of(whole.shape.leaf) == 1)
        refuse("lang.parts", at(node.word), fmt::format("a {} has no parts to take", shape_text(whole.shape)),
               "use it without ." + node.text.substr(0, 40));
    const PartsOf taken = swizzle(node, whole.shape.leaf);
    const Type type = make_type(scalar_of(whole.shape.leaf), taken.count);
    Typed parts = wrap(taken, type, std::move(whole.leaves[0]));
    parts.span = span;
    return {leaf_shape(type), {std::move(parts)}, span, whole.constant};
}

ShaderValue ShaderTranslator::length(const ShaderNode& node) {
    const ShaderValue whole = value(node.args[0]);
    if (!whole.shape.is(GlslShape::Kind::array))
        refuse("lang.parts", at(node.word),
               fmt::format("only arrays have a length, and this is a {}", shape_text(whole.shape)), "write the number");
    const Span span = at(node.span);
    return {leaf_shape(Type::integer), {literal_leaf(Type::integer, whole.shape.count, span)}, span, true};
}

ShaderValue ShaderTranslator::index(const ShaderNode& node) {
    ShaderValue whole = value(node.args[0]);
    if (has_effects(node.args[1])) whole = kept(std::move(whole));
    const Span span = at(node.span);
    const bool vector = whole.shape.is(GlslShape::Kind::leaf);
    const int count = place_count(whole.shape);
    if (count == 0)
        refuse("lang.parts", at(node.word), fmt::format("a {} has no parts to take", shape_text(whole.shape)),
               "leave the brackets out");
    const GlslShape part = place_shape(whole.shape);
    const Typed place = index_of(node.args[1], count);
    std::vector<std::vector<Typed>> options;
    const std::size_t each = leaf_count(part);
    if (const auto* number = place.as<Literal>()) {
        const auto k = static_cast<std::size_t>(number->number);
        if (vector) {
            Typed taken = part_of(std::move(whole.leaves[0]), static_cast<int>(k));
            taken.span = span;
            return {part, {std::move(taken)}, span, whole.constant};
        }
        const auto begin = whole.leaves.begin() + static_cast<std::ptrdiff_t>(k * each);
        return {part, {begin, begin + static_cast<std::ptrdiff_t>(each)}, span, whole.constant};
    }
    whole = bound(std::move(whole));
    for (std::size_t k = 0; k < static_cast<std::size_t>(count); ++k) {
        if (vector) {
            options.push_back({part_of(whole.leaves[0], static_cast<int>(k))});
        } else {
            const auto begin = whole.leaves.begin() + static_cast<std::ptrdiff_t>(k * each);
            options.emplace_back(begin, begin + static_cast<std::ptrdiff_t>(each));
        }
    }
    count_work(node.span, static_cast<std::size_t>(count) * each);
    return {part, choice_of(options, place), span};
}

// Behind && and || nothing is changed where the first side has decided.
ShaderValue ShaderTranslator::logical(const ShaderNode& node) {
    const auto truth = [&](const ShaderNode& side) {
        ShaderValue made = value(side);
        if (!made.shape.is(Type::boolean)) does_not_fit(made, leaf_shape(Type::boolean), "'" + node.text + "'");
        return made;
    };
    ShaderValue left = truth(node.args[0]);
    const Span span = at(node.span);
    if (!has_effects(node.args[1])) {
        ShaderValue right = truth(node.args[1]);
        const bool constant = left.constant && right.constant;
        Typed made = joined(node.text == "&&" ? Operator::both : Operator::either, std::move(left.leaves[0]),
                            std::move(right.leaves[0]), Type::boolean);
        made.span = span;
        return {leaf_shape(Type::boolean), {std::move(made)}, span, constant};
    }
    const int decided = new_leaf("decided", Type::boolean, std::move(left.leaves[0]));
    const Typed here = variable_leaf(decided, "decided", Type::boolean, span);
    TypedStatement s;
    s.kind = StatementKind::branch;
    s.span = span;
    s.values.push_back(here);
    auto& side = node.text == "&&" ? s.body : s.otherwise;
    side = inside([&] { assign(decided, std::move(truth(node.args[1]).leaves[0])); });
    emit(std::move(s));
    return {leaf_shape(Type::boolean), {here}, span};
}

ShaderValue ShaderTranslator::select(const ShaderNode& node) {
    ShaderValue condition = value(node.args[0]);
    if (!condition.shape.is(Type::boolean)) does_not_fit(condition, leaf_shape(Type::boolean), "'?'");
    const Span span = at(node.span);
    if (!has_effects(node.args[1]) && !has_effects(node.args[2])) {
        ShaderValue yes = value(node.args[1]);
        ShaderValue no = value(node.args[2]);
        if (!(yes.shape == no.shape)) does_not_fit(no, yes.shape, "':'");
        if (holds_array(yes.shape) || holds_picture(yes.shape) || yes.shape.is(GlslShape::Kind::nothing))
            refuse("lang.kind", span, "'?' cannot choose between values of the type " + shape_text(yes.shape),
                   "write if and else");
        ShaderValue made{yes.shape, {}, span, condition.constant && yes.constant && no.constant};
        Typed decides = yes.leaves.size() > 1 ? bound(std::move(condition.leaves[0])) : std::move(condition.leaves[0]);
        for (std::size_t k = 0; k < yes.leaves.size(); ++k) {
            made.leaves.push_back(chosen_leaf(decides, std::move(yes.leaves[k]), std::move(no.leaves[k])));
            made.leaves.back().span = span;
        }
        return made;
    }
    // Only the side that is chosen may change anything.
    std::vector<int> chosen;
    TypedStatement s;
    s.kind = StatementKind::branch;
    s.span = span;
    s.values.push_back(std::move(condition.leaves[0]));
    ShaderValue first;
    s.body = inside([&] { first = value(node.args[1]); });
    for (const Typed& leaf : first.leaves)
        chosen.push_back(new_leaf("chosen", leaf.type, literal_leaf(leaf.type, 0, span)));
    for (std::size_t k = 0; k < chosen.size(); ++k) {
        TypedStatement set;
        set.kind = StatementKind::assign;
        set.span = span;
        set.variable = chosen[k];
        set.values.push_back(first.leaves[k]);
        s.body.push_back(std::move(set));
    }
    s.otherwise = inside([&] {
        ShaderValue second = value(node.args[2]);
        if (!(second.shape == first.shape)) does_not_fit(second, first.shape, "':'");
        for (std::size_t k = 0; k < chosen.size(); ++k) assign(chosen[k], std::move(second.leaves[k]));
    });
    emit(std::move(s));
    ShaderValue made{first.shape, {}, span};
    for (std::size_t k = 0; k < chosen.size(); ++k)
        made.leaves.push_back(variable_leaf(chosen[k], "chosen", first.leaves[k].type, span));
    return made;
}

// =, += and the like, ++ and --.
ShaderValue ShaderTranslator::changed(const ShaderNode& node) {
    const Span span = at(node.span);
    const ShaderPlace target = place(node.args[0]);
    const bool counts = node.kind != ShaderNodeKind::assign;
    if (holds_picture(target.shape)) refuse("lang.assignment", span, "a sampler cannot be set", "");
    ShaderValue fresh;
    ShaderValue old;
    if (node.text == "=") {
        fresh = value(node.args[1]);
    } else {
        old = value_at(target);
        if (node.kind == ShaderNodeKind::after) old = kept(std::move(old));
        ShaderValue other;
        if (counts) {
            const bool is_leaf =
                target.shape.is(GlslShape::Kind::leaf) && scalar_of(target.shape.leaf) != Scalar::truth;
            if (!is_leaf && !target.shape.is(GlslShape::Kind::matrix))
                refuse("lang.kind", span, fmt::format("a {} cannot be counted", shape_text(target.shape)), "");
            const Type one =
                target.shape.is(GlslShape::Kind::matrix) ? Type::number : make_type(scalar_of(target.shape.leaf), 1);
            other = {leaf_shape(one), {literal_leaf(one, 1, at(node.word))}, at(node.word), true};
        } else {
            if (has_effects(node.args[1])) old = kept(std::move(old));
            other = value(node.args[1]);
        }
        const std::string mark = counts ? node.text.substr(0, 1) : node.text.substr(0, node.text.size() - 1);
        fresh = operation(mark, node.span, old, std::move(other));
    }
    if (!(fresh.shape == target.shape)) does_not_fit(fresh, target.shape, quoted(target.span));
    // A row of leaves is set at once: none may see another's new value.
    if (fresh.leaves.size() > 1) fresh = kept(std::move(fresh));
    store(target, fresh.leaves, nullptr);
    if (node.kind == ShaderNodeKind::after) {
        old.span = span;
        old.constant = false;
        return old;
    }
    ShaderValue now = value_at(target);
    now.span = span;
    return now;
}

}  // namespace lacquer
