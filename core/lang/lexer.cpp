#include <array>
#include <cctype>

#include "core/lang/token.h"

namespace lacquer {

namespace {

bool is_name_start(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; }
bool is_digit(char c) { return c >= '0' && c <= '9'; }
bool is_name_part(char c) { return is_name_start(c) || is_digit(c); }

// Longest first, so that "<=" is not read as "<".
constexpr std::array<std::string_view, 46> marks = {
    "<<=", ">>=", "<<", ">>", "<=", ">=", "==", "!=", "&&", "||", "^^", "++", "--", "+=", "-=", "*=",
    "/=",  "%=",  "&=", "|=", "^=", "(",  ")",  ",",  ".",  "?",  ":",  "+",  "-",  "*",  "/",  "%",
    "<",   ">",   "!",  "~",  "&",  "|",  "^",  "=",  ";",  "{",  "}",  "[",  "]",  "#"};

class Lexer {
public:
    explicit Lexer(std::string_view source) : source_(source) {}

    Result<std::vector<Token>> run() {
        if (source_.size() > max_formula_length) {
            return fault("lang.too-long", {0, 0}, "the formula is longer than 65,536 characters",
                         "split it into several steps");
        }
        std::vector<Token> tokens;
        for (;;) {
            if (auto skipped = skip_blanks(); !skipped) return skipped.fault();
            if (at_ >= source_.size()) break;
            Result<Token> token = next();
            if (!token) return token.fault();
            tokens.push_back(*token);
        }
        tokens.push_back({TokenKind::end, {}, {size(), size()}});
        return tokens;
    }

private:
    static Fault fault(const char* id, Span span, std::string message, std::string mend) {
        return {id, std::move(message), std::move(mend), {{}, span, 0, 0}, Severity::fault};
    }
    std::uint32_t size() const { return static_cast<std::uint32_t>(source_.size()); }
    char peek(std::size_t ahead = 0) const { return at_ + ahead < source_.size() ? source_[at_ + ahead] : '\0'; }
    Span span_from(std::size_t begin) const {
        return {static_cast<std::uint32_t>(begin), static_cast<std::uint32_t>(at_)};
    }
    Token token(TokenKind kind, std::size_t begin) const {
        return {kind, source_.substr(begin, at_ - begin), span_from(begin)};
    }

    Result<Done> skip_blanks() {
        for (;;) {
            const char c = peek();
            if (c == ' ' || c == '\t' || c == '\n' || c == '\r') {
                ++at_;
            } else if (c == '/' && peek(1) == '/') {
                while (at_ < source_.size() && source_[at_] != '\n') ++at_;
            } else if (c == '/' && peek(1) == '*') {
                const std::size_t close = source_.find("*/", at_ + 2);
                if (close == std::string_view::npos) {
                    return fault("lang.comment", {static_cast<std::uint32_t>(at_), size()},
                                 "this remark is never closed", "close it with */");
                }
                at_ = close + 2;
            } else {
                return Done{};
            }
        }
    }

    Result<Token> next() {
        const std::size_t begin = at_;
        if (is_name_start(peek())) {
            while (is_name_part(peek())) ++at_;
            return token(TokenKind::name, begin);
        }
        if (is_digit(peek()) || (peek() == '.' && is_digit(peek(1)))) return number();
        for (const std::string_view mark : marks) {
            if (mark[0] == source_[at_] && source_.substr(at_, mark.size()) == mark) {
                at_ += mark.size();
                return token(TokenKind::mark, begin);
            }
        }
        return odd_character();
    }

    Result<Token> number() {
        const std::size_t begin = at_;
        const SpelledNumber spelled = spelled_number(source_.substr(begin));
        at_ += spelled.length;
        if (spelled.good) return token(TokenKind::number, begin);
        return fault("lang.number", span_from(begin),
                     "'" + std::string(source_.substr(begin, at_ - begin)) + "' is not a number",
                     "write it like 0.5, 12 or 1e-3; a name starts with a letter");
    }

    Result<Token> odd_character() {
        const std::size_t begin = at_++;
        while (at_ < source_.size() && (static_cast<unsigned char>(source_[at_]) & 0xC0U) == 0x80U) ++at_;
        const std::string_view odd = source_.substr(begin, at_ - begin);
        const bool printable = odd.size() > 1 || (odd[0] >= 0x20 && odd[0] < 0x7F);
        return fault("lang.character", span_from(begin),
                     printable ? "'" + std::string(odd) + "' means nothing here"
                               : "there is a character here that cannot be seen",
                     "take it out");
    }

    std::string_view source_;
    std::size_t at_ = 0;
};

}  // namespace

SpelledNumber spelled_number(std::string_view text) {
    std::size_t at = 0;
    const auto peek = [&](std::size_t ahead = 0) { return at + ahead < text.size() ? text[at + ahead] : '\0'; };
    const auto skip_digits = [&] {
        while (is_digit(peek())) ++at;
    };
    bool good = true;
    if (peek() == '0' && (peek(1) == 'x' || peek(1) == 'X')) {
        at += 2;
        const std::size_t digits = at;
        while (std::isxdigit(static_cast<unsigned char>(peek())) != 0) ++at;
        good = at > digits;
        if (peek() == 'u' || peek() == 'U') ++at;
    } else {
        bool whole = true;
        skip_digits();
        if (peek() == '.') {
            whole = false;
            ++at;
            skip_digits();
        }
        const std::size_t sign = peek(1) == '+' || peek(1) == '-' ? 1 : 0;
        if ((peek() == 'e' || peek() == 'E') && is_digit(peek(1 + sign))) {
            whole = false;
            at += 1 + sign;
            skip_digits();
        }
        const bool octal = whole && at > 1 && text[0] == '0';
        good = !octal || text.substr(0, at).find_first_of("89") == std::string_view::npos;
        if (whole ? peek() == 'u' || peek() == 'U' : peek() == 'f' || peek() == 'F') ++at;
    }
    if (is_name_part(peek())) good = false;
    while (is_name_part(peek())) ++at;
    return {at, good};
}

Result<std::vector<Token>> tokenize(std::string_view source) { return Lexer(source).run(); }

}  // namespace lacquer
