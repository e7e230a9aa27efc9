// Reading a shader's tokens by the grammar.
#pragma once

#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "core/shader/source_tokens.h"
#include "core/shader/syntax.h"

namespace lacquer {

/// True for the names of types of GLSL ES 3.00 that are known here: numbers, vectors, matrices.
bool is_shader_type(std::string_view word);

/// True for words that GLSL ES 3.00 keeps for itself, section 3.8.
bool is_reserved_word(std::string_view word);

/// Most statements in a row.
inline constexpr std::size_t max_shader_statements = 16384;

/// How deep brackets, signs, choices and statements may be nested.
inline constexpr int max_shader_nesting = 128;

/// Reads declarations, functions and statements; statements outside of functions are those of a step. Throws a
/// `Refusal`: `lang.expected`, `lang.nesting`, `lang.left-out`, `lang.number`, `lang.character`.
class ShaderParser {
public:
    explicit ShaderParser(const std::vector<SourceToken>& tokens) : tokens_(tokens) {}
    ShaderSyntax shader();

private:
    friend class Deeper;

    const SourceToken& peek(std::size_t ahead = 0) const;
    bool sees(std::string_view mark, std::size_t ahead = 0) const { return peek(ahead).is(mark); }
    bool sees_word(std::string_view word) const { return peek().is_word(word); }
    bool take(std::string_view mark);
    bool take_word(std::string_view word);
    const SourceToken& next();
    Span since(Span first) const { return cover(first, tokens_[at_ - 1].span); }
    void expect(std::string_view mark, const std::string& wanted);
    [[noreturn]] void unexpected(const std::string& wanted) const;

    // Declarations.
    bool sees_type(std::size_t ahead = 0) const;
    bool sees_declaration() const;
    struct Qualifiers;
    Qualifiers qualifiers();
    TypeSyntax type();
    std::shared_ptr<const StructSyntax> structure();
    bool brackets(std::vector<ShaderNode>& size);
    const SourceToken& new_name(const std::string& what);
    void declare(ShaderSyntax& made);
    ShaderStatement declaration();
    ShaderStatement declaration_of(const Qualifiers& qualifiers, TypeSyntax type);
    std::vector<ParameterSyntax> parameters();
    ParameterSyntax parameter();

    // Statements.
    ShaderStatement statement();
    ShaderStatement any_statement();
    std::vector<ShaderStatement> braced();
    std::vector<ShaderStatement> body();
    ShaderStatement branch();
    ShaderStatement for_loop();
    ShaderStatement while_loop();
    std::vector<ShaderStatement> loop_condition(ShaderStatement& loop);
    std::vector<ShaderStatement> loop_body(std::vector<ShaderStatement> begin);
    ShaderStatement do_loop();
    ShaderStatement choose();
    ShaderStatement label();
    ShaderStatement computation();

    // Expressions, parser_expressions.cpp.
    ShaderNode expression();
    ShaderNode assignment();
    ShaderNode choice();
    ShaderNode operation(int least);
    ShaderNode signed_value();
    ShaderNode postfix();
    ShaderNode field_of(ShaderNode whole);
    ShaderNode primary();
    ShaderNode number(const SourceToken& token) const;
    ShaderNode call(const SourceToken& word);
    std::vector<ShaderNode> arguments();
    ShaderNode node(ShaderNodeKind kind, Span span, Span word, std::string text, std::vector<ShaderNode> args) const;

    const std::vector<SourceToken>& tokens_;
    std::size_t at_ = 0;
    int depth_ = 0;
    std::vector<std::set<std::string, std::less<>>> structures_ = {{}};  // names of structs, innermost scope last
};

/// One step deeper, as long as it lives. Throws where that is too deep.
class Deeper {
public:
    explicit Deeper(ShaderParser& parser);
    ~Deeper() { --parser_.depth_; }
    Deeper(const Deeper&) = delete;
    Deeper& operator=(const Deeper&) = delete;

private:
    ShaderParser& parser_;
};

}  // namespace lacquer
