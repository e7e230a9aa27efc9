// Statements: GLSL ES 3.00, chapter 6.
#include <iterator>
#include <utility>

#include "core/shader/parser.h"
#include "core/shader/refusal.h"

namespace lacquer {

std::vector<ShaderStatement> ShaderParser::braced() {
    std::vector<ShaderStatement> made;
    const Span open = peek().span;
    expect("{", "a '{'");
    structures_.emplace_back();
    while (!take("}")) {
        if (peek().kind == SourceTokenKind::end) refuse("lang.expected", open, "this '{' is never closed", "add a '}'");
        made.push_back(statement());
        if (made.size() > max_shader_statements)
            refuse("lang.too-long", open, "there are too many statements", "split it into several steps");
    }
    structures_.pop_back();
    return made;
}

// A body in brackets, or one statement.
std::vector<ShaderStatement> ShaderParser::body() {
    if (sees("{")) return braced();
    std::vector<ShaderStatement> made;
    made.push_back(statement());
    return made;
}

ShaderStatement ShaderParser::statement() {
    const Deeper deeper(*this);
    const Span first = peek().span;
    ShaderStatement made = any_statement();
    made.whole = since(first);
    return made;
}

ShaderStatement ShaderParser::any_statement() {
    ShaderStatement made;
    made.span = peek().span;
    if (take(";")) return made;
    if (sees("{")) {
        made.kind = ShaderStatementKind::block;
        made.body = braced();
        return made;
    }
    if (sees_word("if")) return branch();
    if (sees_word("for")) return for_loop();
    if (sees_word("while")) return while_loop();
    if (sees_word("do")) return do_loop();
    if (sees_word("switch")) return choose();
    if (sees_word("case") || sees_word("default")) return label();
    for (const auto& [word, kind] : {std::pair("break", ShaderStatementKind::leave),
                                     {"continue", ShaderStatementKind::skip},
                                     {"discard", ShaderStatementKind::discard}}) {
        if (!take_word(word)) continue;
        made.kind = kind;
        expect(";", "a ';'");
        return made;
    }
    if (take_word("return")) {
        made.kind = ShaderStatementKind::give_back;
        if (!sees(";")) made.nodes.push_back(expression());
        if (!made.nodes.empty()) made.span = cover(made.span, made.nodes[0].span);
        // The last line of a step may go without.
        if (peek().kind != SourceTokenKind::end) expect(";", "a ';'");
        return made;
    }
    return sees_declaration() ? declaration() : computation();
}

ShaderStatement ShaderParser::computation() {
    ShaderStatement made;
    made.kind = ShaderStatementKind::compute;
    made.nodes.push_back(expression());
    made.span = made.nodes[0].span;
    expect(";", "an operator, or a ';'");
    return made;
}

ShaderStatement ShaderParser::branch() {
    ShaderStatement made;
    made.kind = ShaderStatementKind::branch;
    made.span = next().span;
    expect("(", "a '(' and a condition");
    made.nodes.push_back(expression());
    expect(")", "a ')' after the condition");
    made.body = body();
    if (take_word("else")) made.otherwise = body();
    return made;
}

ShaderStatement ShaderParser::for_loop() {
    ShaderStatement made;
    made.kind = ShaderStatementKind::loop;
    made.span = next().span;
    expect("(", "a '(' and where the loop begins");
    structures_.emplace_back();
    if (!take(";")) made.first.push_back(sees_declaration() ? declaration() : computation());
    std::vector<ShaderStatement> begin;
    if (!sees(";")) begin = loop_condition(made);
    expect(";", "a ';' and the step");
    if (!sees(")")) made.last.push_back(expression());
    expect(")", "a ')' after the loop's head");
    made.body = loop_body(std::move(begin));
    structures_.pop_back();
    return made;
}

ShaderStatement ShaderParser::while_loop() {
    ShaderStatement made;
    made.kind = ShaderStatementKind::loop;
    made.span = next().span;
    expect("(", "a '(' and a condition");
    structures_.emplace_back();
    std::vector<ShaderStatement> begin = loop_condition(made);
    expect(")", "a ')' after the condition");
    made.body = loop_body(std::move(begin));
    structures_.pop_back();
    return made;
}

std::vector<ShaderStatement> ShaderParser::loop_body(std::vector<ShaderStatement> begin) {
    std::vector<ShaderStatement> own = body();
    if (begin.empty()) return own;
    begin.insert(begin.end(), std::make_move_iterator(own.begin()), std::make_move_iterator(own.end()));
    return begin;
}

ShaderStatement ShaderParser::do_loop() {
    ShaderStatement made;
    made.kind = ShaderStatementKind::loop_after;
    made.span = next().span;
    made.body = body();
    if (!take_word("while")) unexpected("while and a condition");
    expect("(", "a '(' and a condition");
    made.condition.push_back(expression());
    expect(")", "a ')' after the condition");
    expect(";", "a ';'");
    return made;
}

ShaderStatement ShaderParser::choose() {
    ShaderStatement made;
    made.kind = ShaderStatementKind::choose;
    made.span = next().span;
    expect("(", "a '(' and a whole number");
    made.nodes.push_back(expression());
    expect(")", "a ')'");
    if (!sees("{")) unexpected("a '{' and the cases");
    made.body = braced();
    return made;
}

ShaderStatement ShaderParser::label() {
    ShaderStatement made;
    made.kind = ShaderStatementKind::label;
    const SourceToken& word = next();
    made.span = word.span;
    if (word.text == "case") made.nodes.push_back(choice());
    expect(":", "a ':'");
    return made;
}

}  // namespace lacquer
