// The checker of expressions, which the checkers of formulas and of code share. Its parts: checker.cpp (names, parts,
// pictures), checker_operators.cpp, checker_calls.cpp.
#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "core/lang/checker.h"
#include "core/lang/completed.h"
#include "core/lang/fitting.h"

namespace lacquer {

/// A variable that may be used where it is in sight.
struct Local {
    int variable = 0;
    Type type = Type::number;
};

/// The binary operator that is spelled so; `mark` must be one.
Operator binary_operator(std::string_view mark);

class ExpressionChecker {
public:
    ExpressionChecker(const Scope& scope, std::string_view text) : scope_(scope), text_(text) {}

    Result<Typed> value(const Expression& expression);

    /// The fault that `value` cannot stand where `wanted` is; `who` wants it.
    Fault does_not_fit(const Typed& value, Type wanted, const std::string& who) const;
    Fault unknown_name(const Expression& e, const std::string& key) const;
    static Fault fault(const char* id, Span span, std::string message, std::string mend);
    std::string quoted(Span span) const;

    /// What an expression that is read as a picture is called, and its type: a step, a ground, or a stored step that is
    /// made of it here.
    Result<Symbol> picture_source(const Expression& expression);

    /// Both sides brought together by a binary operator.
    Result<Typed> operation(Operator op, Span span, std::string_view mark, Typed left, Typed right) const;

    /// A call of a function that is known here by its name, with what is handed to it. Reads no pictures.
    Result<Typed> called(const Expression& call, std::vector<Typed> args);

    // What code adds to a formula.
    std::vector<std::map<std::string, Local, std::less<>>> locals;  ///< innermost last
    std::map<std::string, std::shared_ptr<const TypedFunction>, std::less<>> functions;
    /// Why neighbours may not have come this way too, so that derivatives have no meaning; empty where they have.
    std::string divergent;
    bool derivatives = false;  ///< set where one was used
    std::size_t size = 0;      ///< nodes so far, with those of called functions

    const Local* local(std::string_view name) const;

    /// A value that is not looked at by all of those that come this way.
    Result<Typed> sometimes(const Expression& expression, const char* where);

private:
    Result<Typed> name(const Expression& e, const std::string& key) const;
    Result<Typed> field(const Expression& e);
    Result<Typed> parts_of(const Expression& e, Typed whole) const;
    Result<Typed> index(const Expression& e);
    Result<Typed> part_by_number(const Expression& e, const std::function<Typed(int)>& part, int count);
    Result<Typed> unary(const Expression& e);
    Result<Typed> binary(const Expression& e);
    Result<Typed> select(const Expression& e);
    Result<Typed> logical(std::string_view mark, Typed made) const;
    Result<Typed> whole_number_operator(std::string_view mark, Typed made) const;
    Result<Typed> comparison(std::string_view mark, Typed made) const;
    Result<Typed> arithmetic(std::string_view mark, Typed made) const;
    Result<Typed> whole_arithmetic(std::string_view mark, Typed made) const;
    Result<Typed> matrix_arithmetic(std::string_view mark, Typed made) const;
    Fault unequal_widths(const Typed& a, const Typed& b, const std::string& who) const;

    Result<Typed> call(const Expression& e);
    Result<Typed> read(const Expression& e, const BuiltinRow& row);
    Result<Typed> previous(const Expression& e, const BuiltinRow& row);
    Result<Typed> picture(const Expression& e);
    Result<Typed> construct(const Expression& e, Type type, std::vector<Typed> args) const;
    Result<Typed> construct_matrix(Typed made) const;
    Result<Typed> builtin(const Expression& e, std::vector<Typed> args);
    Result<Typed> run(const Expression& e, const std::shared_ptr<const TypedFunction>& function,
                      std::vector<Typed> args);
    Result<Typed> call_known(const Expression& e, const Callable& callable, std::vector<Typed> args);
    Result<Done> derivative_here(Span word);
    Fault unknown_function(const Expression& e) const;

    std::string source(Span span) const { return std::string(text_.substr(span.begin, span.end - span.begin)); }
    std::string mend_for(const Typed& value, Type wanted) const;

    const Scope& scope_;
    std::string_view text_;
};

}  // namespace lacquer
