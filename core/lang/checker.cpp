#include "core/lang/checker.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <utility>

#include "core/base/text.h"

namespace lacquer {

namespace {

constexpr std::array<std::pair<std::string_view, Type>, 6> constructors = {{{"float", Type::number},
                                                                            {"vec2", Type::vec2},
                                                                            {"vec3", Type::vec3},
                                                                            {"vec4", Type::vec4},
                                                                            {"bool", Type::boolean},
                                                                            {"int", Type::integer}}};

std::optional<Type> constructor_type(std::string_view name) {
    for (const auto& [word, type] : constructors) {
        if (word == name) return type;
    }
    return std::nullopt;
}

struct OperatorRow {
    std::string_view mark;
    Operator op;
};
constexpr std::array<OperatorRow, 19> binary_operators = {{{"+", Operator::add},
                                                           {"-", Operator::subtract},
                                                           {"*", Operator::multiply},
                                                           {"/", Operator::divide},
                                                           {"%", Operator::remainder},
                                                           {"<<", Operator::shift_left},
                                                           {">>", Operator::shift_right},
                                                           {"<", Operator::less},
                                                           {">", Operator::greater},
                                                           {"<=", Operator::less_equal},
                                                           {">=", Operator::greater_equal},
                                                           {"==", Operator::equal},
                                                           {"!=", Operator::not_equal},
                                                           {"&", Operator::bit_and},
                                                           {"^", Operator::bit_xor},
                                                           {"|", Operator::bit_or},
                                                           {"&&", Operator::both},
                                                           {"^^", Operator::either_one},
                                                           {"||", Operator::either}}};

Operator binary_operator(std::string_view mark) {
    const auto* row = std::find_if(binary_operators.begin(), binary_operators.end(),
                                   [&](const OperatorRow& r) { return r.mark == mark; });
    return row->op;
}

Typed wrap(TypedKind kind, Type type, Typed inner) {
    Typed outer;
    outer.kind = kind;
    outer.type = type;
    outer.span = inner.span;
    outer.args.push_back(std::move(inner));
    return outer;
}

Typed take_parts(Typed value, std::initializer_list<int> parts) {
    Typed taken = wrap(TypedKind::parts, float_type(static_cast<int>(parts.size())), std::move(value));
    for (const int part : parts)
        taken.parts[static_cast<std::size_t>(taken.part_count++)] = static_cast<std::uint8_t>(part);
    return taken;
}

bool is_whole_literal(const Typed& value) { return value.kind == TypedKind::literal && value.part_count == 1; }

// A literal without a point remembers it in `part_count`, so that it can still become a whole number.
Typed whole_literal_as_int(Typed value) {
    value.type = Type::integer;
    value.part_count = 0;
    return value;
}

/// Whether a value of type `from` can stand where `to` is wanted.
bool fits(const Typed& value, Type to) {
    const Type from = value.type;
    if (from == to) return true;
    if (to == Type::integer)
        return is_whole_literal(value) && value.number >= -2147483648.0 && value.number <= 2147483647.0;
    if (!is_float(from) || !is_float(to)) return false;
    return from == Type::number || (from == Type::vec4 && to == Type::vec3) || (from == Type::vec3 && to == Type::vec4);
}

/// The value as `to`; it must fit.
Typed fitted(Typed value, Type to) {
    if (value.type == to) return value;
    if (to == Type::integer) return whole_literal_as_int(std::move(value));
    if (value.type == Type::number) {
        Typed filled = wrap(TypedKind::construct, to, std::move(value));
        // A literal that fills all parts is too plain to be worth a mark.
        filled.adaptation = filled.args[0].kind == TypedKind::literal ? Adaptation::none : Adaptation::filled;
        return filled;
    }
    if (to == Type::vec3) {
        Typed colour = take_parts(std::move(value), {0, 1, 2});
        colour.adaptation = Adaptation::opacity_dropped;
        return colour;
    }
    Typed with_opacity = wrap(TypedKind::construct, Type::vec4, std::move(value));
    Typed one;
    one.number = 1;
    one.span = with_opacity.span;
    with_opacity.args.push_back(std::move(one));
    with_opacity.adaptation = Adaptation::opacity_added;
    return with_opacity;
}

class Checker {
public:
    Checker(const Scope& scope, std::string_view text) : scope_(scope), text_(text) {}

    Result<Typed> value(const Expression& e) {
        switch (e.kind) {
            case ExpressionKind::number:
                return number(e);
            case ExpressionKind::boolean:
                return boolean(e);
            case ExpressionKind::name:
                return name(e, e.text);
            case ExpressionKind::field:
                return field(e);
            case ExpressionKind::call:
                return call(e);
            case ExpressionKind::unary:
                return unary(e);
            case ExpressionKind::binary:
                return binary(e);
            case ExpressionKind::select:
                return select(e);
        }
        return fault("lang.kind", e.span, "this cannot be computed", "");
    }

    Fault does_not_fit(const Typed& value, Type wanted, const std::string& who) const {
        const std::string quote = quoted(value.span);
        const std::string message = fmt::format("{} is {}, {} needs {}", quote, said(value.type), who, said(wanted));
        return fault(is_float(value.type) && is_float(wanted) ? "lang.width" : "lang.kind", value.span, message,
                     mend_for(value, wanted));
    }

private:
    static Fault fault(const char* id, Span span, std::string message, std::string mend) {
        return {id, std::move(message), std::move(mend), {{}, span, 0, 0}, Severity::fault};
    }

    std::string source(Span span) const { return std::string(text_.substr(span.begin, span.end - span.begin)); }
    std::string quoted(Span span) const {
        const std::string words = source(span);
        return "'" + (words.size() <= 40 ? words : words.substr(0, 37) + "...") + "'";
    }

    std::string mend_for(const Typed& value, Type wanted) const {
        std::string words = source(value.span);
        if (words.size() > 24) words = "it";
        const bool plain =
            value.kind == TypedKind::symbol || value.kind == TypedKind::call || value.kind == TypedKind::read;
        const std::string part = plain || words == "it" ? words : "(" + words + ")";
        if (wanted == Type::boolean) return "compare it, for example " + words + " > 0.5";
        if (value.type == Type::boolean) return "write " + words + " ? 1 : 0";
        if (wanted == Type::integer) return "write int(" + words + ")";
        if (value.type == Type::integer) return "write float(" + words + ")";
        if (wanted == Type::number) return fmt::format("use {}.x, or length({})", part, words);
        if (width_of(value.type) > width_of(wanted)) {
            return fmt::format("use {}.{}", part, wanted == Type::vec2 ? "xy" : "xyz");
        }
        return fmt::format("write {}({}, 0)", glsl_name(wanted), words);
    }

    Result<Typed> number(const Expression& e) const {
        Typed literal;
        literal.span = e.span;
        literal.number = e.value;
        literal.part_count = e.whole ? 1 : 0;
        return literal;
    }

    Result<Typed> boolean(const Expression& e) const {
        Typed literal;
        literal.type = Type::boolean;
        literal.span = e.span;
        literal.number = e.value;
        return literal;
    }

    Result<Typed> name(const Expression& e, const std::string& key) const {
        const auto found = scope_.symbols.find(key);
        if (found == scope_.symbols.end()) return unknown_name(e, key);
        Typed symbol;
        symbol.kind = TypedKind::symbol;
        symbol.type = found->second.type;
        symbol.span = e.span;
        symbol.name = key;
        symbol.symbol = found->second.kind;
        return symbol;
    }

    Fault unknown_name(const Expression& e, const std::string& key) const {
        const auto known = scope_.out_of_reach.find(key);
        if (known != scope_.out_of_reach.end()) {
            return fault("lang.out-of-reach", e.word, known->second, "use another, or move the steps");
        }
        if (is_builtin_name(key)) {
            return fault("lang.unknown-name", e.word, "'" + key + "' is called with brackets",
                         "write " + key + "(...)");
        }
        std::vector<std::string> names;
        for (const auto& [candidate, symbol] : scope_.symbols) names.push_back(candidate);
        const auto near = nearest_name(key, names);
        return fault("lang.unknown-name", e.word, "nothing here is called '" + shorter(key) + "'",
                     near ? "did you mean " + *near + "?" : "name a step, dial or ground that stands above");
    }

    static std::string shorter(const std::string& word) {
        return word.size() <= 40 ? word : word.substr(0, 37) + "...";
    }

    Result<Typed> field(const Expression& e) {
        const Expression& of = e.args[0];
        if (of.kind == ExpressionKind::name && scope_.symbols.contains(of.text + "." + e.text)) {
            return name(e, of.text + "." + e.text);
        }
        Result<Typed> whole = value(of);
        if (!whole) return whole;
        return parts_of(e, std::move(*whole));
    }

    Result<Typed> parts_of(const Expression& e, Typed whole) const {
        if (whole.kind == TypedKind::symbol && whole.symbol == SymbolKind::response) {
            return fault("lang.parts", e.word, "'" + whole.name + "' has no " + e.text, "only a strike has a presence");
        }
        const int width = width_of(whole.type);
        if (!is_float(whole.type) || width == 1) {
            return fault("lang.parts", e.word, quoted(whole.span) + " has no parts to take",
                         "use it without ." + e.text);
        }
        Typed taken = wrap(TypedKind::parts, Type::number, std::move(whole));
        taken.span = e.span;
        for (const std::string_view set : {"xyzw", "rgba", "stpq"}) {
            taken.part_count = 0;
            for (const char letter : e.text) {
                const std::size_t index = set.find(letter);
                if (index >= static_cast<std::size_t>(width) || taken.part_count == 4) {
                    taken.part_count = -1;
                    break;
                }
                taken.parts[static_cast<std::size_t>(taken.part_count++)] = static_cast<std::uint8_t>(index);
            }
            if (taken.part_count > 0) {
                taken.type = float_type(taken.part_count);
                return taken;
            }
        }
        const std::string all = std::string("xyzw").substr(0, static_cast<std::size_t>(width));
        return fault("lang.parts", e.word,
                     fmt::format("'.{}' names no parts of {}", shorter(e.text), said(taken.args[0].type)),
                     "use one to four of " + all + ", or of rgba");
    }

    Result<Typed> unary(const Expression& e) {
        Result<Typed> operand = value(e.args[0]);
        if (!operand) return operand;
        const Type type = operand->type;
        if (e.text == "!") {
            if (type != Type::boolean) return does_not_fit(*operand, Type::boolean, "'!'");
        } else if (type == Type::boolean) {
            return does_not_fit(*operand, Type::number, "'" + e.text + "'");
        } else if (e.text == "~") {
            if (!fits(*operand, Type::integer)) return does_not_fit(*operand, Type::integer, "'~'");
            operand = fitted(std::move(*operand), Type::integer);
        }
        if (e.text == "+") return operand;
        if (e.text == "-" && operand->kind == TypedKind::literal) {
            operand->number = -operand->number;
            operand->span = e.span;
            return operand;
        }
        Typed made = wrap(TypedKind::unary, operand->type, std::move(*operand));
        made.op = e.text == "-" ? Operator::negate : e.text == "!" ? Operator::invert : Operator::bit_invert;
        made.span = e.span;
        return made;
    }

    Result<Typed> binary(const Expression& e) {
        Result<Typed> left = value(e.args[0]);
        if (!left) return left;
        Result<Typed> right = value(e.args[1]);
        if (!right) return right;
        Typed made;
        made.kind = TypedKind::binary;
        made.span = e.span;
        made.op = binary_operator(e.text);
        made.args.push_back(std::move(*left));
        made.args.push_back(std::move(*right));
        switch (made.op) {
            case Operator::both:
            case Operator::either:
            case Operator::either_one:
                return logical(e, std::move(made));
            case Operator::remainder:
            case Operator::shift_left:
            case Operator::shift_right:
            case Operator::bit_and:
            case Operator::bit_or:
            case Operator::bit_xor:
                return whole_number_operator(e, std::move(made));
            case Operator::less:
            case Operator::greater:
            case Operator::less_equal:
            case Operator::greater_equal:
                return comparison(e, std::move(made));
            default:
                return arithmetic(e, std::move(made));
        }
    }

    Result<Typed> logical(const Expression& e, Typed made) const {
        for (const Typed& arg : made.args) {
            if (arg.type != Type::boolean) return does_not_fit(arg, Type::boolean, "'" + e.text + "'");
        }
        made.type = Type::boolean;
        return made;
    }

    Result<Typed> whole_number_operator(const Expression& e, Typed made) const {
        for (Typed& arg : made.args) {
            if (!fits(arg, Type::integer)) {
                Fault wrong = does_not_fit(arg, Type::integer, "'" + e.text + "'");
                if (e.text == "%")
                    wrong.mend = fmt::format("write mod({}, {})", source(e.args[0].span), source(e.args[1].span));
                return wrong;
            }
            arg = fitted(std::move(arg), Type::integer);
        }
        made.type = Type::integer;
        return made;
    }

    Result<Typed> comparison(const Expression& e, Typed made) const {
        const bool whole = made.args[0].type == Type::integer || made.args[1].type == Type::integer;
        const Type wanted = whole ? Type::integer : Type::number;
        for (Typed& arg : made.args) {
            if (arg.type != wanted && !(whole && fits(arg, wanted))) {
                return does_not_fit(arg, wanted, "'" + e.text + "'");
            }
            arg = fitted(std::move(arg), wanted);
        }
        made.type = Type::boolean;
        return made;
    }

    Result<Typed> arithmetic(const Expression& e, Typed made) const {
        Typed& left = made.args[0];
        Typed& right = made.args[1];
        const bool compares = made.op == Operator::equal || made.op == Operator::not_equal;
        const std::string who = "'" + e.text + "'";
        if (left.type == Type::boolean || right.type == Type::boolean) {
            if (compares && left.type == right.type) {
                made.type = Type::boolean;
                return made;
            }
            return does_not_fit(left.type == Type::boolean ? left : right, Type::number, who);
        }
        if (left.type == Type::integer || right.type == Type::integer) {
            for (Typed& arg : made.args) {
                if (!fits(arg, Type::integer)) {
                    return does_not_fit(left.type == Type::integer ? left : right, arg.type, who);
                }
                arg = fitted(std::move(arg), Type::integer);
            }
            made.type = compares ? Type::boolean : Type::integer;
            return made;
        }
        const int l = width_of(left.type);
        const int r = width_of(right.type);
        if ((l == 3 && r == 4) || (l == 4 && r == 3)) {
            if (compares) {
                left = fitted(std::move(left), Type::vec3);
                right = fitted(std::move(right), Type::vec3);
                made.type = Type::boolean;
                return made;
            }
            made.opacity_of = l == 4 ? 0 : 1;
            made.type = Type::vec4;
            return made;
        }
        if (l != r && l != 1 && r != 1) return unequal_widths(left, right, who);
        const Type type = float_type(std::max(l, r));
        left = fitted(std::move(left), type);
        right = fitted(std::move(right), type);
        made.type = compares ? Type::boolean : type;
        return made;
    }

    Fault unequal_widths(const Typed& a, const Typed& b, const std::string& who) const {
        const Typed& wide = width_of(a.type) > width_of(b.type) ? a : b;
        const Typed& narrow = width_of(a.type) > width_of(b.type) ? b : a;
        return fault("lang.width", cover(a.span, b.span),
                     fmt::format("{} is {} and {} is {}; {} needs them alike", quoted(a.span), said(a.type),
                                 quoted(b.span), said(b.type), who),
                     mend_for(wide, narrow.type));
    }

    Result<Typed> select(const Expression& e) {
        Result<Typed> condition = value(e.args[0]);
        if (!condition) return condition;
        if (condition->type != Type::boolean) return does_not_fit(*condition, Type::boolean, "'?'");
        Result<Typed> yes = value(e.args[1]);
        if (!yes) return yes;
        Result<Typed> no = value(e.args[2]);
        if (!no) return no;
        Type type = yes->type;
        if (yes->type != no->type) {
            const bool widen =
                fits(*yes, no->type) && (width_of(no->type) > width_of(yes->type) || !fits(*no, yes->type));
            type = widen ? no->type : yes->type;
            if (!fits(widen ? *yes : *no, type)) {
                if (is_float(yes->type) && is_float(no->type)) return unequal_widths(*yes, *no, "'?'");
                return does_not_fit(*no, yes->type, "':'");
            }
        }
        Typed made;
        made.kind = TypedKind::select;
        made.type = type;
        made.span = e.span;
        made.args.push_back(std::move(*condition));
        made.args.push_back(fitted(std::move(*yes), type));
        made.args.push_back(fitted(std::move(*no), type));
        return made;
    }

    Result<Typed> call(const Expression& e) {
        if (e.text == "texture") return read(e);
        std::vector<Typed> args;
        for (const Expression& arg : e.args) {
            Result<Typed> checked = value(arg);
            if (!checked) return checked;
            args.push_back(std::move(*checked));
        }
        if (const auto type = constructor_type(e.text)) return construct(e, *type, std::move(args));
        return builtin(e, std::move(args));
    }

    Result<Typed> read(const Expression& e) {
        if (e.args.size() != 2) return wrong_count(e, builtin_row(Builtin::texture));
        const Expression& picture = e.args[0];
        if (picture.kind != ExpressionKind::name) {
            return fault("lang.picture", picture.span, "texture reads a step or ground by its name",
                         "make " + quoted(picture.span) + " a step of its own, and name it here");
        }
        Result<Typed> named = name(picture, picture.text);
        if (!named) return named;
        if (named->symbol != SymbolKind::step && named->symbol != SymbolKind::ground) {
            return fault("lang.picture", picture.span, quoted(picture.span) + " is the same everywhere",
                         "name a step or a ground");
        }
        if (named->type == Type::boolean || named->type == Type::integer) {
            return fault(
                "lang.picture", picture.span,
                quoted(picture.span) + " is " + std::string(said(named->type)) + " and cannot be read between pixels",
                "make it a number in a step of its own");
        }
        Result<Typed> where = value(e.args[1]);
        if (!where) return where;
        if (!fits(*where, Type::vec2)) return does_not_fit(*where, Type::vec2, "the place to read");
        Typed made;
        made.kind = TypedKind::read;
        made.type = named->type;
        made.span = e.span;
        made.name = named->name;
        made.symbol = named->symbol;
        made.builtin = Builtin::texture;
        made.args.push_back(fitted(std::move(*where), Type::vec2));
        return made;
    }

    Result<Typed> construct(const Expression& e, Type type, std::vector<Typed> args) const {
        if (args.empty()) {
            return fault("lang.count", e.span, e.text + "() needs something to make it from",
                         "write " + e.text + "(0)");
        }
        for (Typed& arg : args) {
            if (arg.type == Type::boolean || arg.type == Type::integer) {
                if (width_of(type) > 1 || args.size() > 1) arg = wrap(TypedKind::convert, Type::number, std::move(arg));
            }
        }
        if (width_of(type) == 1) {
            if (args.size() != 1) {
                return fault("lang.count", e.span, e.text + "() takes one value", "take out the others");
            }
            Typed part = width_of(args[0].type) > 1 ? take_parts(std::move(args[0]), {0}) : std::move(args[0]);
            if (part.type == type) return part;
            Typed converted = wrap(TypedKind::convert, type, std::move(part));
            converted.span = e.span;
            return converted;
        }
        const int needed = width_of(type);
        int have = 0;
        for (const Typed& arg : args) {
            if (have >= needed) {
                return fault("lang.count", arg.span, fmt::format("{}() has its {} numbers already", e.text, needed),
                             "take this out");
            }
            have += width_of(arg.type);
        }
        const bool fills = args.size() == 1 && have == 1;
        if (have < needed && !fills) {
            return fault("lang.count", e.span, fmt::format("{}() needs {} numbers and has {}", e.text, needed, have),
                         "add the missing ones");
        }
        Typed made;
        made.kind = TypedKind::construct;
        made.type = type;
        made.span = e.span;
        made.args = std::move(args);
        return made;
    }

    static Type letter_type(char letter, int width) {
        switch (letter) {
            case '2':
                return Type::vec2;
            case '3':
                return Type::vec3;
            case '4':
                return Type::vec4;
            case 'b':
                return Type::boolean;
            case 'i':
                return Type::integer;
            case 'g':
                return float_type(width);
            default:
                return Type::number;
        }
    }

    /// The common width of all `g` arguments.
    static int common_width(const BuiltinRow& row, const std::vector<Typed>& args) {
        int widest = 1;
        int narrowest = 4;
        for (std::size_t i = 0; i < args.size(); ++i) {
            if (row.params[i] != 'g' || !is_float(args[i].type)) continue;
            const int width = width_of(args[i].type);
            widest = std::max(widest, width);
            if (width > 1) narrowest = std::min(narrowest, width);
        }
        return row.result == 'f' && widest == 4 && narrowest == 3 ? 3 : widest;
    }

    static bool accepts(const BuiltinRow& row, const std::vector<Typed>& args) {
        const int width = common_width(row, args);
        for (std::size_t i = 0; i < args.size(); ++i) {
            if (!fits(args[i], letter_type(row.params[i], width))) return false;
        }
        return true;
    }

    Result<Typed> builtin(const Expression& e, std::vector<Typed> args) const {
        const BuiltinRow* named = nullptr;
        const BuiltinRow* counted = nullptr;
        for (const BuiltinRow& row : builtin_rows()) {
            if (row.name != e.text) continue;
            if (named == nullptr) named = &row;
            if (row.params.size() != args.size()) continue;
            if (counted == nullptr) counted = &row;
            if (!accepts(row, args)) continue;
            const int width = common_width(row, args);
            Typed made;
            made.kind = TypedKind::call;
            made.type = letter_type(row.result, width);
            made.span = e.span;
            made.builtin = row.id;
            for (std::size_t i = 0; i < args.size(); ++i) {
                made.args.push_back(fitted(std::move(args[i]), letter_type(row.params[i], width)));
            }
            return made;
        }
        if (named == nullptr) return unknown_function(e);
        if (counted == nullptr) return wrong_count(e, *named);
        const int width = common_width(*counted, args);
        for (std::size_t i = 0; i < args.size(); ++i) {
            const Type wanted = letter_type(counted->params[i], width);
            if (!fits(args[i], wanted)) return does_not_fit(args[i], wanted, signature_text(*counted));
        }
        return wrong_count(e, *named);
    }

    static Fault wrong_count(const Expression& e, const BuiltinRow& row) {
        return fault("lang.count", e.span,
                     fmt::format("{} takes {}, and here are {}", row.name, row.params.size(), e.args.size()),
                     "write " + signature_text(row));
    }

    Fault unknown_function(const Expression& e) const {
        if (scope_.symbols.contains(e.text)) {
            return fault("lang.unknown-function", e.word, "'" + e.text + "' is not called with brackets",
                         "to read it at another place, write texture(" + e.text + ", where)");
        }
        std::vector<std::string> names;
        for (const BuiltinRow& row : builtin_rows()) names.emplace_back(row.name);
        for (const auto& [word, type] : constructors) names.emplace_back(word);
        const auto near = nearest_name(e.text, names);
        return fault("lang.unknown-function", e.word, "there is no function '" + shorter(e.text) + "'",
                     near ? "did you mean " + *near + "?" : "");
    }

    const Scope& scope_;
    std::string_view text_;
};

void collect_names(const Typed& typed, std::vector<std::string>& names) {
    if (typed.kind == TypedKind::symbol || typed.kind == TypedKind::read) {
        if (std::find(names.begin(), names.end(), typed.name) == names.end()) names.push_back(typed.name);
    }
    for (const Typed& arg : typed.args) collect_names(arg, names);
}

}  // namespace

Scope step_scope() {
    Scope scope;
    for (const char* name : {"uv", "pixel", "frame_size", "pixel_size"}) {
        scope.symbols[name] = {SymbolKind::known, Type::vec2};
    }
    for (const char* name : {"aspect", "time"}) scope.symbols[name] = {SymbolKind::known, Type::number};
    return scope;
}

Result<Typed> check(const Expression& expression, const Scope& scope, std::string_view text) {
    return Checker(scope, text).value(expression);
}

Result<Typed> compile_formula(std::string_view text, const Scope& scope, std::optional<Type> wanted) {
    Result<Expression> parsed = parse(text);
    if (!parsed) return parsed.fault();
    Result<Typed> typed = check(*parsed, scope, text);
    if (!typed || !wanted) return typed;
    if (!fits(*typed, *wanted)) return Checker(scope, text).does_not_fit(*typed, *wanted, "what it drives");
    return fitted(std::move(*typed), *wanted);
}

std::vector<std::string> names_used(const Typed& typed) {
    std::vector<std::string> names;
    collect_names(typed, names);
    return names;
}

}  // namespace lacquer
