#include "core/lang/typed.h"

#include "core/base/text.h"

namespace lacquer {

namespace {

std::string list(const std::vector<Typed>& args) {
    std::string text;
    for (const Typed& arg : args) text += (text.empty() ? "" : ", ") + to_text(arg);
    return text;
}

std::string literal(const Typed& typed) {
    if (typed.type == Type::boolean) return typed.number != 0 ? "true" : "false";
    std::string text = shortest_number(typed.number);
    if (typed.type == Type::number && text.find_first_of(".en") == std::string::npos) text += ".0";
    return text;
}

std::string parts_text(const Typed& typed) {
    std::string text = "(" + to_text(typed.args[0]) + ").";
    if (typed.args[0].kind != TypedKind::binary && typed.args[0].kind != TypedKind::select) {
        text = to_text(typed.args[0]) + ".";
    }
    for (int i = 0; i < typed.part_count; ++i) text += "xyzw"[typed.parts[static_cast<std::size_t>(i)]];
    return text;
}

std::string binary_text(const Typed& typed) {
    const std::string mark = " " + std::string(operator_mark(typed.op)) + " ";
    const std::string left = to_text(typed.args[0]);
    const std::string right = to_text(typed.args[1]);
    if (typed.opacity_of < 0) return "(" + left + mark + right + ")";
    const std::string& with_opacity = typed.opacity_of == 0 ? left : right;
    return "vec4((" + left + ").xyz" + mark + "(" + right + ").xyz, (" + with_opacity + ").w)";
}

void collect(const Typed& typed, std::vector<AdaptationMark>& marks) {
    if (typed.adaptation != Adaptation::none) marks.push_back({typed.adaptation, typed.span});
    for (const Typed& arg : typed.args) collect(arg, marks);
}

}  // namespace

std::string to_text(const Typed& typed) {
    switch (typed.kind) {
        case TypedKind::literal:
            return literal(typed);
        case TypedKind::symbol:
            return typed.name;
        case TypedKind::parts:
            return parts_text(typed);
        case TypedKind::construct:
        case TypedKind::convert:
            return std::string(glsl_name(typed.type)) + "(" + list(typed.args) + ")";
        case TypedKind::unary:
            return std::string(operator_mark(typed.op)) + to_text(typed.args[0]);
        case TypedKind::binary:
            return binary_text(typed);
        case TypedKind::select:
            return "(" + to_text(typed.args[0]) + " ? " + to_text(typed.args[1]) + " : " + to_text(typed.args[2]) + ")";
        case TypedKind::call:
            return std::string(builtin_row(typed.builtin).name) + "(" + list(typed.args) + ")";
        case TypedKind::read:
            return "texture(" + typed.name + ", " + list(typed.args) + ")";
    }
    return "";
}

std::vector<AdaptationMark> adaptations(const Typed& typed) {
    std::vector<AdaptationMark> marks;
    collect(typed, marks);
    return marks;
}

std::string_view operator_mark(Operator op) {
    switch (op) {
        case Operator::add:
            return "+";
        case Operator::subtract:
            return "-";
        case Operator::multiply:
            return "*";
        case Operator::divide:
            return "/";
        case Operator::remainder:
            return "%";
        case Operator::shift_left:
            return "<<";
        case Operator::shift_right:
            return ">>";
        case Operator::less:
            return "<";
        case Operator::greater:
            return ">";
        case Operator::less_equal:
            return "<=";
        case Operator::greater_equal:
            return ">=";
        case Operator::equal:
            return "==";
        case Operator::not_equal:
            return "!=";
        case Operator::bit_and:
            return "&";
        case Operator::bit_xor:
            return "^";
        case Operator::bit_or:
            return "|";
        case Operator::both:
            return "&&";
        case Operator::either_one:
            return "^^";
        case Operator::either:
            return "||";
        case Operator::negate:
            return "-";
        case Operator::invert:
            return "!";
        case Operator::bit_invert:
            return "~";
    }
    return "";
}

}  // namespace lacquer
