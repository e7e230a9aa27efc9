#include <algorithm>
#include <array>
#include <cctype>

#include "core/lang/code.h"
#include "core/lang/expression_parser.h"
#include "core/lang/type.h"

namespace lacquer {

namespace {

constexpr std::size_t max_statements = 4096;

// Words of GLSL ES 3.00 that begin something the language does without, and what to do instead.
struct LeftOut {
    std::string_view word;
    std::string_view mend;
};
constexpr std::array<LeftOut, 12> left_out = {{{"while", "write for (; condition;) { ... }"},
                                               {"do", "write for (; condition;) { ... }"},
                                               {"switch", "write if and else"},
                                               {"struct", "keep the parts in variables of their own"},
                                               {"discard", "give back an opacity of 0"},
                                               {"const", "leave the word out"},
                                               {"uniform", "make it a dial"},
                                               {"in", "leave the word out"},
                                               {"out", "give the value back"},
                                               {"inout", "give the value back"},
                                               {"precision", "leave the line out"},
                                               {"void", "give a value back"}}};

class CodeParser {
public:
    CodeParser(std::vector<Token> tokens, CodeOf of) : read_(std::move(tokens)), of_(of) {}

    Result<Code> run() {
        Code code;
        while (defines_function()) {
            Result<FunctionSyntax> made = function();
            if (!made) return made.fault();
            code.functions.push_back(std::move(*made));
        }
        while (!read_.at_end()) {
            if (defines_function()) {
                return fault("lang.statement", read_.peek().span, "functions come before the statements that use them",
                             "move it to the top");
            }
            Result<Statement> made = statement();
            if (!made) return made.fault();
            code.body.push_back(std::move(*made));
        }
        return code;
    }

private:
    static Fault fault(const char* id, Span span, std::string message, std::string mend) {
        return ExpressionParser::fault(id, span, std::move(message), std::move(mend));
    }
    bool sees_word(std::string_view word) const {
        return read_.peek().kind == TokenKind::name && read_.peek().text == word;
    }
    bool sees_type() const {
        const Token& token = read_.peek();
        return token.kind == TokenKind::name &&
               (type_named(token.text).has_value() || (of_ == CodeOf::operation && token.text == "same"));
    }
    bool defines_function() const {
        return sees_type() && read_.peek(1).kind == TokenKind::name && read_.peek(2).text == "(";
    }

    Result<FunctionSyntax> function() {
        FunctionSyntax made;
        made.type_word = read_.peek().span;
        made.type = std::string(read_.next().text);
        made.word = read_.peek().span;
        made.name = std::string(read_.next().text);
        read_.take("(");
        while (!read_.sees(")")) {
            if (!sees_type() && !sees_word("sampler2D")) return expected_type();
            Parameter parameter;
            parameter.type = std::string(read_.next().text);
            if (read_.peek().kind != TokenKind::name) return read_.unexpected("the name of what is handed over");
            parameter.span = read_.peek().span;
            parameter.name = std::string(read_.next().text);
            made.parameters.push_back(std::move(parameter));
            if (!read_.take(",")) break;
        }
        if (!read_.take(")")) return read_.unexpected("a ',' or a ')'");
        if (!read_.sees("{")) return read_.unexpected("a '{' and what the function does");
        Result<std::vector<Statement>> body = braced();
        if (!body) return body.fault();
        made.body = std::move(*body);
        return made;
    }

    Fault expected_type() const {
        const Token& token = read_.peek();
        for (const LeftOut& row : left_out) {
            if (token.kind == TokenKind::name && token.text == row.word) return is_left_out(row);
        }
        return read_.unexpected("a type, such as float or vec2");
    }
    Fault is_left_out(const LeftOut& row) const {
        return fault("lang.left-out", read_.peek().span, "there is no '" + std::string(row.word) + "' here",
                     std::string(row.mend));
    }

    Result<std::vector<Statement>> braced() {
        std::vector<Statement> body;
        const Span open = read_.peek().span;
        read_.take("{");
        while (!read_.sees("}")) {
            if (read_.at_end()) return fault("lang.expected", open, "this '{' is never closed", "add a '}'");
            Result<Statement> made = statement();
            if (!made) return made.fault();
            body.push_back(std::move(*made));
        }
        read_.take("}");
        return body;
    }

    // A body in brackets, or one statement.
    Result<std::vector<Statement>> body() {
        if (read_.sees("{")) return braced();
        Result<Statement> one = statement();
        if (!one) return one.fault();
        std::vector<Statement> body;
        body.push_back(std::move(*one));
        return body;
    }

    Result<Statement> statement() {
        if (++count_ > max_statements) {
            return fault("lang.too-long", read_.peek().span, "there are more than 4,096 statements",
                         "split the code into several steps");
        }
        if (++depth_ > max_nesting / 2) {
            return fault("lang.nesting", read_.peek().span, "the code is nested too deep",
                         "make functions of its parts");
        }
        Result<Statement> made = any_statement();
        --depth_;
        return made;
    }

    Result<Statement> any_statement() {
        for (const LeftOut& row : left_out) {
            if (sees_word(row.word)) return is_left_out(row);
        }
        if (read_.sees("{")) {
            Statement made;
            made.span = made.word = read_.peek().span;
            Result<std::vector<Statement>> inner = braced();
            if (!inner) return inner.fault();
            made.body = std::move(*inner);
            return made;
        }
        if (sees_word("if")) return branch();
        if (sees_word("for")) return loop();
        Result<Statement> made = simple();
        if (!made) return made;
        if (!read_.take(";")) return read_.unexpected("a ';'");
        return made;
    }

    Result<Statement> simple() {
        for (const auto& [word, kind] : {std::pair("break", StatementKind::leave), {"continue", StatementKind::skip}}) {
            if (!sees_word(word)) continue;
            Statement made;
            made.kind = kind;
            made.span = made.word = read_.next().span;
            return made;
        }
        if (sees_word("return")) return give_back();
        if (sees_type() && read_.peek(1).kind == TokenKind::name) return declaration();
        return assignment();
    }

    Result<Statement> give_back() {
        Statement made;
        made.kind = StatementKind::give_back;
        made.word = read_.next().span;
        Result<Expression> value = read_.expression();
        if (!value) return value.fault();
        made.span = cover(made.word, value->span);
        made.args.push_back(std::move(*value));
        return made;
    }

    Result<Statement> declaration() {
        Statement made;
        made.kind = StatementKind::declare;
        made.span = read_.peek().span;
        made.type = std::string(read_.next().text);
        made.word = read_.peek().span;
        made.name = std::string(read_.next().text);
        if (read_.sees(",")) {
            return fault("lang.left-out", read_.peek().span, "each variable is declared by itself", "write two lines");
        }
        if (read_.take("=")) {
            Result<Expression> value = read_.expression();
            if (!value) return value.fault();
            made.args.push_back(std::move(*value));
        }
        made.span = cover(made.span, made.args.empty() ? made.word : made.args[0].span);
        return made;
    }

    Result<Statement> assignment() {
        Statement made;
        made.kind = StatementKind::assign;
        // ++i is i++ where nobody asks for its value.
        const bool is_before = read_.sees("++") || read_.sees("--");
        if (is_before) {
            made.word = read_.peek().span;
            made.mark = std::string(read_.next().text);
        }
        Result<Expression> target = read_.expression();
        if (!target) return target.fault();
        made.span = target->span;
        if (is_before) {
            made.span = cover(made.word, target->span);
            made.args.push_back(std::move(*target));
            return made;
        }
        if (read_.peek().kind != TokenKind::mark || !is_assignment(read_.peek().text)) {
            if (!read_.sees(";") && !read_.sees(")")) return read_.unexpected("an operator, or a ';'");
            return fault("lang.statement", target->span, "this computes a value that nothing uses",
                         "write return before it, or give it a name: float value = ...");
        }
        made.word = read_.peek().span;
        made.mark = std::string(read_.next().text);
        made.args.push_back(std::move(*target));
        if (made.mark != "++" && made.mark != "--") {
            Result<Expression> value = read_.expression();
            if (!value) return value.fault();
            made.span = cover(made.span, value->span);
            made.args.push_back(std::move(*value));
        }
        return made;
    }

    Result<Statement> branch() {
        Statement made;
        made.kind = StatementKind::branch;
        made.word = read_.next().span;
        if (!read_.take("(")) return read_.unexpected("a '(' and a condition");
        Result<Expression> condition = read_.expression();
        if (!condition) return condition.fault();
        made.span = cover(made.word, condition->span);
        made.args.push_back(std::move(*condition));
        if (!read_.take(")")) return read_.unexpected("a ')' after the condition");
        Result<std::vector<Statement>> yes = body();
        if (!yes) return yes.fault();
        made.body = std::move(*yes);
        if (sees_word("else")) {
            read_.next();
            Result<std::vector<Statement>> no = body();
            if (!no) return no.fault();
            made.otherwise = std::move(*no);
        }
        return made;
    }

    Result<Statement> loop() {
        Statement made;
        made.kind = StatementKind::loop;
        made.span = made.word = read_.next().span;
        if (!read_.take("(")) return read_.unexpected("a '(' and where the loop begins");
        made.otherwise.resize(2);
        if (!read_.sees(";")) {
            Result<Statement> first = simple();
            if (!first) return first;
            made.otherwise[0] = std::move(*first);
        }
        if (!read_.take(";")) return read_.unexpected("a ';' and the condition");
        if (read_.sees(";")) {
            return fault("lang.expected", read_.peek().span, "the loop has no condition to end it",
                         "write what must hold for another turn");
        }
        Result<Expression> condition = read_.expression();
        if (!condition) return condition.fault();
        made.span = cover(made.word, condition->span);
        made.args.push_back(std::move(*condition));
        if (!read_.take(";")) return read_.unexpected("a ';' and the step");
        if (!read_.sees(")")) {
            Result<Statement> last = simple();
            if (!last) return last;
            made.otherwise[1] = std::move(*last);
        }
        if (!read_.take(")")) return read_.unexpected("a ')' after the loop's head");
        Result<std::vector<Statement>> inner = body();
        if (!inner) return inner.fault();
        made.body = std::move(*inner);
        return made;
    }

    ExpressionParser read_;
    CodeOf of_;
    std::size_t count_ = 0;
    int depth_ = 0;
};

}  // namespace

bool is_code(std::string_view source) {
    // By its characters: what is no formula may be code with a mistake, or a shader with directives.
    const auto is_word = [&](std::size_t at) {
        return at < source.size() && (std::isalnum(static_cast<unsigned char>(source[at])) != 0 || source[at] == '_');
    };
    for (std::size_t at = 0; at < source.size(); ++at) {
        const std::string_view rest = source.substr(at);
        if (rest.starts_with("//")) {
            at = std::min(source.find('\n', at), source.size());
        } else if (rest.starts_with("/*")) {
            const std::size_t close = source.find("*/", at + 2);
            if (close == std::string_view::npos) return false;
            at = close + 1;
        } else if (rest[0] == ';' || rest[0] == '{' || rest[0] == '#') {
            return true;
        } else if (is_word(at)) {
            std::size_t end = at;
            while (is_word(end)) ++end;
            if (source.substr(at, end - at) == "return") return true;
            at = end - 1;
        }
    }
    return false;
}

Result<Code> parse_code(std::string_view source, CodeOf of) {
    Result<std::vector<Token>> tokens = tokenize(source);
    if (!tokens) return tokens.fault();
    return CodeParser(std::move(*tokens), of).run();
}

}  // namespace lacquer
