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

/// A number at the beginning of a text, as it is spelled: how many characters it has, with what runs on into it, and
/// whether it is one. GLSL ES 3.00, sections 4.1.3 and 4.1.4.
struct SpelledNumber {
    std::size_t length = 0;
    bool good = false;
};

/// Reads one; `text` begins with a digit, or a point and a digit.
SpelledNumber spelled_number(std::string_view text);

/// Cuts `source` into tokens, the last of which is an `end`. White space and both kinds of GLSL comment part tokens.
/// Faults: `lang.too-long`, `lang.character`, `lang.comment`, `lang.number`.
Result<std::vector<Token>> tokenize(std::string_view source);

}  // namespace lacquer
