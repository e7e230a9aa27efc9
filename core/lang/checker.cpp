#include "core/lang/checker.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <utility>

#include "core/base/text.h"
#include "core/lang/expression_checker.h"
#include "core/lang/known_names.h"

namespace lacquer {

namespace {

std::string shorter(const std::string& word) { return word.size() <= 40 ? word : word.substr(0, 37) + "..."; }

Typed number(const Expression& e) {
    if (e.text.back() == 'u' || e.text.back() == 'U') return {Literal{e.value}, Type::natural, e.span};
    return {Literal{e.value, e.whole}, Type::number, e.span};
}

Typed boolean(const Expression& e) { return {Literal{e.value}, Type::boolean, e.span}; }

}  // namespace

Result<Typed> ExpressionChecker::value(const Expression& e) {
    ++size;
    switch (e.kind) {
        case ExpressionKind::number:
            return number(e);
        case ExpressionKind::boolean:
            return boolean(e);
        case ExpressionKind::name:
            return name(e, e.text);
        case ExpressionKind::field:
            return field(e);
        case ExpressionKind::index:
            return index(e);
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

Fault ExpressionChecker::does_not_fit(const Typed& value, Type wanted, const std::string& who) const {
    const std::string quote = quoted(value.span);
    const std::string message = fmt::format("{} is {}, {} needs {}", quote, said(value.type), who, said(wanted));
    return fault(is_float(value.type) && is_float(wanted) ? "lang.width" : "lang.kind", value.span, message,
                 mend_for(value, wanted));
}

Fault ExpressionChecker::fault(const char* id, Span span, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {{}, span, 0, 0}, Severity::fault};
}

std::string ExpressionChecker::quoted(Span span) const {
    const std::string words = source(span);
    return "'" + (words.size() <= 40 ? words : words.substr(0, 37) + "...") + "'";
}

std::string ExpressionChecker::mend_for(const Typed& value, Type wanted) const {
    std::string words = source(value.span);
    if (words.size() > 24) words = "it";
    const bool plain =
        value.is<NameHere>() || value.is<VariableHere>() || value.is<BuiltinCall>() || value.is<PictureReading>();
    const std::string part = plain || words == "it" ? words : "(" + words + ")";
    if (is_matrix(value.type)) return "multiply it with a vector, for example " + words + " * uv";
    if (is_matrix(wanted)) return fmt::format("write {}({})", glsl_name(wanted), words);
    if (scalar_of(value.type) == Scalar::truth) {
        return width_of(value.type) == 1 ? "write " + words + " ? 1 : 0"
                                         : "write any(" + words + ") or all(" + words + ")";
    }
    if (scalar_of(wanted) == Scalar::truth) return "compare it, for example " + words + " > 0.5";
    if (scalar_of(wanted) != scalar_of(value.type)) {
        const Type same_width = make_type(scalar_of(wanted), width_of(value.type));
        return fmt::format("write {}({})", glsl_name(same_width), words);
    }
    if (wanted == Type::number) return fmt::format("use {}.x, or length({})", part, words);
    if (width_of(value.type) > width_of(wanted)) {
        return fmt::format("use {}.{}", part, wanted == Type::vec2 ? "xy" : "xyz");
    }
    return fmt::format("write {}({}, 0)", glsl_name(wanted), words);
}

const Local* ExpressionChecker::local(std::string_view name) const {
    for (auto scope = locals.rbegin(); scope != locals.rend(); ++scope) {
        if (const auto found = scope->find(name); found != scope->end()) return &found->second;
    }
    return nullptr;
}

Result<Typed> ExpressionChecker::name(const Expression& e, const std::string& key) const {
    if (const Local* found = local(key)) return Typed{VariableHere{found->variable, key}, found->type, e.span};
    const auto found = scope_.symbols.find(key);
    if (found == scope_.symbols.end()) return unknown_name(e, key);
    if (found->second.kind == SymbolKind::gradient) {
        return fault("lang.picture", e.span, quoted(e.span) + " is read at a place of its own",
                     "write at(" + key + ", t)");
    }
    const std::string& actual = found->second.actual;
    return Typed{NameHere{actual.empty() ? key : actual, found->second.kind}, found->second.type, e.span};
}

Fault ExpressionChecker::unknown_name(const Expression& e, const std::string& key) const {
    const auto known = scope_.out_of_reach.find(key);
    if (known != scope_.out_of_reach.end()) {
        return fault("lang.out-of-reach", e.word, known->second, "use another, or move the steps");
    }
    if (is_builtin_name(key) || functions.contains(key) ||
        (scope_.functions != nullptr && scope_.functions->contains(key))) {
        return fault("lang.unknown-name", e.word, "'" + key + "' is called with brackets", "write " + key + "(...)");
    }
    std::vector<std::string> names;
    for (const auto& [candidate, symbol] : scope_.symbols) names.push_back(candidate);
    for (const auto& scope : locals) {
        for (const auto& [candidate, variable] : scope) names.push_back(candidate);
    }
    const auto near = nearest_name(key, names);
    return fault("lang.unknown-name", e.word, "nothing here is called '" + shorter(key) + "'",
                 near ? "did you mean " + *near + "?" : "name a step, dial or ground that stands above");
}

Result<Typed> ExpressionChecker::field(const Expression& e) {
    const Expression& of = e.args[0];
    if (of.kind == ExpressionKind::name && local(of.text) == nullptr &&
        scope_.symbols.contains(of.text + "." + e.text)) {
        return name(e, of.text + "." + e.text);
    }
    Result<Typed> whole = value(of);
    if (!whole) return whole;
    return parts_of(e, std::move(*whole));
}

Result<Typed> ExpressionChecker::parts_of(const Expression& e, Typed whole) const {
    const int width = width_of(whole.type);
    const bool swizzles = width > 1 && e.text.find_first_not_of("xyzwrgbastpq") == std::string::npos;
    const auto* named = whole.as<NameHere>();
    if (named != nullptr && named->symbol == SymbolKind::response && !swizzles) {
        std::string has;
        std::vector<std::string> outputs;
        for (auto known = scope_.symbols.lower_bound(named->name + "."); known != scope_.symbols.end(); ++known) {
            if (!known->first.starts_with(named->name + ".")) break;
            outputs.push_back(known->first.substr(named->name.size() + 1));
            has += (has.empty() ? "it has " : ", ") + outputs.back();
        }
        const auto near = nearest_name(e.text, outputs);
        return fault("lang.parts", e.word, "'" + named->name + "' has no " + e.text,
                     near          ? "did you mean " + *near + "?"
                     : has.empty() ? "use it without ." + e.text
                                   : has);
    }
    if (is_matrix(whole.type)) {
        return fault("lang.parts", e.word, quoted(whole.span) + " is a matrix",
                     "take a column first, for example [0], or multiply it with a vector");
    }
    if (width == 1) {
        return fault("lang.parts", e.word, quoted(whole.span) + " has no parts to take", "use it without ." + e.text);
    }
    for (const std::string_view set : {"xyzw", "rgba", "stpq"}) {
        PartsOf taken;
        for (const char letter : e.text) {
            const std::size_t index = set.find(letter);
            if (index >= static_cast<std::size_t>(width) || taken.count == 4) {
                taken.count = -1;
                break;
            }
            taken.parts[static_cast<std::size_t>(taken.count++)] = static_cast<std::uint8_t>(index);
        }
        if (taken.count > 0) {
            Typed parts = wrap(taken, make_type(scalar_of(whole.type), taken.count), std::move(whole));
            parts.span = e.span;
            return parts;
        }
    }
    const std::string all = std::string("xyzw").substr(0, static_cast<std::size_t>(width));
    return fault("lang.parts", e.word, fmt::format("'.{}' names no parts of {}", shorter(e.text), said(whole.type)),
                 "use one to four of " + all + ", or of rgba");
}

// A column of a matrix, or one part of a vector.
Result<Typed> ExpressionChecker::index(const Expression& e) {
    const Expression& number = e.args[1];
    const bool is_written = number.kind == ExpressionKind::number;
    Result<Typed> whole =
        is_written ? value(e.args[0]) : sometimes(e.args[0], "before brackets with a computed number");
    if (!whole) return whole;
    const bool columns = is_matrix(whole->type);
    const int count = columns ? side_of(whole->type) : width_of(whole->type);
    if (count == 1) {
        return fault("lang.parts", e.word, quoted(whole->span) + " has no parts to take", "leave the brackets out");
    }
    const auto part = [&](int nth) {
        PartsOf taken;
        taken.count = columns ? count : 1;
        for (std::uint8_t k = 0; k < taken.count; ++k)
            taken.parts[k] = static_cast<std::uint8_t>(nth * taken.count + k);
        Typed parts = wrap(taken, make_type(scalar_of(whole->type), taken.count), *whole);
        parts.span = e.span;
        return parts;
    };
    if (!is_written) return part_by_number(e, part, count);
    if (!number.whole || number.value >= count) {
        return fault("lang.parts", number.span,
                     fmt::format("{} has {} 0 to {}, and this names none of them", quoted(whole->span),
                                 columns ? "columns" : "parts", count - 1),
                     "write one of these numbers");
    }
    return part(static_cast<int>(number.value));
}

// By a number that is computed: a fraction counts for the whole number below it, what lies outside for the nearest
// part.
Result<Typed> ExpressionChecker::part_by_number(const Expression& e, const std::function<Typed(int)>& part, int count) {
    Result<Typed> number = value(e.args[1]);
    if (!number) return number;
    const bool counts = width_of(number->type) == 1 && scalar_of(number->type) != Scalar::truth;
    if (!counts)
        return fault(
            "lang.kind", number->span,
            fmt::format("{} is {}, a place in brackets needs one number", quoted(number->span), said(number->type)),
            "take one part of it, or count in another way");
    Typed made = part(count - 1);
    for (int nth = count - 2; nth >= 0; --nth) {
        Typed is_before{BinaryOperation{Operator::less}, Type::boolean, e.span};
        is_before.args.push_back(*number);
        is_before.args.push_back({Literal{nth + 1.0}, number->type, e.span});
        Typed here = part(nth);
        Typed choice{ConditionalChoice(), made.type, e.span};
        choice.args.push_back(std::move(is_before));
        choice.args.push_back(std::move(here));
        choice.args.push_back(std::move(made));
        made = std::move(choice);
    }
    const auto count_node = [this](const Typed&) { ++size; };
    visit_nodes(made, count_node);
    if (size > max_nodes)
        return fault("lang.too-big", e.span, "with its copies for each part, this is too long to compute",
                     "give the value a name of its own first");
    return made;
}

Result<Typed> check(const Expression& expression, const Scope& scope, std::string_view text) {
    ExpressionChecker checker(scope, text);
    Result<Typed> typed = checker.value(expression);
    if (!typed || checker.size <= max_nodes) return typed;
    return ExpressionChecker::fault("lang.too-big", expression.span,
                                    "with the functions it calls, this is too long to compute",
                                    "split it into several steps");
}

Result<Typed> compile_formula(std::string_view text, const Scope& scope, std::optional<Type> wanted) {
    Result<Expression> parsed = parse(text);
    if (!parsed) return parsed.fault();
    Result<Typed> typed = check(*parsed, scope, text);
    if (!typed || !wanted) return typed;
    if (!fits(*typed, *wanted)) return ExpressionChecker(scope, text).does_not_fit(*typed, *wanted, "what it drives");
    return fitted(std::move(*typed), *wanted);
}

Result<Typed> compile_step(std::string_view text, const Scope& scope) {
    Result<Typed> typed = Typed{};
    if (is_code(text)) {
        const Result<Code> code = parse_code(text);
        if (!code) return code.fault();
        typed = check_code(*code, scope, text);
    } else {
        typed = compile_formula(text, scope);
    }
    if (!typed || fits_a_step(typed->type)) return typed;
    return ExpressionChecker::fault(
        "lang.step-type", typed->span, "a step has up to four numbers, and this is " + said(typed->type),
        is_matrix(typed->type) ? "multiply it with a vector"
                               : "write vec" + std::to_string(width_of(typed->type)) + "(...)");
}

std::vector<std::string> names_used(const Typed& typed) {
    std::vector<std::string> names;
    const auto collect = [&](const Typed& node) {
        const std::string* name = name_of(node);
        if (name != nullptr && std::find(names.begin(), names.end(), *name) == names.end()) names.push_back(*name);
    };
    visit_nodes(typed, collect);
    return names;
}

std::optional<Type> type_in(const Scope& scope, std::string_view word) {
    return word == "same" && scope.same ? scope.same : type_named(word);
}

Scope step_scope() {
    Scope scope;
    for (const KnownName& known : known_names())
        scope.symbols[std::string(known.name)] = {SymbolKind::known, known.type};
    return scope;
}

}  // namespace lacquer
