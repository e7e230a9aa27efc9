// From what a formula says to what it means: names, types, widths.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/lang/code.h"
#include "core/lang/expression.h"
#include "core/lang/typed.h"

namespace lacquer {

/// What a name stands for, and its type.
struct Symbol {
    SymbolKind kind = SymbolKind::known;
    Type type = Type::number;
    std::string actual = {};  ///< what it is really called, where it goes by another name here
    bool weighed = false;     ///< a picture whose colours count by their opacity wherever it is read
};

/// A function that formulas may call, once for each width that it can be asked in: by 1 to 4 numbers, or the only one.
struct Callable {
    std::vector<std::shared_ptr<const TypedFunction>> widths;
    std::vector<bool> same;              ///< for each argument, whether it goes by the width
    std::vector<std::string> fallbacks;  ///< for each argument, the formula that stands in for it; may be empty
};

/// An expression that is read as a picture: it becomes a stored step without a name of the artist's.
struct UnnamedStep {
    std::string name;
    Typed typed;
};

/// The names that a formula may use. A name in `out_of_reach` exists but may not be used here; the text says why and
/// the fault repeats it. `functions` are those that may be called besides the built-in ones; `not_called` names others
/// and says why they cannot be.
struct Scope {
    std::map<std::string, Symbol, std::less<>> symbols;
    std::map<std::string, std::string, std::less<>> out_of_reach;
    const std::map<std::string, Callable, std::less<>>* functions = nullptr;
    const std::map<std::string, Fault, std::less<>>* not_called = nullptr;
    /// Where expressions that are read as pictures go; they are called `unnamed_stem`, a point and a number. Null where
    /// there can be none.
    std::vector<UnnamedStep>* unnamed = nullptr;
    std::string unnamed_stem;
    /// Why there are no neighbouring pixels here, so that derivatives have no meaning; empty where there are.
    std::string no_neighbours = {};
    /// The steps whose value in the last tick can be read, with its type, and why that of others can't.
    std::map<std::string, Type, std::less<>> past = {};
    std::map<std::string, Fault, std::less<>> no_past = {};
    /// The type that `same` stands for; nothing outside of operations' files.
    std::optional<Type> same = std::nullopt;
};

/// The type that a word stands for in this scope; nothing if there is none.
std::optional<Type> type_in(const Scope& scope, std::string_view word);

/// The names that every step knows (known_names.h).
Scope step_scope();

/// Gives every part of `expression` its meaning. Widths: 1 fits n; 4 fits 3 without its opacity; 3 fits 4 with opacity
/// 1; 3 with 4 under an operator works on the colours and keeps the opacity; for a function whose result is one number
/// (dot, distance) 4 with 3 drops the opacity. `text` is what was parsed, for quoting.
/// Faults: `lang.unknown-name`, `lang.unknown-function`, `lang.out-of-reach`, `lang.width`, `lang.kind`, `lang.count`,
/// `lang.parts`, `lang.picture`, `lang.matrix`, `lang.too-big`.
Result<Typed> check(const Expression& expression, const Scope& scope, std::string_view text);

/// Gives code its meaning: a `run` of a function without arguments. What it gives back has the widest of the types that
/// its `return`s have. Faults: those of `check`, `lang.duplicate`, `lang.no-result`, `lang.assignment`,
/// `lang.derivative`, `lang.turns`, `lang.statement`.
Result<Typed> check_code(const Code& code, const Scope& scope, std::string_view text);

/// The functions of a text that holds nothing else, by name. A parameter of the type sampler2D is a picture that the
/// scope knows under its name. Faults as those of `check_code`.
Result<std::map<std::string, std::shared_ptr<const TypedFunction>, std::less<>>> check_functions(const Code& code,
                                                                                                 const Scope& scope,
                                                                                                 std::string_view text);

/// Parses and checks one expression. With `wanted`, the result is fitted to that type.
Result<Typed> compile_formula(std::string_view text, const Scope& scope, std::optional<Type> wanted = std::nullopt);

/// Parses and checks what a step holds: an expression or code. A step's value is up to four numbers, a yes or no, or a
/// whole number; else `lang.step-type`.
Result<Typed> compile_step(std::string_view text, const Scope& scope);

/// All names that the formula uses as values or pictures, in order of first use.
std::vector<std::string> names_used(const Typed& typed);

}  // namespace lacquer
