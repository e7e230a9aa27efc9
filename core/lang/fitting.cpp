#include "core/lang/fitting.h"

#include <utility>

namespace lacquer {

namespace {

Typed literal_as(Typed value, Type type) {
    value.type = type;
    value.get<Literal>().whole = false;
    return value;
}

Typed filled(Typed value, Type to) {
    const bool plain = value.is<Literal>();
    Typed made = wrap(Construction(), to, std::move(value));
    // A literal that fills all parts is too plain to be worth a mark.
    made.adaptation = plain ? Adaptation::none : Adaptation::filled;
    return made;
}

}  // namespace

Typed wrap(TypedNode node, Type type, Typed inner) {
    Typed outer{std::move(node), type, inner.span};
    outer.args.push_back(std::move(inner));
    return outer;
}

Typed take_parts(Typed value, std::initializer_list<int> parts) {
    const Type type = make_type(scalar_of(value.type), static_cast<int>(parts.size()));
    PartsOf taken;
    for (const int part : parts) taken.parts[static_cast<std::size_t>(taken.count++)] = static_cast<std::uint8_t>(part);
    return wrap(taken, type, std::move(value));
}

bool is_whole_literal(const Typed& value) { return value.is<Literal>() && value.get<Literal>().whole; }

bool fits(const Typed& value, Type to) {
    const Type from = value.type;
    if (from == to) return true;
    if (is_matrix(from) || is_matrix(to)) return false;
    if (is_whole(to) && is_whole_literal(value)) {
        const double number = value.get<Literal>().number;
        return scalar_of(to) == Scalar::whole ? number >= -2147483648.0 && number <= 2147483647.0
                                              : number >= 0 && number <= 4294967295.0;
    }
    if (scalar_of(from) != scalar_of(to)) return false;
    return width_of(from) == 1 || (from == Type::vec4 && to == Type::vec3) || (from == Type::vec3 && to == Type::vec4);
}

Typed fitted(Typed value, Type to) {
    if (value.type == to) return value;
    if (is_whole(to) && is_whole_literal(value)) {
        value = literal_as(std::move(value), make_type(scalar_of(to), 1));
        return value.type == to ? value : filled(std::move(value), to);
    }
    if (width_of(value.type) == 1) return filled(std::move(value), to);
    if (to == Type::vec3) {
        Typed colour = take_parts(std::move(value), {0, 1, 2});
        colour.adaptation = Adaptation::opacity_dropped;
        return colour;
    }
    Typed with_opacity = wrap(Construction(), Type::vec4, std::move(value));
    with_opacity.args.push_back({Literal{1}, Type::number, with_opacity.span});
    with_opacity.adaptation = Adaptation::opacity_added;
    return with_opacity;
}

}  // namespace lacquer
