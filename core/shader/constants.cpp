// What is known while a shader is read: GLSL ES 3.00, section 4.3.3.
#include <cmath>

#include "core/lang/oracle.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

namespace {

bool is_finite(const Value& value) {
    if (scalar_of(value.type) != Scalar::real) return true;
    for (std::size_t k = 0; k < static_cast<std::size_t>(width_of(value.type)); ++k) {
        if (!std::isfinite(value.parts[k])) return false;
    }
    return true;
}

Typed as_literal(const Value& value, Span span) {
    const Scalar scalar = scalar_of(value.type);
    const auto part = [&](int k) {
        const auto at = static_cast<std::size_t>(k);
        const double number = scalar == Scalar::real ? static_cast<double>(value.parts[at])
                              : scalar == Scalar::natural
                                  ? static_cast<double>(static_cast<std::uint32_t>(value.wholes[at]))
                                  : static_cast<double>(value.wholes[at]);
        return literal_leaf(make_type(scalar, 1), number, span);
    };
    if (width_of(value.type) == 1) return part(0);
    Typed made{Construction(), value.type, span};
    for (int k = 0; k < width_of(value.type); ++k) made.args.push_back(part(k));
    return made;
}

}  // namespace

// A constant as its numbers; what is not one stays as it is.
ShaderValue ShaderTranslator::folded(ShaderValue value) const {
    if (!value.constant) return value;
    OracleInputs nothing;
    nothing.name = [](const std::string&, Type type, int, int) { return Value{type, {}, {}}; };
    nothing.picture = [](const PictureReading&, Type type, const std::vector<Value>&) { return Value{type, {}, {}}; };
    for (Typed& leaf : value.leaves) {
        if (leaf.is<Literal>()) continue;
        const Value known = evaluate(leaf, nothing);
        if (is_finite(known)) leaf = as_literal(known, leaf.span);
    }
    return value;
}

std::int64_t ShaderTranslator::whole_constant(const ShaderNode& node, const char* what) {
    const ShaderValue number = folded(value(node));
    const bool is_whole_number = number.shape.is(Type::integer) || number.shape.is(Type::natural);
    if (!is_whole_number || !number.constant || !number.leaves[0].is<Literal>())
        refuse("shader.constant", number.span, std::string(what) + " must be a constant whole number",
               "write a number, or a const int");
    return static_cast<std::int64_t>(number.leaves[0].get<Literal>().number);
}

}  // namespace lacquer
