// Declarations: GLSL ES 3.00, chapter 4.
#include <fmt/core.h>

#include <utility>

#include "core/lang/fitting.h"
#include "core/shader/refusal.h"
#include "core/shader/translator.h"

namespace lacquer {

namespace {

// A dial of whole numbers gives a plain number.
bool is_counted(const GlslShape& shape, Type type) {
    return type == Type::number && (shape.is(Type::integer) || shape.is(Type::natural));
}

}  // namespace

GlslShape ShaderTranslator::shape_of(const TypeSyntax& type) {
    GlslShape shape;
    if (type.structure != nullptr) {
        shape = define(*type.structure);
    } else if (const ShaderName* known = find(type.name); known != nullptr && known->is_type) {
        shape = known->shape;
    } else {
        shape = shape_named(type.name);
        const bool is_hidden = known != nullptr;
        if (is_hidden || (shape.is(GlslShape::Kind::nothing) && type.name != "void"))
            refuse("lang.unknown-name", at(type.span), "there is no type '" + type.name + "'", "take another");
    }
    return sized(std::move(shape), type.is_array, type.size, type.span, nullptr);
}

GlslShape ShaderTranslator::sized(GlslShape element, bool is_array, const std::vector<ShaderNode>& size, Span span,
                                  const GlslShape* of_value) {
    if (!is_array) return element;
    if (element.is(GlslShape::Kind::array))
        refuse("lang.left-out", at(span), "arrays of arrays are not in GLSL ES 3.00", "put the array into a struct");
    if (element.is(GlslShape::Kind::nothing)) refuse("lang.kind", at(span), "there are no arrays of nothing", "");
    std::int64_t count = 0;
    if (!size.empty()) {
        count = whole_constant(size[0], "the size of an array");
    } else if (of_value != nullptr && of_value->is(GlslShape::Kind::array)) {
        count = of_value->count;
    } else {
        refuse("shader.array", at(span), "the array has no size", "write it in the brackets");
    }
    if (count < 1) refuse("shader.array", at(span), "an array has one place at least", "write a larger size");
    if (count > most_elements || static_cast<std::size_t>(count) * leaf_count(element) > most_elements)
        refuse("shader.array", at(span), fmt::format("an array has {} places at most", most_elements), "use a picture");
    return array_shape(std::move(element), static_cast<int>(count));
}

GlslShape ShaderTranslator::define(const StructSyntax& structure) {
    auto made = std::make_shared<StructShape>();
    made->name = structure.name;
    for (const FieldsSyntax& fields : structure.fields) {
        if (fields.type.structure != nullptr)
            refuse("lang.left-out", at(fields.type.span), "a struct is not defined within another",
                   "define it before this one");
        const GlslShape type = shape_of(fields.type);
        for (const Declarator& field : fields.names) {
            GlslShape shape = sized(type, field.is_array, field.size, field.span, nullptr);
            if (shape.is(GlslShape::Kind::nothing) || holds_picture(shape))
                refuse("lang.kind", at(field.span), "a part of a struct cannot be a " + shape_text(shape), "");
            for (const auto& [name, known] : made->parts) {
                if (name == field.name)
                    refuse("lang.duplicate", at(field.span), "there is a part '" + name + "' already",
                           "give one of them another name");
            }
            made->parts.emplace_back(field.name, std::move(shape));
        }
    }
    GlslShape shape;
    shape.kind = GlslShape::Kind::structure;
    shape.structure = std::move(made);
    if (leaf_count(shape) > most_elements)
        refuse("shader.array", at(structure.span), "the struct is too large", "use a picture");
    if (!structure.name.empty()) {
        ShaderName name;
        name.shape = shape;
        name.is_type = true;
        name.writable = false;
        add_name(structure.name, structure.span, std::move(name));
    }
    return shape;
}

void ShaderTranslator::add_name(const std::string& name, Span span, ShaderName made) {
    Names& scope = names_.empty() ? globals_ : names_.back();
    if (scope.contains(name) || (names_.empty() && overloads_.contains(name) && !overloads_[name][0]->built_in))
        refuse("lang.duplicate", at(span), "something is called '" + name + "' already",
               "give one of them another name");
    scope[name] = std::move(made);
}

// `value` may be null.
ShaderName ShaderTranslator::new_variable(const std::string& name, const GlslShape& shape, Span span,
                                          const ShaderValue* value) {
    ShaderName made;
    made.shape = shape;
    const std::vector<Type> leaves = leaves_of(shape);
    for (std::size_t k = 0; k < leaves.size(); ++k) {
        Typed first = value != nullptr ? value->leaves[k]
                      : width_of(leaves[k]) == 1
                          ? literal_leaf(leaves[k], 0, at(span))
                          : spread(literal_leaf(make_type(scalar_of(leaves[k]), 1), 0, at(span)), leaves[k]);
        const std::string leaf = leaves.size() == 1 ? name : fmt::format("{}_{}", name, k);
        made.variables.push_back(new_leaf(leaf, leaves[k], std::move(first)));
    }
    return made;
}

void ShaderTranslator::declare(const ShaderStatement& s) {
    const bool by_value = s.type.is_array && s.type.size.empty();
    TypeSyntax element = s.type;
    if (by_value) element.is_array = false;
    const GlslShape type = shape_of(element);
    for (const Declarator& name : s.names) {
        if (!by_value) {
            declare_name(s, name, type);
            continue;
        }
        if (name.is_array)
            refuse("lang.left-out", at(name.span), "arrays of arrays are not in GLSL ES 3.00",
                   "put the array into a struct");
        Declarator array = name;
        array.is_array = true;
        declare_name(s, array, type);
    }
}

void ShaderTranslator::declare_name(const ShaderStatement& s, const Declarator& name, const GlslShape& type) {
    const bool global = names_.empty();
    if (s.storage == Storage::uniform || s.storage == Storage::input || s.storage == Storage::output) {
        if (!global) refuse("lang.expected", at(s.span), "this is declared outside of functions", "move it to the top");
        if (!name.value.empty())
            refuse("lang.assignment", at(name.span), "'" + name.name + "' comes from outside, so it has no value here",
                   "take the value out");
        const GlslShape shape = sized(type, name.is_array, name.size, name.span, nullptr);
        if (s.storage == Storage::uniform) return declare_uniform(name, shape);
        if (s.storage == Storage::input) return declare_input(name, shape);
        if (!shape.is(GlslShape::Kind::leaf) || scalar_of(shape.leaf) != Scalar::real)
            refuse("lang.left-out", at(name.span), "what a shader gives here is a vector of numbers", "write vec4");
        add_name(name.name, name.span, new_variable(name.name, shape, name.span, nullptr));
        outputs_.push_back(name.name);
        return;
    }
    if (type.is(GlslShape::Kind::nothing) || type.is(GlslShape::Kind::picture))
        refuse("lang.kind", at(name.span), "'" + name.name + "' cannot be a " + shape_text(type),
               type.is(GlslShape::Kind::picture) ? "write uniform before it" : "write another type");
    if (name.value.empty()) {
        if (s.storage == Storage::constant)
            refuse("shader.constant", at(name.span), "'" + name.name + "' is constant and has no value", "give it one");
        const GlslShape shape = sized(type, name.is_array, name.size, name.span, nullptr);
        add_name(name.name, name.span, new_variable(name.name, shape, name.span, nullptr));
        return;
    }
    ShaderValue first = folded(value(name.value[0]));
    const GlslShape wanted = sized(type, name.is_array, name.size, name.span, &first.shape);
    if (!(first.shape == wanted)) does_not_fit(first, wanted, "'" + name.name + "'");
    if (s.storage == Storage::constant) {
        if (!first.constant)
            refuse("shader.constant", first.span, "'" + name.name + "' is constant, and this is not",
                   "leave const out");
        ShaderName made;
        made.shape = wanted;
        made.fixed = std::move(first.leaves);
        made.constant = true;
        made.writable = false;
        return add_name(name.name, name.span, std::move(made));
    }
    if (global && upward_ && !first.constant)
        refuse("shader.constant", first.span, "outside of functions only constants are computed",
               "set it at the beginning of main");
    add_name(name.name, name.span, new_variable(name.name, wanted, name.span, &first));
}

// What comes from outside is known by its name: a dial, a signal, a ground.
void ShaderTranslator::declare_uniform(const Declarator& name, const GlslShape& shape) {
    const auto known = scope_.symbols.find(name.name);
    const bool fits = known != scope_.symbols.end() &&
                      (shape.is(GlslShape::Kind::picture)
                           ? known->second.kind == SymbolKind::step || known->second.kind == SymbolKind::ground
                           : shape.is(known->second.type) || is_counted(shape, known->second.type));
    if (!fits)
        refuse(
            "shader.uniform", at(name.span),
            fmt::format("there is no {} '{}' that is a {}",
                        shape.is(GlslShape::Kind::picture) ? "ground or step" : "dial", name.name, shape_text(shape)),
            "add one of this name, or bring the shader in by the menu Finish");
    ShaderNode node{ShaderNodeKind::name, name.span, name.span, name.name};
    const ShaderValue value = this->name(node);
    ShaderName made;
    made.shape = shape;
    made.picture = value.picture;
    if (!shape.is(GlslShape::Kind::picture)) made.fixed = value.leaves;
    if (is_counted(shape, known->second.type)) made.fixed = {wrap(Conversion(), shape.leaf, value.leaves[0])};
    made.writable = false;
    add_name(name.name, name.span, std::move(made));
}

// Without vertices only the place is known.
void ShaderTranslator::declare_input(const Declarator& name, const GlslShape& shape) {
    if (!shape.is(Type::vec2))
        refuse("shader.vertices", at(name.span),
               "'" + name.name + "' would come from vertices, and there are none here", "make a dial or a step of it");
    note(name.span, "'" + name.name + "' is taken as the place in the frame, 0 to 1");
    Typed uv{NameHere{"uv", SymbolKind::known}, Type::vec2, at(name.span)};
    if (upward_) {
        Typed made{Construction(), Type::vec2, uv.span};
        made.args.push_back(part_of(uv, 0));
        made.args.push_back(
            joined(Operator::subtract, literal_leaf(Type::number, 1, uv.span), part_of(uv, 1), Type::number));
        uv = std::move(made);
    }
    ShaderName made;
    made.shape = shape;
    made.fixed.push_back(std::move(uv));
    made.writable = false;
    add_name(name.name, name.span, std::move(made));
}

}  // namespace lacquer
