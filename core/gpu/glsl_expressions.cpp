#include "core/gpu/glsl_expressions.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/lang/known_names.h"

namespace lacquer {

namespace {

// Binding strength, GLSL ES 3.00 section 5.1; larger binds tighter.
int strength_of(Operator op) {
    switch (op) {
        case Operator::either:
            return 1;
        case Operator::either_one:
            return 2;
        case Operator::both:
            return 3;
        case Operator::bit_or:
            return 4;
        case Operator::bit_xor:
            return 5;
        case Operator::bit_and:
            return 6;
        case Operator::equal:
        case Operator::not_equal:
            return 7;
        case Operator::less:
        case Operator::greater:
        case Operator::less_equal:
        case Operator::greater_equal:
            return 8;
        case Operator::shift_left:
        case Operator::shift_right:
            return 9;
        case Operator::add:
        case Operator::subtract:
            return 10;
        default:
            return 11;
    }
}
constexpr int sign_strength = 12;

std::string bracketed(std::string text, bool brackets) { return brackets ? "(" + std::move(text) + ")" : text; }

std::string swizzle(Type type) {
    return width_of(type) == 4 ? "" : "." + std::string("rgba").substr(0, static_cast<std::size_t>(width_of(type)));
}

std::string picture_parts(Type type) {
    return width_of(type) == 1 ? ".r" : width_of(type) == 2 ? ".rg" : swizzle(type);
}

bool is_literal(const Typed& typed) { return typed.kind == TypedKind::literal; }

// A literal, or a literal that fills all parts.
const Typed* plain_literal(const Typed& typed) {
    if (is_literal(typed)) return &typed;
    return typed.kind == TypedKind::construct && typed.args.size() == 1 && is_literal(typed.args[0]) ? &typed.args[0]
                                                                                                     : nullptr;
}

}  // namespace

std::string GlslExpressions::helper(const char* name) {
    helpers_.insert(name);
    return name;
}

std::string GlslExpressions::picture(const std::string& source) {
    const std::string& name = names_.name("picture " + source, source);
    pictures_.emplace(source, name);
    return name;
}

std::string GlslExpressions::list(const std::vector<Typed>& args) {
    std::string text;
    for (const Typed& arg : args) text += (text.empty() ? "" : ", ") + expression(arg, 0);
    return text;
}

std::string GlslExpressions::expression(const Typed& t, int strength) {
    switch (t.kind) {
        case TypedKind::literal:
            return bracketed(literal(t), t.number < 0 && strength >= sign_strength);
        case TypedKind::symbol:
            return symbol(t);
        case TypedKind::variable:
            return names_.name(fmt::format("{} {}", static_cast<const void*>(function_), t.variable), t.name);
        case TypedKind::parts:
            return parts(t);
        case TypedKind::construct:
            return std::string(glsl_name(t.type)) + "(" + list(t.args) + ")";
        case TypedKind::convert:
            return convert(t);
        case TypedKind::unary:
            return unary(t);
        case TypedKind::binary:
            return binary(t, strength);
        case TypedKind::select:
            return bracketed(
                expression(t.args[0], 1) + " ? " + expression(t.args[1], 1) + " : " + expression(t.args[2], 1),
                strength > 0);
        case TypedKind::call:
            return call(t);
        case TypedKind::read:
            return read(t);
        case TypedKind::run:
            return run(t);
    }
    return {};
}

std::string GlslExpressions::literal(const Typed& t) const {
    switch (scalar_of(t.type)) {
        case Scalar::truth:
            return t.number != 0 ? "true" : "false";
        case Scalar::natural:
            return fmt::format("{}u", static_cast<std::uint32_t>(std::min(t.number, 4294967295.0)));
        case Scalar::whole:
            // The smallest whole number has no literal of its own.
            if (t.number <= -2147483648.0) return "(-2147483647 - 1)";
            return fmt::format("{}", static_cast<std::int32_t>(t.number));
        case Scalar::real:
            break;
    }
    const float number = static_cast<float>(t.number);
    if (std::isinf(number)) return number > 0 ? "(1.0 / 0.0)" : "(-1.0 / 0.0)";
    std::string text = shortest_number(t.number);
    if (text.find_first_of(".en") == std::string::npos) text += ".0";
    return text;
}

std::string GlslExpressions::reading(const std::string& source, const std::string& where, bool weighed,
                                     const std::string& lod) {
    const auto found = pass_.samplings.find(source);
    Sampling sampling = found != pass_.samplings.end() ? found->second : Sampling{};
    sampling.weighed = sampling.weighed || weighed;
    std::string name = lod.empty() ? "lq_read" : "lq_read_lod";
    std::string ways;
    if (sampling.wrap == Wrap::clamp && sampling.filter == Filter::linear) {
        if (sampling.weighed) name += "_weighed";
    } else {
        name += "_as";
        const char* wrap = sampling.wrap == Wrap::clamp    ? "lq_hold"
                           : sampling.wrap == Wrap::repeat ? "lq_repeat"
                                                           : "lq_mirror";
        ways = fmt::format(", {}, {}, {}", wrap, sampling.filter == Filter::linear ? "lq_linear" : "lq_nearest",
                           sampling.weighed);
    }
    const std::string level = lod.empty() ? lod : ", " + lod;
    return fmt::format("{}({}, {}{}{})", helper(name.c_str()), picture(source), where, level, ways);
}

std::string GlslExpressions::read_here(const std::string& source) {
    if (function_ == nullptr) {
        used_.insert("uv");
        return reading(source, "uv", false, {});
    }
    reads_here_ = true;
    return reading(source, "gl_FragCoord.xy / lq_drawn_size", false, {});
}

GlslExpressions::GlslExpressions(GlslNames& names, const Pass& pass) : names_(names), pass_(pass) {
    // Whatever else is called so gets another name.
    for (const KnownName& known : known_names()) names_.name(std::string(known.name), known.name);
}

namespace {

bool is_place(const Typed& t) {
    const KnownName* known = t.symbol == SymbolKind::known ? find_known(t.name) : nullptr;
    return known != nullptr && known->domain == KnownDomain::pixel;
}

}  // namespace

std::string GlslExpressions::symbol(const Typed& t) {
    if (t.symbol == SymbolKind::ground) return read_here(t.name) + picture_parts(t.type);
    if (t.symbol == SymbolKind::step) {
        if (std::find(pass_.stored.begin(), pass_.stored.end(), t.name) == pass_.stored.end())
            return names_.name(t.name, t.name);
        const std::string value = read_here(t.name) + picture_parts(t.type);
        if (scalar_of(t.type) == Scalar::real) return value;
        if (scalar_of(t.type) == Scalar::truth) return "(" + value + " != 0.0)";
        return helper(scalar_of(t.type) == Scalar::whole ? "lq_int" : "lq_uint") + "(" + value + ")";
    }
    if (is_place(t)) {
        used_.insert(t.name);
        return t.name;
    }
    const std::string& name = names_.name(t.name, t.name);
    uniforms_.emplace(t.name, Uniform{name, t.type});
    return name;
}

std::string GlslExpressions::parts(const Typed& t) {
    std::string text = expression(t.args[0], sign_strength + 1) + ".";
    // Colours read better by their own letters.
    const bool colour = width_of(t.args[0].type) >= 3 && scalar_of(t.args[0].type) == Scalar::real;
    for (std::size_t i = 0; i < static_cast<std::size_t>(t.part_count); ++i)
        text += (colour ? "rgba" : "xyzw")[t.parts[i]];
    return text;
}

std::string GlslExpressions::convert(const Typed& t) {
    const bool from_real = scalar_of(t.args[0].type) == Scalar::real;
    const char* guard = nullptr;
    if (from_real && scalar_of(t.type) == Scalar::whole) guard = "lq_int";
    if (from_real && scalar_of(t.type) == Scalar::natural) guard = "lq_uint";
    const std::string name = guard != nullptr ? helper(guard) : std::string(glsl_name(t.type));
    return name + "(" + expression(t.args[0], 0) + ")";
}

std::string GlslExpressions::unary(const Typed& t) {
    const std::string inner = expression(t.args[0], sign_strength);
    // Two signs in a row would read as one of another kind.
    return std::string(operator_mark(t.op)) + bracketed(inner, !inner.empty() && inner[0] == operator_mark(t.op)[0]);
}

std::string GlslExpressions::colour_and_opacity(const Typed& t, int strength) {
    const Typed& with = t.args[static_cast<std::size_t>(t.opacity_of)];
    const Typed& colour = t.args[static_cast<std::size_t>(1 - t.opacity_of)];
    const bool first = t.opacity_of == 0;
    if (!first && (t.op == Operator::subtract || t.op == Operator::divide)) {
        return helper(t.op == Operator::subtract ? "lq_minus" : "lq_over") + "(" + expression(colour, 0) + ", " +
               expression(with, 0) + ")";
    }
    // What changes nothing stands for the missing opacity.
    const bool sums = t.op == Operator::add || t.op == Operator::subtract;
    const std::string padded = "vec4(" + expression(colour, 0) + (sums ? ", 0.0)" : ", 1.0)");
    const int own = strength_of(t.op);
    const std::string other = expression(with, first ? own : own + 1);
    const std::string text =
        (first ? other : padded) + " " + std::string(operator_mark(t.op)) + " " + (first ? padded : other);
    return bracketed(text, strength > own);
}

std::string GlslExpressions::binary(const Typed& t, int strength) {
    if (t.opacity_of >= 0) return colour_and_opacity(t, strength);
    const int own = strength_of(t.op);
    if (is_whole(t.type)) {
        const Typed* divisor = plain_literal(t.args[1]);
        const bool safe = divisor != nullptr && divisor->number > 0;
        if ((t.op == Operator::divide || t.op == Operator::remainder) && !(safe && t.op == Operator::divide)) {
            return helper(t.op == Operator::divide ? "lq_divide" : "lq_remainder") + "(" + list(t.args) + ")";
        }
        if (t.op == Operator::shift_left || t.op == Operator::shift_right) {
            const bool natural = scalar_of(t.args[1].type) == Scalar::natural;
            const std::string count = expression(t.args[1], 7) + (natural ? " & 31u" : " & 31");
            return bracketed(expression(t.args[0], own) + " " + std::string(operator_mark(t.op)) + " (" + count + ")",
                             strength > own);
        }
    }
    // One number is spread over a vector by GLSL itself.
    const auto side = [&](std::size_t k, int needed) {
        const Typed& arg = t.args[k];
        const Typed& other = t.args[1 - k];
        const bool spread = arg.kind == TypedKind::construct && arg.args.size() == 1 &&
                            width_of(arg.args[0].type) == 1 && is_float(arg.type) && width_of(other.type) > 1 &&
                            !(other.kind == TypedKind::construct && other.args.size() == 1) && is_float(t.type) &&
                            !is_matrix(other.type);
        return expression(spread ? arg.args[0] : arg, needed);
    };
    const bool compares = own == 7 || own == 8;
    const std::string text =
        side(0, compares ? own + 1 : own) + " " + std::string(operator_mark(t.op)) + " " + side(1, own + 1);
    return bracketed(text, strength > own);
}

std::string GlslExpressions::held(const Typed& arg, const char* least, const char* most) {
    const std::string inner = expression(arg, 0);
    if (*most == '\0') return fmt::format("max({}, {})", inner, least);
    return fmt::format("clamp({}, {}, {})", inner, least, most);
}

std::string GlslExpressions::call(const Typed& t) {
    const std::string_view name = builtin_row(t.builtin).name;
    const auto plain = [&](std::string_view function) { return std::string(function) + "(" + list(t.args) + ")"; };
    switch (t.builtin) {
        case Builtin::asin:
        case Builtin::acos:
            return std::string(name) + "(" + held(t.args[0], "-1.0", "1.0") + ")";
        case Builtin::acosh:
            return "acosh(" + held(t.args[0], "1.0", "") + ")";
        case Builtin::atan2:
            return plain(helper("lq_atan"));
        case Builtin::pow: {
            const Typed* base = plain_literal(t.args[0]);
            return base != nullptr && base->number > 0 ? plain("pow") : plain(helper("lq_pow"));
        }
        case Builtin::round:
            return plain("roundEven");
        case Builtin::smoothstep: {
            const Typed* low = plain_literal(t.args[0]);
            const Typed* high = plain_literal(t.args[1]);
            const bool apart = low != nullptr && high != nullptr && low->number < high->number;
            return apart ? plain("smoothstep") : plain(helper("lq_smoothstep"));
        }
        case Builtin::premultiply:
            return width_of(t.type) < 4 ? expression(t.args[0], sign_strength + 1) : plain(helper("lq_premultiply"));
        case Builtin::unpremultiply:
            return width_of(t.type) < 4 ? expression(t.args[0], sign_strength + 1) : plain(helper("lq_unpremultiply"));
        case Builtin::with_opacity_of:
            return width_of(t.type) < 4 ? expression(t.args[0], sign_strength + 1)
                                        : plain(helper("lq_with_opacity_of"));
        case Builtin::normalize:
            return plain(helper("lq_normalize"));
        case Builtin::hash_1:
        case Builtin::hash_2:
        case Builtin::hash_3:
            return plain(helper("lq_hash"));
        case Builtin::hash3:
            return plain(helper("lq_hash3"));
        case Builtin::value_noise_2:
        case Builtin::value_noise_3:
            return plain(helper("lq_value_noise"));
        case Builtin::gradient_noise_2:
        case Builtin::gradient_noise_3:
            return plain(helper("lq_gradient_noise"));
        case Builtin::cellular_noise_2:
        case Builtin::cellular_noise_3:
            return plain(helper("lq_cellular_noise"));
        case Builtin::fractal_value_2:
        case Builtin::fractal_value_3:
            return plain(helper("lq_fractal_value_noise"));
        case Builtin::fractal_gradient_2:
        case Builtin::fractal_gradient_3:
            return plain(helper("lq_fractal_gradient_noise"));
        case Builtin::fractal_cellular_2:
        case Builtin::fractal_cellular_3:
            return plain(helper("lq_fractal_cellular_noise"));
        case Builtin::mix:
        case Builtin::min:
        case Builtin::max:
        case Builtin::mod: {
            // The last of these may be one number for all parts.
            const Typed& last = t.args.back();
            const bool spread = last.kind == TypedKind::construct && last.args.size() == 1 &&
                                last.args[0].type == Type::number && is_float(last.type);
            if (!spread) return plain(name);
            std::string text = std::string(name) + "(";
            for (std::size_t k = 0; k + 1 < t.args.size(); ++k) text += expression(t.args[k], 0) + ", ";
            return text + expression(last.args[0], 0) + ")";
        }
        case Builtin::less_than:
        case Builtin::less_than_equal:
        case Builtin::greater_than:
        case Builtin::greater_than_equal:
        case Builtin::equal:
        case Builtin::equal_truth:
        case Builtin::not_equal:
        case Builtin::not_equal_truth:
            // GLSL has these for vectors only.
            if (width_of(t.type) == 1) {
                const std::string_view mark = t.builtin == Builtin::less_than                                    ? "<"
                                              : t.builtin == Builtin::less_than_equal                            ? "<="
                                              : t.builtin == Builtin::greater_than                               ? ">"
                                              : t.builtin == Builtin::greater_than_equal                         ? ">="
                                              : t.builtin == Builtin::equal || t.builtin == Builtin::equal_truth ? "=="
                                                                                                                 : "!=";
                return "(" + expression(t.args[0], 9) + " " + std::string(mark) + " " + expression(t.args[1], 9) + ")";
            }
            return plain(name);
        case Builtin::any:
        case Builtin::all:
            return width_of(t.args[0].type) == 1 ? expression(t.args[0], sign_strength + 1) : plain(name);
        case Builtin::opposite:
            return width_of(t.type) == 1 ? "!" + expression(t.args[0], sign_strength + 1) : plain(name);
        default:
            return plain(name);
    }
}

std::string GlslExpressions::read(const Typed& t) {
    const std::string from = picture(t.name);
    const auto arg = [&](std::size_t k) { return expression(t.args[k], 0); };
    switch (t.builtin) {
        case Builtin::texture_size:
            return "textureSize(" + from + ", 0)";
        case Builtin::texture_lod:
            return reading(t.name, arg(0), t.weighed, arg(1)) + picture_parts(t.type);
        case Builtin::texel_fetch:
            return fmt::format("{}({}, {}){}", helper("lq_fetch"), from, arg(0), picture_parts(t.type));
        case Builtin::at:
            return fmt::format("{}({}, {}){}", helper("lq_at"), from, arg(0), picture_parts(t.type));
        default:
            return reading(t.name, arg(0), t.weighed, {}) + picture_parts(t.type);
    }
}

std::string GlslExpressions::run(const Typed& t) { return functions_.at(t.function.get()) + "(" + list(t.args) + ")"; }

void GlslExpressions::set_function_name(const TypedFunction& function, const std::string& wish) {
    functions_[&function] = names_.name(fmt::format("{}()", static_cast<const void*>(&function)), wish);
}

std::string GlslExpressions::function_text(const TypedFunction& function) {
    const TypedFunction* const outside = std::exchange(function_, &function);
    std::string head = std::string(glsl_name(function.type)) + " " + functions_.at(&function) + "(";
    for (int i = 0; i < function.parameters; ++i) {
        const TypedVariable& variable = function.variables[static_cast<std::size_t>(i)];
        head += fmt::format("{}{} {}", i == 0 ? "" : ", ", glsl_name(variable.type),
                            names_.name(fmt::format("{} {}", static_cast<const void*>(function_), i), variable.name));
    }
    std::string text = head + ") {\n" + statements(function.body, 1) + "}\n";
    function_ = outside;
    return text;
}

std::string GlslExpressions::statements(const std::vector<TypedStatement>& list, int depth) {
    std::string text;
    for (const TypedStatement& s : list) text += statement(s, depth);
    return text;
}

std::string GlslExpressions::simple(const TypedStatement& s) {
    const TypedVariable& variable = function_->variables[static_cast<std::size_t>(s.variable)];
    std::string text = s.kind == StatementKind::declare ? std::string(glsl_name(variable.type)) + " " : "";
    text += names_.name(fmt::format("{} {}", static_cast<const void*>(function_), s.variable), variable.name);
    if (s.part_count > 0) text += ".";
    for (std::size_t i = 0; i < static_cast<std::size_t>(s.part_count); ++i) text += "xyzw"[s.parts[i]];
    if (!s.values.empty()) return text + " = " + expression(s.values[0], 0);
    const char* zero = scalar_of(variable.type) == Scalar::real      ? "0.0"
                       : scalar_of(variable.type) == Scalar::truth   ? "false"
                       : scalar_of(variable.type) == Scalar::natural ? "0u"
                                                                     : "0";
    return text + " = " +
           (width_of(variable.type) == 1 ? zero : std::string(glsl_name(variable.type)) + "(" + zero + ")");
}

std::string GlslExpressions::statement(const TypedStatement& s, int depth) {
    const std::string margin(static_cast<std::size_t>(depth) * 4, ' ');
    const auto braced = [&](const std::vector<TypedStatement>& body) {
        return "{\n" + statements(body, depth + 1) + margin + "}";
    };
    switch (s.kind) {
        case StatementKind::declare:
        case StatementKind::assign:
            return margin + simple(s) + ";\n";
        case StatementKind::branch: {
            const std::string head = margin + "if (" + expression(s.values[0], 0) + ") " + braced(s.body);
            return head + (s.otherwise.empty() ? "" : " else " + braced(s.otherwise)) + "\n";
        }
        case StatementKind::loop: {
            std::string condition = expression(s.values[0], 0);
            if (counted_.contains(function_)) {
                condition = fmt::format("{} && lq_turns++ < {}", expression(s.values[0], 4), max_turns);
            }
            const std::string first = s.first.empty() ? "" : simple(s.first[0]);
            const std::string last = s.last.empty() ? "" : simple(s.last[0]);
            return margin + "for (" + first + "; " + condition + "; " + last + ") " + braced(s.body) + "\n";
        }
        case StatementKind::leave:
            return margin + "break;\n";
        case StatementKind::skip:
            return margin + "continue;\n";
        case StatementKind::give_back:
            return margin + "return " + expression(s.values[0], 0) + ";\n";
        case StatementKind::block:
            break;
    }
    return margin + braced(s.body) + "\n";
}

}  // namespace lacquer
