// The checker of code: functions, variables, statements.
#include <algorithm>
#include <cstdint>
#include <utility>

#include "core/lang/completed.h"
#include "core/lang/expression_checker.h"

namespace lacquer {

namespace {

// Calls visit(TypedStatement&) on all statements, outer ones first.
template <class Visit>
void visit_statements(std::vector<TypedStatement>& statements, Visit& visit) {
    for (TypedStatement& statement : statements) {
        visit(statement);
        visit_statements(statement.body, visit);
        visit_statements(statement.otherwise, visit);
    }
}

class CodeChecker {
public:
    // Within an operation's file its own functions hide operations of the same name, so that a new operation breaks
    // none.
    CodeChecker(const Scope& scope, std::string_view text, bool of_operation)
        : scope_(scope), text_(text), of_operation_(of_operation), expressions_(scope, text) {}

    Result<std::map<std::string, std::shared_ptr<const TypedFunction>, std::less<>>> functions(const Code& code) {
        for (const FunctionSyntax& syntax : code.functions) {
            Result<Done> added = add_function(syntax);
            if (!added) return added.fault();
        }
        return expressions_.functions;
    }

    Result<Typed> run(const Code& code) {
        if (auto added = functions(code); !added) return added.fault();
        begin({}, Type::number, "");
        Result<std::vector<TypedStatement>> body = statements(code.body);
        if (!body) return body.fault();
        made_.body = std::move(*body);
        const auto size = static_cast<std::uint32_t>(text_.size());
        if (auto whole = ends_well({0, size}, "the code"); !whole) return whole.fault();
        if (auto alike = unify_results(); !alike) return alike.fault();
        if (auto bounded = finish(); !bounded) return bounded.fault();
        const Type type = made_.type;
        return Typed{FunctionRun{"", std::make_shared<const TypedFunction>(std::move(made_))}, type, {0, size}};
    }

private:
    static Fault fault(const char* id, Span span, std::string message, std::string mend) {
        return ExpressionChecker::fault(id, span, std::move(message), std::move(mend));
    }
    bool is_called(const std::string& name) const {
        return scope_.functions != nullptr && scope_.functions->contains(name);
    }

    void begin(std::string name, Type type, const char* divergent) {
        made_ = {};
        made_.name = std::move(name);
        made_.type = type;
        expressions_.locals.assign(1, {});
        expressions_.divergent = divergent;
        expressions_.derivatives = false;
        expressions_.size = 0;
        loops_ = 0;
    }

    Result<Done> finish() {
        made_.derivatives = expressions_.derivatives;
        made_.size = expressions_.size;
        return complete(made_, {0, static_cast<std::uint32_t>(text_.size())});
    }

    Result<Done> add_function(const FunctionSyntax& syntax) {
        const std::optional<Type> type = type_in(scope_, syntax.type);
        if (is_builtin_name(syntax.name) || (!of_operation_ && is_called(syntax.name))) {
            return fault("lang.duplicate", syntax.word, "there is a function '" + syntax.name + "' already",
                         "give yours another name");
        }
        if (expressions_.functions.contains(syntax.name) || scope_.symbols.contains(syntax.name)) {
            return fault("lang.duplicate", syntax.word, "something is called '" + syntax.name + "' already",
                         "give the function another name");
        }
        begin(syntax.name, *type, "");
        for (const Parameter& parameter : syntax.parameters) {
            if (parameter.type == "sampler2D") {
                if (scope_.symbols.contains(parameter.name)) continue;
                return fault("lang.left-out", parameter.span, "a picture cannot be handed to a function here",
                             "name the step or ground in the function itself");
            }
            Result<int> variable = declare(parameter.name, *type_in(scope_, parameter.type), parameter.span);
            if (!variable) return variable.fault();
        }
        made_.parameters = static_cast<int>(made_.variables.size());
        Result<std::vector<TypedStatement>> body = statements(syntax.body);
        if (!body) return body.fault();
        made_.body = std::move(*body);
        if (auto whole = ends_well(syntax.word, "'" + syntax.name + "'"); !whole) return whole;
        Result<Done> fitting = Done{};
        const auto fit = [&](TypedStatement& s) {
            if (s.kind != StatementKind::give_back || !fitting) return;
            if (!fits(s.values[0], made_.type)) {
                fitting = expressions_.does_not_fit(s.values[0], made_.type, "'" + made_.name + "'");
            } else {
                s.values[0] = fitted(std::move(s.values[0]), made_.type);
            }
        };
        visit_statements(made_.body, fit);
        if (!fitting) return fitting;
        if (auto bounded = finish(); !bounded) return bounded;
        auto function = std::make_shared<const TypedFunction>(std::move(made_));
        expressions_.functions[function->name] = function;
        return Done{};
    }

    Result<Done> ends_well(Span where, const std::string& what) const {
        if (gives_back(made_.body)) return Done{};
        return fault("lang.no-result", where, what + " does not give back a value on every way through it",
                     "end with return and the value");
    }

    // The widest type that all results fit.
    Result<Done> unify_results() {
        std::vector<TypedStatement*> results;
        const auto find = [&](TypedStatement& s) {
            if (s.kind == StatementKind::give_back) results.push_back(&s);
        };
        visit_statements(made_.body, find);
        Type type = results.front()->values[0].type;
        for (const TypedStatement* result : results) {
            const Typed& value = result->values[0];
            if (!fits(value, type) || width_of(value.type) > width_of(type)) type = value.type;
        }
        for (TypedStatement* result : results) {
            Typed& value = result->values[0];
            if (!fits(value, type)) return expressions_.does_not_fit(value, type, "the other return");
            value = fitted(std::move(value), type);
        }
        made_.type = type;
        return Done{};
    }

    Result<int> declare(const std::string& name, Type type, Span span) {
        if (is_language_word(name) || expressions_.functions.contains(name)) {
            return fault("lang.duplicate", span, "'" + name + "' is a word of the language",
                         "give the variable another name");
        }
        if (expressions_.locals.back().contains(name)) {
            return fault("lang.duplicate", span, "there is a variable '" + name + "' already",
                         "give one of them another name");
        }
        const int variable = static_cast<int>(made_.variables.size());
        made_.variables.push_back({name, type});
        expressions_.locals.back()[name] = {variable, type};
        return variable;
    }

    Result<std::vector<TypedStatement>> statements(const std::vector<Statement>& list) {
        std::vector<TypedStatement> typed;
        for (const Statement& s : list) {
            Result<TypedStatement> one = statement(s);
            if (!one) return one.fault();
            typed.push_back(std::move(*one));
        }
        return typed;
    }

    // Statements with variables of their own.
    Result<std::vector<TypedStatement>> scoped(const std::vector<Statement>& list) {
        expressions_.locals.emplace_back();
        Result<std::vector<TypedStatement>> typed = statements(list);
        expressions_.locals.pop_back();
        return typed;
    }

    Result<TypedStatement> statement(const Statement& s) {
        switch (s.kind) {
            case StatementKind::declare:
                return declaration(s);
            case StatementKind::assign:
                return assignment(s);
            case StatementKind::branch:
                return branch(s);
            case StatementKind::loop:
                return loop(s);
            case StatementKind::give_back:
                return result(s);
            case StatementKind::leave:
            case StatementKind::skip:
                if (loops_ == 0) {
                    return fault("lang.statement", s.span, "there is no loop around this", "take it out");
                }
                expressions_.divergent =
                    expressions_.divergent.empty() ? "after a turn was cut short" : expressions_.divergent;
                return typed(s);
            case StatementKind::block:
                break;
        }
        TypedStatement made = typed(s);
        Result<std::vector<TypedStatement>> body = scoped(s.body);
        if (!body) return body.fault();
        made.body = std::move(*body);
        return made;
    }

    static TypedStatement typed(const Statement& s) {
        TypedStatement made;
        made.kind = s.kind;
        made.span = s.span;
        return made;
    }

    Result<TypedStatement> declaration(const Statement& s) {
        TypedStatement made = typed(s);
        const Type type = *type_in(scope_, s.type);
        if (!s.args.empty()) {
            Result<Typed> value = expressions_.value(s.args[0]);
            if (!value) return value.fault();
            if (!fits(*value, type)) return expressions_.does_not_fit(*value, type, "'" + s.name + "'");
            made.values.push_back(fitted(std::move(*value), type));
        }
        Result<int> variable = declare(s.name, type, s.word);
        if (!variable) return variable.fault();
        made.variable = *variable;
        return made;
    }

    Result<TypedStatement> assignment(const Statement& s) {
        TypedStatement made = typed(s);
        Result<Typed> target = expressions_.value(s.args[0]);
        if (!target) return target.fault();
        // Parts of parts, such as those of a matrix's column, are parts of the whole.
        const Typed* place = &*target;
        PartsOf taken = target->is<PartsOf>() ? target->get<PartsOf>() : PartsOf();
        while (place->is<PartsOf>()) {
            place = &place->args[0];
            const auto* outer = place->as<PartsOf>();
            for (int i = 0; i < taken.count && outer != nullptr; ++i) {
                std::uint8_t& part = taken.parts[static_cast<std::size_t>(i)];
                part = outer->parts[part];
            }
        }
        const auto* variable = place->as<VariableHere>();
        if (variable == nullptr) {
            return fault("lang.assignment", s.args[0].span,
                         expressions_.quoted(s.args[0].span) + " isn't a variable, and only variables change",
                         "make a variable of it: float value = " + std::string("..."));
        }
        made.variable = variable->number;
        if (taken.count > 0) {
            made.parts = taken.parts;
            made.part_count = taken.count;
            for (int i = 0; i < made.part_count; ++i) {
                for (int k = 0; k < i; ++k) {
                    if (made.parts[static_cast<std::size_t>(i)] != made.parts[static_cast<std::size_t>(k)]) continue;
                    return fault("lang.assignment", s.args[0].span, "a part is set twice at once",
                                 "set each part once");
                }
            }
        }
        Result<Typed> value = new_value(s, *target);
        if (!value) return value.fault();
        if (!fits(*value, target->type)) {
            return expressions_.does_not_fit(*value, target->type, expressions_.quoted(s.args[0].span));
        }
        made.values.push_back(fitted(std::move(*value), target->type));
        return made;
    }

    Result<Typed> new_value(const Statement& s, const Typed& target) {
        if (s.mark == "=") return expressions_.value(s.args[1]);
        if (s.mark == "++" || s.mark == "--") {
            Typed one{Literal{1, true}, Type::number, s.word};
            return expressions_.operation(s.mark == "++" ? Operator::add : Operator::subtract, s.span,
                                          s.mark.substr(0, 1), target, one);
        }
        Result<Typed> other = expressions_.value(s.args[1]);
        if (!other) return other;
        const std::string mark = s.mark.substr(0, s.mark.size() - 1);
        return expressions_.operation(binary_operator(mark), s.span, mark, target, std::move(*other));
    }

    Result<TypedStatement> branch(const Statement& s) {
        TypedStatement made = typed(s);
        Result<Typed> condition = expressions_.value(s.args[0]);
        if (!condition) return condition.fault();
        if (condition->type != Type::boolean) return expressions_.does_not_fit(*condition, Type::boolean, "'if'");
        made.values.push_back(std::move(*condition));
        const std::string outside = std::exchange(expressions_.divergent, "inside an if");
        const int results_before = results_;
        Result<std::vector<TypedStatement>> body = scoped(s.body);
        if (!body) return body.fault();
        Result<std::vector<TypedStatement>> otherwise = scoped(s.otherwise);
        if (!otherwise) return otherwise.fault();
        const bool left = results_ != results_before || expressions_.divergent == "after a turn was cut short";
        expressions_.divergent = outside.empty() && left ? "after some have left" : outside;
        made.body = std::move(*body);
        made.otherwise = std::move(*otherwise);
        return made;
    }

    Result<TypedStatement> loop(const Statement& s) {
        TypedStatement made = typed(s);
        expressions_.locals.emplace_back();
        const auto one = [&](const Statement& of, std::vector<TypedStatement>& to) -> Result<Done> {
            if (of.kind == StatementKind::block) return Done{};
            if (of.kind != StatementKind::declare && of.kind != StatementKind::assign) {
                return fault("lang.statement", of.span, "this does not belong in a loop's head",
                             "write it in the body");
            }
            Result<TypedStatement> checked = statement(of);
            if (!checked) return checked.fault();
            to.push_back(std::move(*checked));
            return Done{};
        };
        if (auto first = one(s.otherwise[0], made.first); !first) return first.fault();
        const std::string outside = expressions_.divergent;
        if (outside.empty()) expressions_.divergent = "inside a loop";
        const int results_before = results_;
        Result<Typed> condition = expressions_.value(s.args[0]);
        if (!condition) return condition.fault();
        if (condition->type != Type::boolean) return expressions_.does_not_fit(*condition, Type::boolean, "'for'");
        made.values.push_back(std::move(*condition));
        if (auto last = one(s.otherwise[1], made.last); !last) return last.fault();
        ++loops_;
        Result<std::vector<TypedStatement>> body = scoped(s.body);
        --loops_;
        if (!body) return body.fault();
        made.body = std::move(*body);
        expressions_.locals.pop_back();
        expressions_.divergent = outside.empty() && results_ != results_before ? "after some have left" : outside;
        made.turns = counted_turns(made);
        return made;
    }

    Result<TypedStatement> result(const Statement& s) {
        TypedStatement made = typed(s);
        Result<Typed> value = expressions_.value(s.args[0]);
        if (!value) return value.fault();
        made.values.push_back(std::move(*value));
        ++results_;
        return made;
    }

    const Scope& scope_;
    std::string_view text_;
    bool of_operation_;
    ExpressionChecker expressions_;
    TypedFunction made_;
    int loops_ = 0;
    int results_ = 0;
};

}  // namespace

Result<std::map<std::string, std::shared_ptr<const TypedFunction>, std::less<>>> check_functions(
    const Code& code, const Scope& scope, std::string_view text) {
    return CodeChecker(scope, text, true).functions(code);
}

Result<Typed> check_code(const Code& code, const Scope& scope, std::string_view text) {
    return CodeChecker(scope, text, false).run(code);
}

}  // namespace lacquer
