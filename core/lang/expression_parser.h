// Reading expressions token by token; what the parsers of formulas and of code share.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/lang/expression.h"
#include "core/lang/token.h"

namespace lacquer {

/// Walks along tokens and reads expressions from them. Faults as those of `parse`.
class ExpressionParser {
public:
    explicit ExpressionParser(std::vector<Token> tokens) : tokens_(std::move(tokens)) {}

    /// One expression from here on; what follows it is left.
    Result<Expression> expression() { return choice(); }

    const Token& peek(std::size_t ahead = 0) const;
    bool sees(std::string_view mark) const { return peek().kind == TokenKind::mark && peek().text == mark; }
    bool at_end() const { return peek().kind == TokenKind::end; }
    /// Steps over the mark if it stands here.
    bool take(std::string_view mark);
    Token next() { return tokens_[at_++]; }

    /// The fault that something else stands here than `wanted`.
    Fault unexpected(const std::string& wanted) const;
    static Fault fault(const char* id, Span span, std::string message, std::string mend);

private:
    Result<Expression> choice();
    Result<Expression> operation(int least);
    Result<Expression> signed_value();
    Result<Expression> postfix();
    Result<Expression> field_of(Expression whole);
    Result<Expression> index_of(Expression whole);
    Result<Expression> primary();
    Result<Expression> call(const Token& name);
    Result<Expression> too_deep() const;

    std::vector<Token> tokens_;
    std::size_t at_ = 0;
    int depth_ = 0;
};

/// Binding strength of the binary operator that is spelled so, GLSL ES 3.00 section 5.1: larger binds tighter; 0 for
/// none.
int binding_strength(std::string_view mark);

/// True for =, += and the like, ++ and --.
bool is_assignment(std::string_view mark);

}  // namespace lacquer
