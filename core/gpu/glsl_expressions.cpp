#include "core/gpu/glsl_expressions.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/lang/known_names.h"

namespace lacquer {

namespace {

std::string swizzle(Type type) {
    return width_of(type) == 4 ? "" : "." + std::string("rgba").substr(0, static_cast<std::size_t>(width_of(type)));
}

std::string picture_parts(Type type) {
    return width_of(type) == 1 ? ".r" : width_of(type) == 2 ? ".rg" : swizzle(type);
}

}  // namespace

std::string GlslExpressions::helper(const std::string& name) {
    helpers_.insert(name);
    return name;
}

std::string GlslExpressions::picture(const std::string& source) {
    const std::string& name = names_.name("picture " + source, source);
    pictures_.emplace(source, name);
    return name;
}

std::string GlslExpressions::variable(int number, const std::string& name) {
    return names_.name(fmt::format("{} {}", static_cast<const void*>(function()), number), name);
}

std::string GlslExpressions::literal(const Typed& t, int strength) {
    return bracketed(number_text(t.type, t.get<Literal>().number),
                     t.get<Literal>().number < 0 && strength >= sign_strength);
}

std::string GlslExpressions::number_text(Type type, double number) {
    switch (scalar_of(type)) {
        case Scalar::truth:
            return number != 0 ? "true" : "false";
        case Scalar::natural:
            return fmt::format("{}u", static_cast<std::uint32_t>(std::min(number, 4294967295.0)));
        case Scalar::whole:
            // The smallest whole number has no literal of its own.
            if (number <= -2147483648.0) return "(-2147483647 - 1)";
            return fmt::format("{}", static_cast<std::int32_t>(number));
        case Scalar::real:
            break;
    }
    const float rounded = static_cast<float>(number);
    if (std::isinf(rounded)) return rounded > 0 ? "(1.0 / 0.0)" : "(-1.0 / 0.0)";
    std::string text = shortest_number(number);
    if (text.find_first_of(".en") == std::string::npos) text += ".0";
    return text;
}

std::string GlslExpressions::reading(const std::string& source, const std::string& where, bool weighed,
                                     const std::string& lod) {
    if (access_ == PictureAccess::native) {
        return lod.empty() ? fmt::format("texture({}, {})", picture(source), where)
                           : fmt::format("textureLod({}, {}, {})", picture(source), where, lod);
    }
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
    return fmt::format("{}({}, {}{}{})", helper(name), picture(source), where, level, ways);
}

std::string GlslExpressions::read_here(const std::string& source) {
    if (function() == nullptr) {
        used_.insert("uv");
        return reading(source, "uv", false, {});
    }
    reads_here_ = true;
    return reading(source, "gl_FragCoord.xy / lq_drawn_size", false, {});
}

GlslExpressions::GlslExpressions(GlslNames& names, const Pass& pass, PictureAccess access)
    : names_(names), pass_(pass), access_(access) {
    // Whatever else is called so gets another name.
    for (const KnownName& known : known_names()) names_.name(std::string(known.name), known.name);
}

namespace {

bool is_place(const NameHere& t) {
    const KnownName* known = t.symbol == SymbolKind::known ? find_known(t.name) : nullptr;
    return known != nullptr && known->domain == KnownDomain::pixel;
}

}  // namespace

std::string GlslExpressions::symbol(const Typed& typed) {
    const auto& here = typed.get<NameHere>();
    const Type type = typed.type;
    if (here.symbol == SymbolKind::ground) return read_here(here.name) + picture_parts(type);
    if (here.symbol == SymbolKind::step) {
        if (std::find(pass_.stored.begin(), pass_.stored.end(), here.name) == pass_.stored.end())
            return names_.name(here.name, here.name);
        const std::string value = read_here(here.name) + picture_parts(type);
        if (scalar_of(type) == Scalar::real) return value;
        if (scalar_of(type) == Scalar::truth) return "(" + value + " != 0.0)";
        return helper(scalar_of(type) == Scalar::whole ? "lq_int" : "lq_uint") + "(" + value + ")";
    }
    if (is_place(here)) {
        used_.insert(here.name);
        return here.name;
    }
    const std::string& name = names_.name(here.name, here.name);
    uniforms_.emplace(here.name, Uniform{name, type});
    return name;
}

// Colours read better by their own letters.
const char* GlslExpressions::part_letters(Type type) const {
    return width_of(type) >= 3 && scalar_of(type) == Scalar::real ? "rgba" : "xyzw";
}

std::string GlslExpressions::convert(const Typed& t) {
    const bool from_real = scalar_of(t.args[0].type) == Scalar::real;
    const char* guard = nullptr;
    if (from_real && scalar_of(t.type) == Scalar::whole) guard = "lq_int";
    if (from_real && scalar_of(t.type) == Scalar::natural) guard = "lq_uint";
    const std::string name = guard != nullptr ? helper(guard) : std::string(glsl_name(t.type));
    return name + "(" + expression(t.args[0], 0) + ")";
}

std::string GlslExpressions::colour_and_opacity(const Typed& t, int strength) {
    const auto [op, opacity_of] = t.get<BinaryOperation>();
    const Typed& with = t.args[static_cast<std::size_t>(opacity_of)];
    const Typed& colour = t.args[static_cast<std::size_t>(1 - opacity_of)];
    const bool first = opacity_of == 0;
    if (!first && (op == Operator::subtract || op == Operator::divide)) {
        return helper(op == Operator::subtract ? "lq_minus" : "lq_over") + "(" + expression(colour, 0) + ", " +
               expression(with, 0) + ")";
    }
    // What changes nothing stands for the missing opacity.
    const bool sums = op == Operator::add || op == Operator::subtract;
    const std::string padded = "vec4(" + expression(colour, 0) + (sums ? ", 0.0)" : ", 1.0)");
    const int own = strength_of(op);
    const std::string other = expression(with, first ? own : own + 1);
    const std::string text =
        (first ? other : padded) + " " + std::string(operator_mark(op)) + " " + (first ? padded : other);
    return bracketed(text, strength > own);
}

std::string GlslExpressions::binary(const Typed& t, int strength) {
    const auto [op, opacity_of] = t.get<BinaryOperation>();
    if (opacity_of >= 0) return colour_and_opacity(t, strength);
    const int own = strength_of(op);
    if (is_whole(t.type)) {
        const bool safe = is_above_0(t.args[1]);
        if ((op == Operator::divide || op == Operator::remainder) && !(safe && op == Operator::divide)) {
            return helper(op == Operator::divide ? "lq_divide" : "lq_remainder") + "(" + list(t.args) + ")";
        }
        if (op == Operator::shift_left || op == Operator::shift_right) {
            const bool natural = scalar_of(t.args[1].type) == Scalar::natural;
            const std::string count = expression(t.args[1], 7) + (natural ? " & 31u" : " & 31");
            return bracketed(expression(t.args[0], own) + " " + std::string(operator_mark(op)) + " (" + count + ")",
                             strength > own);
        }
    }
    // One number is spread over a vector by GLSL itself.
    const auto side = [&](std::size_t k, int needed) {
        const Typed& arg = t.args[k];
        const Typed& other = t.args[1 - k];
        const bool spread = arg.is<Construction>() && arg.args.size() == 1 && width_of(arg.args[0].type) == 1 &&
                            is_float(arg.type) && width_of(other.type) > 1 &&
                            !(other.is<Construction>() && other.args.size() == 1) && is_float(t.type) &&
                            !is_matrix(other.type);
        return expression(spread ? arg.args[0] : arg, needed);
    };
    const bool compares = own == 7 || own == 8;
    const std::string text =
        side(0, compares ? own + 1 : own) + " " + std::string(operator_mark(op)) + " " + side(1, own + 1);
    return bracketed(text, strength > own);
}

std::string GlslExpressions::read(const Typed& t) {
    const auto& node = t.get<PictureReading>();
    const std::string from = picture(node.name);
    const auto arg = [&](std::size_t k) { return expression(t.args[k], 0); };
    switch (node.builtin) {
        case Builtin::texture_size:
            return "textureSize(" + from + ", 0)";
        case Builtin::texture_lod:
            return reading(node.name, arg(0), node.weighed, arg(1)) + picture_parts(t.type);
        case Builtin::texel_fetch:
            return fmt::format("{}({}, {}){}", helper("lq_fetch"), from, arg(0), picture_parts(t.type));
        case Builtin::at:
            return fmt::format("{}({}, {}){}", helper(access_ == PictureAccess::native ? "lq_at_native" : "lq_at"),
                               from, arg(0), picture_parts(t.type));
        default:
            return reading(node.name, arg(0), node.weighed, {}) + picture_parts(t.type);
    }
}

std::string GlslExpressions::run(const Typed& t) { return functions_.at(t.function()) + "(" + list(t.args) + ")"; }

void GlslExpressions::set_function_name(const TypedFunction& function, const std::string& wish) {
    functions_[&function] = names_.name(fmt::format("{}()", static_cast<const void*>(&function)), wish);
}

std::string GlslExpressions::text_of(const TypedFunction& function) {
    return function_text(function, functions_.at(&function), 0);
}

std::string GlslExpressions::condition(const Typed& t) {
    if (!counted_.contains(function())) return expression(t, 0);
    return fmt::format("{} && lq_turns++ < {}", expression(t, 4), max_turns);
}

}  // namespace lacquer
