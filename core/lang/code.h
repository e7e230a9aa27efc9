// What a code step says: functions and statements, before anybody asks whether they make sense.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/lang/expression.h"

namespace lacquer {

enum class StatementKind {
    declare,    ///< `type` `name`, with args[0] as its value if there is one
    assign,     ///< args[0] `mark` args[1]; ++ and -- have no second
    branch,     ///< if (args[0]) body else otherwise
    loop,       ///< for (first; args[0]; last) body; `first` and `last` stand in `otherwise`, in this order
    leave,      ///< break
    skip,       ///< continue
    give_back,  ///< return args[0]
    block       ///< { body }
};

/// A statement. `span` covers its first line's worth: all of it for simple ones, the head for those with a body.
struct Statement {
    StatementKind kind = StatementKind::block;
    Span span;
    Span word;         ///< the name declared, the mark, or the keyword
    std::string type;  ///< as spelled
    std::string name;
    std::string mark;
    std::vector<Expression> args;
    std::vector<Statement> body;
    std::vector<Statement> otherwise;
};

struct Parameter {
    std::string type;
    std::string name;
    Span span;
};

/// A function's definition.
struct FunctionSyntax {
    std::string type;
    std::string name;
    Span word;  ///< the name, where it is defined
    Span type_word;
    std::vector<Parameter> parameters;
    std::vector<Statement> body;
};

/// Functions, then statements of which the last gives back the step's value.
struct Code {
    std::vector<FunctionSyntax> functions;
    std::vector<Statement> body;
};

/// True for a text that is more than one expression: it has a ';', a '{', a '#' or a `return` outside remarks.
bool is_code(std::string_view source);

/// Where code stands. In an operation's file `same` is a type as well: that of what the operation is called with.
enum class CodeOf { step, operation };

/// Reads code by the grammar of GLSL ES 3.00 chapters 5 and 6, without arrays, structures, `while`, `do`, `switch`,
/// qualifiers, and assignments within expressions.
/// Faults: those of `parse`, `lang.statement`, `lang.left-out`.
Result<Code> parse_code(std::string_view source, CodeOf of = CodeOf::step);

}  // namespace lacquer
