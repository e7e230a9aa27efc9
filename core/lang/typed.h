// A formula or code that makes sense: every node has a type, every name stands for something, and every change of width
// is written out.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <variant>
#include <vector>

#include "core/base/span.h"
#include "core/lang/builtins.h"
#include "core/lang/code.h"
#include "core/lang/type.h"

namespace lacquer {

/// What a name can stand for.
enum class SymbolKind {
    known,  ///< what every step knows, see known_names.h
    dial,
    response,  ///< a response's value, or `name.presence`
    step,
    ground,
    gradient  ///< a gradient or curve, read by at()
};

enum class Operator {
    add,
    subtract,
    multiply,
    divide,
    remainder,
    shift_left,
    shift_right,
    less,
    greater,
    less_equal,
    greater_equal,
    equal,
    not_equal,
    bit_and,
    bit_xor,
    bit_or,
    both,
    either_one,
    either,
    negate,
    invert,
    bit_invert
};

/// How the checker changed a value to make it fit; shown as a quiet mark.
enum class Adaptation { none, filled, opacity_dropped, opacity_added };

struct TypedFunction;

// What a node can be, and what each kind alone has. What it works on stands in the node's `args`.

/// A number of any scalar type. `whole` if it was spelled without point and exponent: it can still become a whole
/// number.
struct Literal {
    double number = 0;
    bool whole = false;
};
/// What a name is here.
struct NameHere {
    std::string name = {};
    SymbolKind symbol = SymbolKind::known;
};
/// A variable of the function, by its number.
struct VariableHere {
    int number = 0;
    std::string name = {};
};
/// Some parts of args[0]; of a matrix, which has its columns one after the other, those of one column.
struct PartsOf {
    std::array<std::uint8_t, 4> parts{};
    int count = 0;
};
/// Parts of all args in a row; a lone part fills every part of a vector, the diagonal of a matrix.
struct Construction {};
/// args[0], part by part, as another scalar type.
struct Conversion {};
struct UnaryOperation {
    Operator op = Operator::negate;
};
/// Where 3 meet 4 numbers it works on the colours and keeps the opacity of args[opacity_of]; else that is -1.
struct BinaryOperation {
    Operator op = Operator::add;
    int opacity_of = -1;
};
/// args[0] ? args[1] : args[2]
struct ConditionalChoice {};
struct BuiltinCall {
    Builtin builtin = Builtin::count;
};
/// A built-in function that reads a picture or a gradient, which goes by this name. `weighed` where colours between
/// pixels count by their opacity.
struct PictureReading {
    Builtin builtin = Builtin::count;
    std::string name = {};
    SymbolKind symbol = SymbolKind::known;
    bool weighed = false;
};
/// A function of the artist's or of an operation's; code has no name.
struct FunctionRun {
    std::string name = {};
    std::shared_ptr<const TypedFunction> function = {};
};

using TypedNode = std::variant<Literal, NameHere, VariableHere, PartsOf, Construction, Conversion, UnaryOperation,
                               BinaryOperation, ConditionalChoice, BuiltinCall, PictureReading, FunctionRun>;

struct Typed {
    TypedNode node = Literal();
    Type type = Type::number;
    Span span = {};
    Adaptation adaptation = Adaptation::none;
    std::vector<Typed> args = {};

    template <class Kind>
    bool is() const {
        return std::holds_alternative<Kind>(node);
    }
    /// As this kind, or null.
    template <class Kind>
    const Kind* as() const {
        return std::get_if<Kind>(&node);
    }
    /// As this kind, which it must be.
    template <class Kind>
    const Kind& get() const {
        return std::get<Kind>(node);
    }
    template <class Kind>
    Kind& get() {
        return std::get<Kind>(node);
    }

    /// The function that it runs, or null.
    const TypedFunction* function() const {
        const auto* run = as<FunctionRun>();
        return run != nullptr ? run->function.get() : nullptr;
    }
};

struct TypedVariable {
    std::string name;
    Type type = Type::number;
};

/// A statement of a function. What `values` holds: a declaration's or assignment's new value, a condition, what is
/// given back. A declaration without a value sets zeros.
struct TypedStatement {
    StatementKind kind = StatementKind::block;
    Span span;
    int variable = 0;                     ///< declared or assigned
    std::array<std::uint8_t, 4> parts{};  ///< of an assignment to parts of the variable
    int part_count = 0;                   ///< 0: to all of it
    std::vector<Typed> values;
    std::vector<TypedStatement> body;
    std::vector<TypedStatement> otherwise;  ///< of a branch
    std::vector<TypedStatement> first;      ///< of a loop: at most one
    std::vector<TypedStatement> last;       ///< of a loop: at most one
    std::optional<int> turns;               ///< of a loop whose count is known beforehand
};

/// Most turns of loops at one pixel, within one step.
inline constexpr int max_turns = 65536;

/// A function of the artist's or of an operation's. It gives back a value on every way through it.
struct TypedFunction {
    std::string name;
    Type type = Type::number;
    int parameters = 0;                    ///< how many of the variables are handed over
    std::vector<TypedVariable> variables;  ///< all of them, parameters first
    std::vector<TypedStatement> body;
    bool foreign = false;      ///< from an operation's file: its spans lie in another text
    bool derivatives = false;  ///< uses dFdx, dFdy or fwidth
    std::size_t size = 0;      ///< nodes, with those of the functions it calls
    /// Turns of all loops together where every count is known; nothing where they must be counted as they run.
    std::optional<std::int64_t> turns = 0;
    std::array<std::uint64_t, 2> hash{};  ///< stands for all of it, see structural_hash.h; 0 until it is complete
};

/// The tree as text of the formula language, with adaptations of width written out but for the opacity that is kept
/// where 3 meet 4 numbers; code as its functions' bodies. As long as the tree has nodes.
std::string to_text(const Typed& typed);

/// Whether turns of loops have to be counted as they run: some function that is called has a loop whose count is not
/// known beforehand. Then the turns of all loops count.
bool counts_turns(const Typed& typed);

/// All adaptations in the tree with their spans, in reading order.
struct AdaptationMark {
    Adaptation adaptation;
    Span span;
};
std::vector<AdaptationMark> adaptations(const Typed& typed);

/// The name that a node uses as a value or reads as a picture; null for other nodes.
const std::string* name_of(const Typed& typed);
/// What that name stands for.
SymbolKind symbol_of(const Typed& typed);

/// GLSL spelling of an operator.
std::string_view operator_mark(Operator op);

/// Calls `visit(const Typed&)` on every node in reading order, those of called functions too.
template <class Visit>
void visit_nodes(const Typed& typed, Visit& visit);

template <class Visit>
void visit_nodes(std::span<const TypedStatement> statements, Visit& visit) {
    const auto all = [&](const std::vector<TypedStatement>& inner) {
        visit_nodes(std::span<const TypedStatement>(inner), visit);
    };
    for (const TypedStatement& statement : statements) {
        all(statement.first);
        for (const Typed& value : statement.values) visit_nodes(value, visit);
        all(statement.last);
        all(statement.body);
        all(statement.otherwise);
    }
}

template <class Visit>
void visit_nodes(const Typed& typed, Visit& visit) {
    visit(typed);
    for (const Typed& arg : typed.args) visit_nodes(arg, visit);
    if (const TypedFunction* function = typed.function())
        visit_nodes(std::span<const TypedStatement>(function->body), visit);
}

}  // namespace lacquer
