#include <algorithm>
#include <array>
#include <charconv>
#include <optional>

#include "core/lang/expression_parser.h"

namespace lacquer {

namespace {

double whole_value(std::string_view digits, int base) {
    unsigned long long whole = 0;
    const auto [end, error] = std::from_chars(digits.data(), digits.data() + digits.size(), whole, base);
    return error == std::errc() ? static_cast<double>(whole) : 1e39;
}

double number_value(std::string_view text) {
    if (text.size() > 1 && (text[1] == 'x' || text[1] == 'X')) {
        if (text.back() == 'u' || text.back() == 'U') text.remove_suffix(1);
        return whole_value(text.substr(2), 16);
    }
    if (text.back() == 'u' || text.back() == 'U' || text.back() == 'f' || text.back() == 'F') text.remove_suffix(1);
    if (text.size() > 1 && text[0] == '0' && text.find_first_not_of("01234567") == std::string_view::npos)
        return whole_value(text, 8);
    double value = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (error != std::errc::result_out_of_range) return value;
    // Too large becomes infinite as a float, too small becomes 0.
    const std::size_t exponent = text.find_first_of("eE");
    const bool small = exponent != std::string_view::npos && exponent + 1 < text.size() && text[exponent + 1] == '-';
    return small ? 0.0 : 1e39;
}

struct Deeper {
    explicit Deeper(int& depth) : depth_(depth) { ++depth_; }
    ~Deeper() { --depth_; }
    Deeper(const Deeper&) = delete;
    Deeper& operator=(const Deeper&) = delete;
    int& depth_;
};

Expression node(ExpressionKind kind, Span span, Span word, std::string text, std::vector<Expression> args) {
    Expression made;
    made.kind = kind;
    made.span = span;
    made.word = word;
    made.text = std::move(text);
    for (const Expression& arg : args) made.depth = std::max(made.depth, arg.depth + 1);
    made.args = std::move(args);
    return made;
}

}  // namespace

int binding_strength(std::string_view mark) {
    struct Row {
        std::string_view mark;
        int strength;
    };
    static constexpr std::array<Row, 19> rows = {{{"||", 1},
                                                  {"^^", 2},
                                                  {"&&", 3},
                                                  {"|", 4},
                                                  {"^", 5},
                                                  {"&", 6},
                                                  {"==", 7},
                                                  {"!=", 7},
                                                  {"<", 8},
                                                  {">", 8},
                                                  {"<=", 8},
                                                  {">=", 8},
                                                  {"<<", 9},
                                                  {">>", 9},
                                                  {"+", 10},
                                                  {"-", 10},
                                                  {"*", 11},
                                                  {"/", 11},
                                                  {"%", 11}}};
    for (const Row& row : rows) {
        if (row.mark == mark) return row.strength;
    }
    return 0;
}

bool is_assignment(std::string_view mark) {
    return mark == "++" || mark == "--" || (!mark.empty() && mark.back() == '=' && binding_strength(mark) == 0);
}

const Token& ExpressionParser::peek(std::size_t ahead) const {
    return tokens_[std::min(at_ + ahead, tokens_.size() - 1)];
}

bool ExpressionParser::take(std::string_view mark) {
    if (!sees(mark)) return false;
    ++at_;
    return true;
}

Fault ExpressionParser::fault(const char* id, Span span, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {{}, span, 0, 0}, Severity::fault};
}

Fault ExpressionParser::unexpected(const std::string& wanted) const {
    const Token& token = peek();
    if (token.kind == TokenKind::end) {
        return fault("lang.expected", token.span, "the formula stops short", "add " + wanted);
    }
    const std::string found = "'" + std::string(token.text) + "'";
    if (is_assignment(token.text)) {
        return fault(
            "lang.assignment", token.span, found + " would change a value, and steps never change",
            token.text == "=" ? "to compare, write ==; or make a new step" : "make a new step for the new value");
    }
    return fault("lang.expected", token.span, found + " was not expected here", "put " + wanted + " here");
}

Result<Expression> ExpressionParser::choice() {
    const Deeper deeper(depth_);
    if (depth_ > max_nesting) return too_deep();
    Result<Expression> condition = operation(1);
    if (!condition || !sees("?")) return condition;
    const Span word = peek().span;
    ++at_;
    Result<Expression> yes = choice();
    if (!yes) return yes;
    if (!take(":")) return unexpected("a ':' and what holds otherwise");
    Result<Expression> no = choice();
    if (!no) return no;
    const Span span = cover(condition->span, no->span);
    return node(ExpressionKind::select, span, word, "?", {std::move(*condition), std::move(*yes), std::move(*no)});
}

Result<Expression> ExpressionParser::operation(int least) {
    Result<Expression> left = signed_value();
    while (left && peek().kind == TokenKind::mark && binding_strength(peek().text) >= least) {
        // Each turn wraps the tree once more, so a long row of operators is as deep as it is long.
        if (left->depth > max_nesting * 2) return too_deep();
        const Token mark = peek();
        ++at_;
        Result<Expression> right = operation(binding_strength(mark.text) + 1);
        if (!right) return right;
        const Span span = cover(left->span, right->span);
        left = node(ExpressionKind::binary, span, mark.span, std::string(mark.text),
                    {std::move(*left), std::move(*right)});
    }
    return left;
}

Result<Expression> ExpressionParser::signed_value() {
    for (const std::string_view mark : {"-", "+", "!", "~"}) {
        if (!sees(mark)) continue;
        const Deeper deeper(depth_);
        if (depth_ > max_nesting) return too_deep();
        const Span word = peek().span;
        ++at_;
        Result<Expression> operand = signed_value();
        if (!operand) return operand;
        const Span span = cover(word, operand->span);
        return node(ExpressionKind::unary, span, word, std::string(mark), {std::move(*operand)});
    }
    return postfix();
}

Result<Expression> ExpressionParser::postfix() {
    Result<Expression> value = primary();
    while (value && (sees(".") || sees("["))) {
        if (value->depth > max_nesting * 2) return too_deep();
        value = sees(".") ? field_of(std::move(*value)) : index_of(std::move(*value));
    }
    return value;
}

Result<Expression> ExpressionParser::field_of(Expression whole) {
    ++at_;
    if (peek().kind != TokenKind::name) return unexpected("the parts, such as xy");
    const Token part = next();
    const Span span = cover(whole.span, part.span);
    return node(ExpressionKind::field, span, part.span, std::string(part.text), {std::move(whole)});
}

Result<Expression> ExpressionParser::index_of(Expression whole) {
    const Deeper deeper(depth_);
    if (depth_ > max_nesting) return too_deep();
    const Span open = next().span;
    Result<Expression> number = choice();
    if (!number) return number;
    const Span close = peek().span;
    if (!take("]")) return unexpected("a ']' to close the bracket");
    const Span span = cover(whole.span, close);
    return node(ExpressionKind::index, span, cover(open, close), "[", {std::move(whole), std::move(*number)});
}

Result<Expression> ExpressionParser::primary() {
    const Token token = peek();
    if (token.kind == TokenKind::number) {
        ++at_;
        Expression number = node(ExpressionKind::number, token.span, token.span, std::string(token.text), {});
        number.value = number_value(token.text);
        number.whole = token.text.find_first_of(".eEfF") == std::string_view::npos ||
                       (token.text.size() > 1 && (token.text[1] == 'x' || token.text[1] == 'X'));
        return number;
    }
    if (token.kind == TokenKind::name) {
        ++at_;
        if (token.text == "true" || token.text == "false") {
            Expression flag = node(ExpressionKind::boolean, token.span, token.span, std::string(token.text), {});
            flag.value = token.text == "true" ? 1 : 0;
            return flag;
        }
        if (sees("(")) return call(token);
        return node(ExpressionKind::name, token.span, token.span, std::string(token.text), {});
    }
    if (sees("(")) {
        ++at_;
        Result<Expression> inner = choice();
        if (!inner) return inner;
        const Span close = peek().span;
        if (!take(")")) return unexpected("a ')' to close the bracket");
        inner->span = cover(token.span, close);
        return inner;
    }
    return unexpected("a number, a name or a call");
}

Result<Expression> ExpressionParser::call(const Token& name) {
    ++at_;
    std::vector<Expression> args;
    if (!sees(")")) {
        do {
            Result<Expression> arg = choice();
            if (!arg) return arg;
            args.push_back(std::move(*arg));
        } while (take(","));
    }
    const Span close = peek().span;
    if (!take(")")) return unexpected("a ',' or a ')'");
    return node(ExpressionKind::call, cover(name.span, close), name.span, std::string(name.text), std::move(args));
}

Result<Expression> ExpressionParser::too_deep() const {
    return fault("lang.nesting", peek().span, "the formula is nested too deep", "split it into several steps");
}

Result<Expression> parse(std::string_view source) {
    Result<std::vector<Token>> tokens = tokenize(source);
    if (!tokens) return tokens.fault();
    ExpressionParser parser(std::move(*tokens));
    if (parser.at_end()) {
        return ExpressionParser::fault("lang.empty", parser.peek().span, "the formula is empty",
                                       "write a number, a name or a call");
    }
    Result<Expression> whole = parser.expression();
    if (!whole) return whole;
    if (!parser.at_end()) return parser.unexpected("the end of the formula, or an operator");
    return whole;
}

}  // namespace lacquer
