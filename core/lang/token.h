// Words and marks of a formula.
#pragma once

#include <string_view>
#include <vector>

#include "core/base/result.h"

namespace lacquer {

enum class TokenKind { number, name, mark, end };

/// `text` lies in the source that was read, which must outlive the token.
struct Token {
    TokenKind kind = TokenKind::end;
    std::string_view text;
    Span span;
};

/// Longest formula, in bytes.
inline constexpr std::size_t max_formula_length = 65536;

/// Cuts `source` into tokens, the last of which is an `end`. White space and both kinds of GLSL comment part tokens.
/// Faults: `lang.too-long`, `lang.character`, `lang.comment`, `lang.number`.
Result<std::vector<Token>> tokenize(std::string_view source);

}  // namespace lacquer
