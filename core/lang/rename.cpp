#include "core/lang/rename.h"

#include "core/lang/token.h"

namespace lacquer {

std::string rename_in_formula(std::string_view formula, std::string_view from, std::string_view to) {
    const Result<std::vector<Token>> tokens = tokenize(formula);
    if (!tokens) return std::string(formula);
    std::string renamed;
    std::size_t copied = 0;
    bool after_point = false;
    for (const Token& token : *tokens) {
        if (token.kind == TokenKind::name && token.text == from && !after_point) {
            renamed += formula.substr(copied, token.span.begin - copied);
            renamed += to;
            copied = token.span.end;
        }
        after_point = token.kind == TokenKind::mark && token.text == ".";
    }
    renamed += formula.substr(copied);
    return renamed;
}

}  // namespace lacquer
