// Calls: constructors, built-in functions, functions of the artist's, and reading pictures.
#include <fmt/core.h>

#include <algorithm>

#include "core/base/text.h"
#include "core/lang/expression_checker.h"
#include "core/lang/past.h"

namespace lacquer {

namespace {

bool is_general(char letter) { return std::string_view("gwnaB").find(letter) != std::string_view::npos; }

// The common width of all general arguments, and the kind of those that may be of any.
LetterTypes common_of(const BuiltinRow& row, const std::vector<Typed>& args) {
    LetterTypes common;
    int narrowest = 4;
    for (std::size_t i = 0; i < args.size(); ++i) {
        const Type type = args[i].type;
        if (!is_general(row.params[i]) || is_matrix(type)) continue;
        common.width = std::max(common.width, width_of(type));
        if (width_of(type) > 1) narrowest = std::min(narrowest, width_of(type));
        if (row.params[i] == 'a' && is_whole(type)) common.scalar = scalar_of(type);
    }
    if (row.result == 'f' && common.width == 4 && narrowest == 3) common.width = 3;
    return common;
}

bool accepts(const BuiltinRow& row, const std::vector<Typed>& args) {
    const LetterTypes common = common_of(row, args);
    for (std::size_t i = 0; i < args.size(); ++i) {
        if (!fits(args[i], letter_type(row.params[i], common))) return false;
    }
    return true;
}

bool uses_variables(const Typed& typed) {
    return typed.is<VariableHere>() || std::any_of(typed.args.begin(), typed.args.end(), uses_variables);
}

Fault wrong_count(const Expression& e, const BuiltinRow& row) {
    return ExpressionChecker::fault(
        "lang.count", e.span, fmt::format("{} takes {}, and here are {}", row.name, row.params.size(), e.args.size()),
        "write " + signature_text(row));
}

}  // namespace

Result<Typed> ExpressionChecker::call(const Expression& e) {
    for (const BuiltinRow& row : builtin_rows()) {
        if (row.name == e.text && (row.params[0] == 'p' || row.params[0] == 't')) return read(e, row);
        if (row.name == e.text && row.params[0] == 's') return previous(e, row);
    }
    std::vector<Typed> args;
    for (const Expression& arg : e.args) {
        Result<Typed> checked = value(arg);
        if (!checked) return checked;
        args.push_back(std::move(*checked));
    }
    return called(e, std::move(args));
}

Result<Typed> ExpressionChecker::called(const Expression& e, std::vector<Typed> args) {
    if (const auto type = type_in(scope_, e.text)) return construct(e, *type, std::move(args));
    if (const auto own = functions.find(e.text); own != functions.end()) return run(e, own->second, std::move(args));
    if (scope_.functions != nullptr) {
        if (const auto known = scope_.functions->find(e.text); known != scope_.functions->end()) {
            return call_known(e, known->second, std::move(args));
        }
    }
    return builtin(e, std::move(args));
}

// What is left out is filled in, and the width is the widest of what goes by it.
Result<Typed> ExpressionChecker::call_known(const Expression& e, const Callable& callable, std::vector<Typed> args) {
    for (std::size_t i = args.size(); i < callable.fallbacks.size() && !callable.fallbacks[i].empty(); ++i) {
        const Result<Expression> parsed = parse(callable.fallbacks[i]);
        if (!parsed) return parsed.fault();
        Result<Typed> value = ExpressionChecker(scope_, callable.fallbacks[i]).value(*parsed);
        if (!value) return value;
        const auto mark = [&](auto& self, Typed& node) -> void {
            node.span = e.span;
            node.adaptation = Adaptation::none;
            for (Typed& arg : node.args) self(self, arg);
        };
        mark(mark, *value);
        args.push_back(std::move(*value));
    }
    std::size_t width = 1;
    for (std::size_t i = 0; i < args.size() && i < callable.same.size(); ++i) {
        if (callable.same[i] && !is_matrix(args[i].type)) {
            width = std::max(width, static_cast<std::size_t>(width_of(args[i].type)));
        }
    }
    return run(e, callable.widths[callable.widths.size() == 1 ? 0 : width - 1], std::move(args));
}

Result<Typed> ExpressionChecker::run(const Expression& e, const std::shared_ptr<const TypedFunction>& function,
                                     std::vector<Typed> args) {
    const auto count = static_cast<std::size_t>(function->parameters);
    if (args.size() != count) {
        std::string signature;
        for (std::size_t i = 0; i < count; ++i) signature += (i == 0 ? "" : ", ") + function->variables[i].name;
        return fault("lang.count", e.span,
                     fmt::format("{} takes {}, and here are {}", function->name, count, args.size()),
                     fmt::format("write {}({})", function->name, signature));
    }
    if (function->derivatives) {
        if (auto meaningful = derivative_here(e.word); !meaningful) return meaningful.fault();
    }
    size += function->size;
    Typed made{FunctionRun{function->name, function}, function->type, e.span};
    for (std::size_t i = 0; i < count; ++i) {
        const Type wanted = function->variables[i].type;
        if (!fits(args[i], wanted)) return does_not_fit(args[i], wanted, function->name);
        made.args.push_back(fitted(std::move(args[i]), wanted));
    }
    return made;
}

Result<Done> ExpressionChecker::derivative_here(Span word) {
    derivatives = true;
    if (!scope_.no_neighbours.empty()) return fault("lang.derivative", word, scope_.no_neighbours, "use it in a step");
    if (divergent.empty()) return Done{};
    return fault("lang.derivative", word, "neighbouring pixels may not come this way too, " + divergent,
                 "compute it before, into a variable");
}

// The picture that is read: a name, or an expression that becomes a stored step of its own.
Result<Typed> ExpressionChecker::picture(const Expression& e) {
    Result<Typed> made = value(e);
    if (!made) return made;
    if (!is_float(made->type)) {
        return fault("lang.picture", e.span,
                     quoted(e.span) + " is " + said(made->type) + " and cannot be read between pixels",
                     "make it a number in a step of its own");
    }
    const auto is_picture = [](SymbolKind kind) { return kind == SymbolKind::step || kind == SymbolKind::ground; };
    if (made->is<NameHere>()) {
        if (is_picture(symbol_of(*made))) return made;
        return fault("lang.picture", e.span, quoted(e.span) + " is the same everywhere", "name a step or a ground");
    }
    bool varies = false;
    const auto look = [&](const Typed& node) {
        const auto* here = node.as<NameHere>();
        varies = varies || node.is<PictureReading>() ||
                 (here != nullptr && (is_picture(here->symbol) || here->name == "uv" || here->name == "pixel"));
    };
    visit_nodes(*made, look);
    if (uses_variables(*made)) {
        return fault("lang.picture", e.span, quoted(e.span) + " is known only within this code, so it cannot be stored",
                     "make it a step of its own, and name it here");
    }
    if (scope_.unnamed == nullptr) {
        return fault("lang.picture", e.span, quoted(e.span) + " would have to be stored, and cannot be here",
                     "make it a step of its own, and name it here");
    }
    if (!varies) {
        return fault("lang.picture", e.span, quoted(e.span) + " is the same everywhere", "name a step or a ground");
    }
    return made;
}

Result<Symbol> ExpressionChecker::picture_source(const Expression& e) {
    Result<Typed> from = picture(e);
    if (!from) return from.fault();
    if (const auto* named = from->as<NameHere>()) {
        const auto known = e.kind == ExpressionKind::name ? scope_.symbols.find(e.text) : scope_.symbols.end();
        const bool weighed = known != scope_.symbols.end() && known->second.weighed;
        return Symbol{named->symbol, from->type, named->name, weighed};
    }
    Symbol source{SymbolKind::step, from->type, scope_.unnamed_stem + "." + std::to_string(scope_.unnamed->size() + 1)};
    scope_.unnamed->push_back({source.actual, std::move(*from)});
    return source;
}

Result<Typed> ExpressionChecker::read(const Expression& e, const BuiltinRow& row) {
    if (e.args.size() != row.params.size()) return wrong_count(e, row);
    Typed made{PictureReading{row.id}, Type::number, e.span};
    PictureReading& reading = made.get<PictureReading>();
    const Expression& source_expression = e.args[0];
    const auto gradient = source_expression.kind == ExpressionKind::name ? scope_.symbols.find(source_expression.text)
                                                                         : scope_.symbols.end();
    if (row.params[0] == 't' && gradient != scope_.symbols.end() && gradient->second.kind == SymbolKind::gradient) {
        reading.name = gradient->second.actual.empty() ? source_expression.text : gradient->second.actual;
        reading.symbol = SymbolKind::gradient;
        made.type = gradient->second.type;
    } else {
        if (row.params[0] == 't') {
            if (auto known = value(source_expression); !known) return known;
            return fault("lang.picture", source_expression.span,
                         quoted(source_expression.span) + " isn't a gradient or curve", "name a gradient or a curve");
        }
        const Result<Symbol> source = picture_source(source_expression);
        if (!source) return source.fault();
        made.type = row.result == 'p' ? source->type : letter_type(row.result, {});
        reading.symbol = source->kind;
        reading.name = source->actual;
        reading.weighed = source->weighed && width_of(source->type) == 4 &&
                          (row.id == Builtin::texture || row.id == Builtin::texture_lod);
    }
    for (std::size_t i = 1; i < e.args.size(); ++i) {
        Result<Typed> arg = value(e.args[i]);
        if (!arg) return arg;
        const Type wanted = letter_type(row.params[i], {});
        if (!fits(*arg, wanted)) {
            return does_not_fit(*arg, wanted, row.params[i] == '2' ? "the place to read" : signature_text(row));
        }
        made.args.push_back(fitted(std::move(*arg), wanted));
    }
    return made;
}

// It is read as a ground of its own is.
Result<Typed> ExpressionChecker::previous(const Expression& e, const BuiltinRow& row) {
    if (e.args.empty() || e.args.size() > row.params.size()) {
        return fault("lang.count", e.span,
                     fmt::format("previous takes a step and perhaps a place, and here are {}", e.args.size()),
                     "write previous(step) or " + signature_text(row));
    }
    const Expression& step = e.args[0];
    const auto found = step.kind == ExpressionKind::name ? scope_.past.find(step.text) : scope_.past.end();
    if (found == scope_.past.end()) {
        if (const auto why = scope_.no_past.find(step.text);
            step.kind == ExpressionKind::name && why != scope_.no_past.end()) {
            Fault told = why->second;
            told.place.span = step.span;
            return told;
        }
        if (auto known = value(step); !known && step.kind == ExpressionKind::name) return known;
        return fault("lang.previous", step.span,
                     quoted(step.span) + " isn't a step: only steps go on from tick to tick", "name a step");
    }
    if (e.args.size() == 1) return Typed{NameHere{past_picture(step.text), SymbolKind::ground}, found->second, e.span};
    Result<Typed> where = value(e.args[1]);
    if (!where) return where;
    if (!fits(*where, Type::vec2)) return does_not_fit(*where, Type::vec2, "the place to read");
    Typed made{PictureReading{Builtin::texture, past_picture(step.text), SymbolKind::ground, false}, found->second,
               e.span};
    made.args.push_back(fitted(std::move(*where), Type::vec2));
    return made;
}

Result<Typed> ExpressionChecker::construct(const Expression& e, Type type, std::vector<Typed> args) const {
    if (args.empty()) {
        return fault("lang.count", e.span, e.text + "() needs something to make it from", "write " + e.text + "(0)");
    }
    Typed made{Construction(), type, e.span};
    if (is_matrix(type) && args.size() == 1 && is_matrix(args[0].type)) {
        made.args = std::move(args);
        return made;
    }
    const Scalar scalar = scalar_of(type);
    for (Typed& arg : args) {
        if (is_matrix(arg.type)) {
            return fault("lang.matrix", arg.span, quoted(arg.span) + " is a matrix", "multiply it with a vector");
        }
        if (scalar_of(arg.type) == scalar) continue;
        if (is_whole_literal(arg) && is_whole(type)) {
            const bool fits_in = fits(arg, make_type(scalar, 1));
            if (fits_in) {
                arg = fitted(std::move(arg), make_type(scalar, 1));
                continue;
            }
        }
        arg = wrap(Conversion(), make_type(scalar, width_of(arg.type)), std::move(arg));
    }
    const int needed = width_of(type);
    if (needed == 1) {
        if (args.size() != 1) {
            return fault("lang.count", e.span, e.text + "() takes one value", "take out the others");
        }
        Typed part = width_of(args[0].type) > 1 ? take_parts(std::move(args[0]), {0}) : std::move(args[0]);
        part.span = e.span;
        return part;
    }
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
    made.args = std::move(args);
    return made;
}

Result<Typed> ExpressionChecker::builtin(const Expression& e, std::vector<Typed> args) {
    const BuiltinRow* named = nullptr;
    const BuiltinRow* counted = nullptr;
    for (const BuiltinRow& row : builtin_rows()) {
        if (row.name != e.text) continue;
        if (named == nullptr) named = &row;
        if (row.params.size() != args.size()) continue;
        // Complaints are about the row that is nearest to what stands here.
        const bool nearer = !args.empty() && is_whole(args[0].type) && (row.params[0] == 'w' || row.params[0] == 'n') &&
                            scalar_of(letter_type(row.params[0], {})) == scalar_of(args[0].type);
        if (counted == nullptr || nearer) counted = &row;
        if (!accepts(row, args)) continue;
        if (row.id == Builtin::derivative_x || row.id == Builtin::derivative_y || row.id == Builtin::derivative_width) {
            if (auto meaningful = derivative_here(e.word); !meaningful) return meaningful.fault();
        }
        const LetterTypes common = common_of(row, args);
        Typed made{BuiltinCall{row.id}, letter_type(row.result, common), e.span};
        for (std::size_t i = 0; i < args.size(); ++i) {
            made.args.push_back(fitted(std::move(args[i]), letter_type(row.params[i], common)));
        }
        return made;
    }
    if (named == nullptr) return unknown_function(e);
    if (counted == nullptr) return wrong_count(e, *named);
    const LetterTypes common = common_of(*counted, args);
    for (std::size_t i = 0; i < args.size(); ++i) {
        const Type wanted = letter_type(counted->params[i], common);
        if (!fits(args[i], wanted)) return does_not_fit(args[i], wanted, signature_text(*counted));
    }
    return wrong_count(e, *named);
}

Fault ExpressionChecker::unknown_function(const Expression& e) const {
    if (scope_.not_called != nullptr) {
        if (const auto known = scope_.not_called->find(e.text); known != scope_.not_called->end()) {
            Fault why = known->second;
            why.place.span = e.word;
            return why;
        }
    }
    if (scope_.symbols.contains(e.text)) {
        return fault("lang.unknown-function", e.word, "'" + e.text + "' is not called with brackets",
                     "to read it at another place, write texture(" + e.text + ", where)");
    }
    std::vector<std::string> names;
    for (const BuiltinRow& row : builtin_rows()) names.emplace_back(row.name);
    for (int type = 0; type <= static_cast<int>(Type::mat3); ++type) {
        names.emplace_back(glsl_name(static_cast<Type>(type)));
    }
    for (const auto& [name, function] : functions) names.push_back(name);
    if (scope_.functions != nullptr) {
        for (const auto& [name, function] : *scope_.functions) names.push_back(name);
    }
    if (scope_.not_called != nullptr) {
        for (const auto& [name, why] : *scope_.not_called) names.push_back(name);
    }
    const auto near = nearest_name(e.text, names);
    const std::string shown = e.text.size() <= 40 ? e.text : e.text.substr(0, 37) + "...";
    return fault("lang.unknown-function", e.word, "there is no function '" + shown + "'",
                 near ? "did you mean " + *near + "?" : "");
}

}  // namespace lacquer
