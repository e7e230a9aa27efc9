// Words and marks of a shader's text, before its directives are followed.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/span.h"

namespace lacquer {

enum class SourceTokenKind {
    number,
    name,
    mark,
    line,  ///< the end of a line
    odd,   ///< a character that means nothing, or a number that is none: a fault where it is not left out
    end
};

/// Macros that a token came out of, innermost first: they are not looked for in it again.
struct MacroTrail {
    std::string name;
    std::shared_ptr<const MacroTrail> outer;
};

/// `span` is where it stands in the text, or, for what a macro gave, where the macro was used.
struct SourceToken {
    SourceTokenKind kind = SourceTokenKind::end;
    std::string text;
    Span span;
    bool is_spaced = false;  ///< something blank stands before it
    std::shared_ptr<const MacroTrail> from = {};

    bool is(std::string_view mark) const { return kind == SourceTokenKind::mark && text == mark; }
    bool is_word(std::string_view word) const { return kind == SourceTokenKind::name && text == word; }
};

/// Longest shader, in bytes.
inline constexpr std::size_t max_shader_length = std::size_t{1} << 18U;

/// Cuts a text into tokens; the last is an `end`. Remarks count as blanks, a line that ends with a backslash goes on in
/// the next. Throws a `Refusal`: `lang.too-long`, `lang.comment`.
std::vector<SourceToken> source_tokens(std::string_view text);

}  // namespace lacquer
