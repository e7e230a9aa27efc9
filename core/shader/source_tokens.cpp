#include "core/shader/source_tokens.h"

#include <array>

#include "core/lang/token.h"
#include "core/shader/refusal.h"

namespace lacquer {

namespace {

bool is_name_start(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; }
bool is_digit(char c) { return c >= '0' && c <= '9'; }
bool is_name_part(char c) { return is_name_start(c) || is_digit(c); }

// Longest first, so that "<=" is not read as "<". GLSL ES 3.00, section 3.7.
constexpr std::array<std::string_view, 47> marks = {
    "<<=", ">>=", "<<", ">>", "<=", ">=", "==", "!=", "&&", "||", "^^", "++", "--", "+=", "-=", "*=",
    "/=",  "%=",  "&=", "|=", "^=", "(",  ")",  ",",  ".",  "?",  ":",  "+",  "-",  "*",  "/",  "%",
    "<",   ">",   "!",  "~",  "&",  "|",  "^",  "=",  ";",  "{",  "}",  "[",  "]",  "#",  "\\"};

class SourceLexer {
public:
    explicit SourceLexer(std::string_view text) : text_(text) {}

    std::vector<SourceToken> run() {
        if (text_.size() > max_shader_length)
            refuse("lang.too-long", {0, 0}, "the shader is longer than 262,144 characters",
                   "take out what is not used");
        while (true) {
            skip_blanks();
            if (at_ >= text_.size()) break;
            next();
        }
        tokens_.push_back({SourceTokenKind::line, "\n", {size(), size()}});
        tokens_.push_back({SourceTokenKind::end, {}, {size(), size()}});
        return std::move(tokens_);
    }

private:
    std::uint32_t size() const { return static_cast<std::uint32_t>(text_.size()); }
    char peek(std::size_t ahead = 0) const { return at_ + ahead < text_.size() ? text_[at_ + ahead] : '\0'; }

    // How many characters at `at_ + ahead` end a line; 0 if they do not.
    std::size_t line_end(std::size_t ahead = 0) const {
        if (peek(ahead) == '\n') return 1;
        if (peek(ahead) != '\r') return 0;
        return peek(ahead + 1) == '\n' ? 2 : 1;
    }

    void skip_blanks() {
        while (at_ < text_.size()) {
            const char c = peek();
            if (c == ' ' || c == '\t' || c == '\v' || c == '\f') {
                ++at_;
            } else if (c == '\\' && line_end(1) > 0) {
                at_ += 1 + line_end(1);
            } else if (c == '/' && peek(1) == '/') {
                skip_line_remark();
            } else if (c == '/' && peek(1) == '*') {
                const std::size_t close = text_.find("*/", at_ + 2);
                if (close == std::string_view::npos)
                    refuse("lang.comment", {static_cast<std::uint32_t>(at_), size()}, "this remark is never closed",
                           "close it with */");
                at_ = close + 2;
            } else {
                return;
            }
            is_spaced_ = true;
        }
    }

    void skip_line_remark() {
        while (at_ < text_.size() && line_end() == 0) at_ += peek() == '\\' && line_end(1) > 0 ? 1 + line_end(1) : 1;
    }

    void add(SourceTokenKind kind, std::size_t begin) {
        tokens_.push_back({kind,
                           std::string(text_.substr(begin, at_ - begin)),
                           {static_cast<std::uint32_t>(begin), static_cast<std::uint32_t>(at_)},
                           is_spaced_});
        is_spaced_ = false;
    }

    void next() {
        const std::size_t begin = at_;
        if (const std::size_t end = line_end(); end > 0) {
            at_ += end;
            return add(SourceTokenKind::line, begin);
        }
        if (is_name_start(peek())) {
            while (is_name_part(peek())) ++at_;
            return add(SourceTokenKind::name, begin);
        }
        if (is_digit(peek()) || (peek() == '.' && is_digit(peek(1)))) {
            const SpelledNumber spelled = spelled_number(text_.substr(begin));
            at_ += spelled.length;
            return add(spelled.good ? SourceTokenKind::number : SourceTokenKind::odd, begin);
        }
        for (const std::string_view mark : marks) {
            if (text_.substr(at_, mark.size()) != mark) continue;
            at_ += mark.size();
            return add(SourceTokenKind::mark, begin);
        }
        ++at_;
        while (at_ < text_.size() && (static_cast<unsigned char>(text_[at_]) & 0xC0U) == 0x80U) ++at_;
        add(SourceTokenKind::odd, begin);
    }

    std::string_view text_;
    std::size_t at_ = 0;
    bool is_spaced_ = false;
    std::vector<SourceToken> tokens_;
};

}  // namespace

std::vector<SourceToken> source_tokens(std::string_view text) { return SourceLexer(text).run(); }

}  // namespace lacquer
