// What a formula says, before anybody asks whether it makes sense.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"

namespace lacquer {

enum class ExpressionKind {
    number,   ///< `value`; `whole` if it was spelled without point and exponent
    boolean,  ///< `value` is 0 or 1
    name,     ///< `text`
    field,    ///< args[0] . `text`
    index,    ///< args[0] [ args[1] ]
    call,     ///< `text`(args...)
    unary,    ///< `text` args[0]
    binary,   ///< args[0] `text` args[1]
    select    ///< args[0] ? args[1] : args[2]
};

/// A node of the tree. `span` covers all of it, `word` just its own name, mark or number.
struct Expression {
    ExpressionKind kind = ExpressionKind::number;
    Span span;
    Span word;
    std::string text;
    double value = 0;
    bool whole = false;
    int depth = 1;  ///< of the tree from here down
    std::vector<Expression> args;
};

/// How deep brackets, signs and choices may be nested.
inline constexpr int max_nesting = 128;

/// Reads a formula by the grammar of GLSL ES 3.00 chapter 5, without assignment and comma.
/// Faults: those of `tokenize`, `lang.expected`, `lang.nesting`, `lang.empty`, `lang.assignment`.
Result<Expression> parse(std::string_view source);

}  // namespace lacquer
