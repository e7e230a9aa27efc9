// Expressions: GLSL ES 3.00, section 5.1.
#include <charconv>
#include <cmath>
#include <utility>

#include "core/lang/expression_parser.h"
#include "core/shader/parser.h"
#include "core/shader/refusal.h"

namespace lacquer {

ShaderNode ShaderParser::node(ShaderNodeKind kind, Span span, Span word, std::string text,
                              std::vector<ShaderNode> args) const {
    ShaderNode made{kind, span, word, std::move(text)};
    for (const ShaderNode& arg : args) made.depth = std::max(made.depth, arg.depth + 1);
    if (made.depth > 2 * max_shader_nesting)
        refuse("lang.nesting", span, "the expression is nested too deep", "keep parts of it in variables");
    made.args = std::move(args);
    return made;
}

ShaderNode ShaderParser::expression() {
    ShaderNode left = assignment();
    while (sees(",")) {
        const Span word = next().span;
        ShaderNode right = assignment();
        const Span span = cover(left.span, right.span);
        left = node(ShaderNodeKind::sequence, span, word, ",", {std::move(left), std::move(right)});
    }
    return left;
}

ShaderNode ShaderParser::assignment() {
    const Deeper deeper(*this);
    ShaderNode left = choice();
    if (peek().kind != SourceTokenKind::mark || !is_assignment(peek().text) || sees("++") || sees("--")) return left;
    const SourceToken& mark = next();
    ShaderNode right = assignment();
    const Span span = cover(left.span, right.span);
    return node(ShaderNodeKind::assign, span, mark.span, mark.text, {std::move(left), std::move(right)});
}

ShaderNode ShaderParser::choice() {
    const Deeper deeper(*this);
    ShaderNode condition = operation(1);
    if (!sees("?")) return condition;
    const Span word = next().span;
    ShaderNode yes = expression();
    expect(":", "a ':' and what holds otherwise");
    ShaderNode no = assignment();
    const Span span = cover(condition.span, no.span);
    return node(ShaderNodeKind::select, span, word, "?", {std::move(condition), std::move(yes), std::move(no)});
}

ShaderNode ShaderParser::operation(int least) {
    ShaderNode left = signed_value();
    while (peek().kind == SourceTokenKind::mark && binding_strength(peek().text) >= least) {
        const SourceToken& mark = next();
        ShaderNode right = operation(binding_strength(mark.text) + 1);
        const Span span = cover(left.span, right.span);
        left = node(ShaderNodeKind::binary, span, mark.span, mark.text, {std::move(left), std::move(right)});
    }
    return left;
}

ShaderNode ShaderParser::signed_value() {
    for (const std::string_view mark : {"-", "+", "!", "~", "++", "--"}) {
        if (!sees(mark)) continue;
        const Deeper deeper(*this);
        const Span word = next().span;
        ShaderNode operand = signed_value();
        const Span span = cover(word, operand.span);
        const auto kind = mark.size() == 2 ? ShaderNodeKind::before : ShaderNodeKind::unary;
        return node(kind, span, word, std::string(mark), {std::move(operand)});
    }
    return postfix();
}

ShaderNode ShaderParser::postfix() {
    ShaderNode value = primary();
    while (true) {
        if (sees(".")) {
            value = field_of(std::move(value));
        } else if (sees("[")) {
            const Span open = next().span;
            ShaderNode number = expression();
            const Span close = peek().span;
            expect("]", "a ']' to close the bracket");
            const Span span = cover(value.span, close);
            value = node(ShaderNodeKind::index, span, cover(open, close), "[", {std::move(value), std::move(number)});
        } else if (sees("++") || sees("--")) {
            const SourceToken& mark = next();
            const Span span = cover(value.span, mark.span);
            value = node(ShaderNodeKind::after, span, mark.span, mark.text, {std::move(value)});
        } else {
            return value;
        }
    }
}

ShaderNode ShaderParser::field_of(ShaderNode whole) {
    ++at_;
    if (peek().kind != SourceTokenKind::name) unexpected("the parts, such as xy");
    const SourceToken& part = next();
    Span span = cover(whole.span, part.span);
    if (part.text == "length" && sees("(")) {
        ++at_;
        span = cover(span, peek().span);
        expect(")", "a ')'");
        return node(ShaderNodeKind::length, span, part.span, part.text, {std::move(whole)});
    }
    return node(ShaderNodeKind::field, span, part.span, part.text, {std::move(whole)});
}

ShaderNode ShaderParser::number(const SourceToken& token) const {
    ShaderNode made = node(ShaderNodeKind::number, token.span, token.span, token.text, {});
    std::string_view text = token.text;
    const bool hexadecimal = text.size() > 1 && (text[1] == 'x' || text[1] == 'X');
    if (!hexadecimal && text.find_first_of(".eEfF") != std::string_view::npos) {
        if (text.back() == 'f' || text.back() == 'F') text.remove_suffix(1);
        const auto [end, problem] = std::from_chars(text.data(), text.data() + text.size(), made.value);
        // Beyond the range of numbers: too small is 0, too large is infinite.
        if (problem == std::errc::result_out_of_range) {
            const bool is_small =
                text.find("e-") != std::string_view::npos || text.find("E-") != std::string_view::npos;
            made.value = is_small ? 0 : 1e39;
        }
        return made;
    }
    made.scalar = Scalar::whole;
    if (text.back() == 'u' || text.back() == 'U') {
        made.scalar = Scalar::natural;
        text.remove_suffix(1);
    }
    const int base = hexadecimal ? 16 : text.size() > 1 && text[0] == '0' ? 8 : 10;
    if (hexadecimal) text.remove_prefix(2);
    std::uint64_t whole = 0;
    const auto [end, problem] = std::from_chars(text.data(), text.data() + text.size(), whole, base);
    if (problem != std::errc() || whole > 0xFFFFFFFFULL)
        refuse("lang.number", token.span, "'" + token.text + "' does not fit into 32 bits", "write a smaller number");
    // A literal names bits: 0xFFFFFFFF is -1.
    made.value = made.scalar == Scalar::natural ? static_cast<double>(whole)
                                                : static_cast<double>(static_cast<std::int32_t>(whole));
    return made;
}

ShaderNode ShaderParser::primary() {
    const SourceToken& token = peek();
    if (token.kind == SourceTokenKind::number) {
        ++at_;
        return number(token);
    }
    if (token.is_word("true") || token.is_word("false")) {
        ++at_;
        ShaderNode flag = node(ShaderNodeKind::truth, token.span, token.span, token.text, {});
        flag.value = token.text == "true" ? 1 : 0;
        return flag;
    }
    if (take("(")) {
        const Deeper deeper(*this);
        ShaderNode inner = expression();
        inner.span = cover(token.span, peek().span);
        expect(")", "a ')' to close the bracket");
        return inner;
    }
    if (token.kind != SourceTokenKind::name) unexpected("a number, a name or a call");
    if (sees("(", 1)) {
        ++at_;
        return call(token);
    }
    if (sees_type() && sees("[", 1)) {
        ++at_;
        std::vector<ShaderNode> size;
        brackets(size);
        if (!sees("(")) unexpected("a '(' and the array's values");
        ShaderNode made = call(token);
        made.kind = ShaderNodeKind::array;
        made.sized = !size.empty();
        if (made.sized) made.args.insert(made.args.begin(), std::move(size[0]));
        return made;
    }
    if (is_reserved_word(token.text)) unexpected("a number, a name or a call");
    ++at_;
    return node(ShaderNodeKind::name, token.span, token.span, token.text, {});
}

std::vector<ShaderNode> ShaderParser::arguments() {
    std::vector<ShaderNode> args;
    if (sees(")")) return args;
    if (sees_word("void") && sees(")", 1)) {
        ++at_;
        return args;
    }
    do args.push_back(assignment());
    while (take(","));
    return args;
}

ShaderNode ShaderParser::call(const SourceToken& word) {
    const Deeper deeper(*this);
    expect("(", "a '('");
    std::vector<ShaderNode> args = arguments();
    const Span close = peek().span;
    expect(")", "a ',' or a ')'");
    return node(ShaderNodeKind::call, cover(word.span, close), word.span, word.text, std::move(args));
}

}  // namespace lacquer
