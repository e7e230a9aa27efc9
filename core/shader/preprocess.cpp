#include "core/shader/preprocess.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cstdint>
#include <limits>
#include <map>
#include <optional>
#include <utility>

#include "core/shader/refusal.h"

namespace lacquer {

namespace {

struct Macro {
    bool takes_arguments = false;
    std::vector<std::string> parameters;
    std::vector<SourceToken> body;
};

bool came_out_of(const SourceToken& token, const std::string& macro) {
    for (const MacroTrail* trail = token.from.get(); trail != nullptr; trail = trail->outer.get()) {
        if (trail->name == macro) return true;
    }
    return false;
}

bool are_alike(const Macro& a, const Macro& b) {
    return a.takes_arguments == b.takes_arguments && a.parameters == b.parameters &&
           std::equal(a.body.begin(), a.body.end(), b.body.begin(), b.body.end(),
                      [](const SourceToken& x, const SourceToken& y) { return x.kind == y.kind && x.text == y.text; });
}

class Preprocessor {
public:
    explicit Preprocessor(std::string_view text) : tokens_(source_tokens(text)) {
        for (const auto& [name, value] :
             std::initializer_list<std::pair<const char*, const char*>>{{"GL_ES", "1"},
                                                                        {"__VERSION__", "300"},
                                                                        {"GL_FRAGMENT_PRECISION_HIGH", "1"},
                                                                        {"GL_OES_standard_derivatives", "1"},
                                                                        {"GL_EXT_shader_texture_lod", "1"}})
            macros_[name].body = {{SourceTokenKind::number, value, {}}};
    }

    PreprocessedShader run() {
        std::vector<SourceToken> plain;
        while (tokens_[at_].kind != SourceTokenKind::end) {
            std::vector<SourceToken> line = take_line();
            if (!line.empty() && line[0].is("#")) {
                write_out(std::exchange(plain, {}));
                directive(line);
            } else if (is_active()) {
                plain.insert(plain.end(), line.begin(), line.end());
            }
        }
        write_out(std::move(plain));
        if (!branches_.empty())
            refuse("shader.directive", branches_.back().span, "this #if is never ended", "end it with #endif");
        made_.tokens.push_back(tokens_[at_]);
        return std::move(made_);
    }

private:
    struct Branch {
        Span span;
        bool outside = true;  // whether what stands around it is read at all
        bool active = false;
        bool was_taken = false;
        bool had_else = false;
    };

    bool is_active() const { return branches_.empty() || branches_.back().active; }

    std::vector<SourceToken> take_line() {
        std::vector<SourceToken> line;
        while (tokens_[at_].kind != SourceTokenKind::line) line.push_back(tokens_[at_++]);
        ++at_;
        ++line_number_;
        return line;
    }

    // Macros: by Prosser's algorithm, as the C standard (ISO/IEC 9899:1999, 6.10.3) has it, without # and ##.

    void write_out(std::vector<SourceToken> tokens) {
        std::vector<SourceToken> all = expanded(std::move(tokens));
        made_.tokens.insert(made_.tokens.end(), std::make_move_iterator(all.begin()),
                            std::make_move_iterator(all.end()));
        if (made_.tokens.size() > max_shader_tokens) too_much(made_.tokens.back().span);
    }

    [[noreturn]] static void too_much(Span span) {
        refuse("shader.macro", span, "with its macros written out, the shader is too long",
               "write functions in place of macros");
    }

    std::vector<SourceToken> expanded(std::vector<SourceToken> tokens) {
        std::reverse(tokens.begin(), tokens.end());  // what comes next is the last
        std::vector<SourceToken> done;
        while (!tokens.empty()) {
            SourceToken token = std::move(tokens.back());
            tokens.pop_back();
            if (++work_ > 4 * max_shader_tokens) too_much(token.span);
            if (token.is_word("__LINE__")) {
                done.push_back({SourceTokenKind::number, std::to_string(line_number_), token.span, token.is_spaced});
                continue;
            }
            const auto found = token.kind == SourceTokenKind::name ? macros_.find(token.text) : macros_.end();
            if (found == macros_.end() || came_out_of(token, token.text) ||
                !use(found->first, found->second, token, tokens))
                done.push_back(std::move(token));
        }
        return done;
    }

    // Puts what a macro stands for before what comes next; false where it is a name without the brackets it needs.
    bool use(const std::string& name, const Macro& macro, const SourceToken& word, std::vector<SourceToken>& next) {
        std::map<std::string, std::vector<SourceToken>, std::less<>> arguments;
        if (macro.takes_arguments) {
            if (next.empty() || !next.back().is("(")) return false;
            arguments = arguments_of(name, macro, word, next);
        }
        std::vector<SourceToken> body;
        const auto trail = std::make_shared<const MacroTrail>(MacroTrail{name, word.from});
        for (const SourceToken& token : macro.body) {
            const auto argument = token.kind == SourceTokenKind::name ? arguments.find(token.text) : arguments.end();
            if (argument != arguments.end()) {
                body.insert(body.end(), argument->second.begin(), argument->second.end());
            } else {
                body.push_back({token.kind, token.text, word.span, token.is_spaced, trail});
            }
            if (body.size() > max_shader_tokens) too_much(word.span);
        }
        work_ += body.size();
        next.insert(next.end(), std::make_move_iterator(body.rbegin()), std::make_move_iterator(body.rend()));
        return true;
    }

    std::map<std::string, std::vector<SourceToken>, std::less<>> arguments_of(const std::string& name,
                                                                              const Macro& macro,
                                                                              const SourceToken& word,
                                                                              std::vector<SourceToken>& next) {
        next.pop_back();
        std::vector<std::vector<SourceToken>> given(1);
        int depth = 0;
        while (true) {
            if (next.empty())
                refuse("shader.macro", word.span, "the brackets after '" + name + "' are never closed", "add a ')'");
            SourceToken token = std::move(next.back());
            next.pop_back();
            if (token.is("(")) ++depth;
            if (token.is(")") && depth-- == 0) break;
            if (token.is(",") && depth == 0) {
                given.emplace_back();
                continue;
            }
            given.back().push_back(std::move(token));
        }
        if (macro.parameters.empty() && given.size() == 1 && given[0].empty()) given.clear();
        if (given.size() != macro.parameters.size())
            refuse("shader.macro", word.span,
                   "the macro '" + name + "' takes " + std::to_string(macro.parameters.size()) + ", and here are " +
                       std::to_string(given.size()),
                   "hand it as many as it names");
        std::map<std::string, std::vector<SourceToken>, std::less<>> arguments;
        if (++nesting_ > 200) too_much(word.span);
        for (std::size_t k = 0; k < given.size(); ++k) arguments[macro.parameters[k]] = expanded(std::move(given[k]));
        --nesting_;
        return arguments;
    }

    // Directives.

    void directive(const std::vector<SourceToken>& line) {
        if (line.size() == 1) return;
        const SourceToken& word = line[1];
        const std::vector<SourceToken> rest(line.begin() + 2, line.end());
        if (word.is_word("if") || word.is_word("ifdef") || word.is_word("ifndef")) return begin_branch(word, rest);
        if (word.is_word("elif") || word.is_word("else")) return other_branch(word, rest);
        if (word.is_word("endif")) {
            if (branches_.empty()) refuse("shader.directive", word.span, "there is no #if before this", "take it out");
            branches_.pop_back();
            return;
        }
        if (!is_active()) return;
        if (word.is_word("define")) return define(word, rest);
        if (word.is_word("undef")) {
            const std::string& name = name_after(word, rest).text;
            if (is_kept(name)) refuse("shader.directive", rest[0].span, "'" + name + "' stays as it is", "take it out");
            macros_.erase(name);
            return;
        }
        if (word.is_word("version")) return version(word, rest);
        if (word.is_word("extension")) return extension(word, rest);
        if (word.is_word("pragma") || word.is_word("line")) return;
        if (word.is_word("error")) {
            std::string words;
            for (const SourceToken& token : rest) words += (words.empty() ? "" : " ") + token.text;
            refuse("shader.directive", word.span, "the shader itself says: " + words, "");
        }
        refuse("shader.directive", word.span, "'#" + word.text + "' is no directive", "take it out");
    }

    static const SourceToken& name_after(const SourceToken& word, const std::vector<SourceToken>& rest) {
        if (rest.empty() || rest[0].kind != SourceTokenKind::name)
            refuse("shader.directive", word.span, "#" + word.text + " needs a name", "write one after it");
        return rest[0];
    }

    static bool is_kept(const std::string& name) {
        return name == "__LINE__" || name == "__FILE__" || name == "__VERSION__" || name == "defined" ||
               name.starts_with("GL_");
    }

    void define(const SourceToken& word, const std::vector<SourceToken>& rest) {
        const SourceToken& name = name_after(word, rest);
        if (is_kept(name.text))
            refuse("shader.macro", name.span, "a macro cannot be called '" + name.text + "'", "give it another name");
        Macro macro;
        std::size_t at = 1;
        if (at < rest.size() && rest[at].is("(") && !rest[at].is_spaced) at = parameters(macro, rest, at);
        macro.body.assign(rest.begin() + static_cast<std::ptrdiff_t>(at), rest.end());
        const auto known = macros_.find(name.text);
        if (known != macros_.end() && !are_alike(known->second, macro))
            refuse("shader.macro", name.span, "the macro '" + name.text + "' is there already, and is another",
                   "write #undef " + name.text + " before it");
        macros_[name.text] = std::move(macro);
    }

    static std::size_t parameters(Macro& macro, const std::vector<SourceToken>& rest, std::size_t at) {
        macro.takes_arguments = true;
        ++at;
        const Span span = rest[0].span;
        if (at < rest.size() && rest[at].is(")")) return at + 1;
        while (true) {
            if (at >= rest.size() || rest[at].kind != SourceTokenKind::name)
                refuse("shader.macro", span, "what the macro takes is not written out", "write (a, b)");
            if (std::find(macro.parameters.begin(), macro.parameters.end(), rest[at].text) != macro.parameters.end())
                refuse("shader.macro", rest[at].span, "the macro takes '" + rest[at].text + "' twice",
                       "give one of them another name");
            macro.parameters.push_back(rest[at++].text);
            if (at < rest.size() && rest[at].is(")")) return at + 1;
            if (at >= rest.size() || !rest[at].is(","))
                refuse("shader.macro", span, "the brackets of the macro are never closed", "add a ')'");
            ++at;
        }
    }

    void version(const SourceToken& word, const std::vector<SourceToken>& rest) {
        static constexpr std::array<std::string_view, 14> known = {"100", "110", "120", "130", "140", "150", "300",
                                                                   "310", "320", "330", "400", "410", "420", "450"};
        if (rest.empty() || std::find(known.begin(), known.end(), rest[0].text) == known.end())
            refuse("shader.directive", word.span, "there is no such version", "write #version 300 es");
        if (!made_.tokens.empty())
            refuse("shader.directive", word.span, "#version stands before everything else",
                   "move it to the first line");
        if (rest[0].text != "300")
            note(rest[0].span, "version " + rest[0].text + " is read as 300 es",
                 "look whether it draws what it should");
    }

    void extension(const SourceToken& word, const std::vector<SourceToken>& rest) {
        if (rest.size() != 3 || rest[0].kind != SourceTokenKind::name || !rest[1].is(":"))
            refuse("shader.directive", word.span, "#extension needs a name and what to do with it",
                   "write #extension name : enable");
        const std::string& wish = rest[2].text;
        if (macros_.contains(rest[0].text)) return;
        if (wish == "require" || (rest[0].text == "all" && (wish == "enable" || wish == "require")))
            refuse("shader.directive", rest[0].span, "there is no extension '" + rest[0].text + "' here",
                   "write enable, if it does without");
        if (wish != "enable" && wish != "warn" && wish != "disable")
            refuse("shader.directive", rest[2].span, "'" + wish + "' is nothing to do with an extension",
                   "write enable, warn or disable");
        if (wish != "disable") note(rest[0].span, "the extension '" + rest[0].text + "' has no effect here", "");
    }

    void note(Span span, std::string message, std::string mend) {
        made_.notes.push_back(
            {"shader.note", std::move(message), std::move(mend), {{}, span, 0, 0}, Severity::warning});
    }

    void begin_branch(const SourceToken& word, const std::vector<SourceToken>& rest) {
        Branch branch;
        branch.span = word.span;
        branch.outside = is_active();
        if (branches_.size() > 100) refuse("shader.directive", word.span, "there are too many #if within others", "");
        if (branch.outside) {
            branch.active = word.is_word("if") ? condition(word, rest)
                                               : macros_.contains(name_after(word, rest).text) == word.is_word("ifdef");
        }
        branch.was_taken = branch.active;
        branches_.push_back(branch);
    }

    void other_branch(const SourceToken& word, const std::vector<SourceToken>& rest) {
        if (branches_.empty() || branches_.back().had_else)
            refuse("shader.directive", word.span, "there is no #if for this #" + word.text, "take it out");
        Branch& branch = branches_.back();
        branch.had_else = word.is_word("else");
        branch.active = branch.outside && !branch.was_taken && (branch.had_else || condition(word, rest));
        branch.was_taken = branch.was_taken || branch.active;
    }

    // Whether an #if holds.
    bool condition(const SourceToken& word, const std::vector<SourceToken>& rest) {
        std::vector<SourceToken> known;
        for (std::size_t k = 0; k < rest.size(); ++k) {
            if (!rest[k].is_word("defined")) {
                known.push_back(rest[k]);
                continue;
            }
            const bool brackets = k + 1 < rest.size() && rest[k + 1].is("(");
            const std::size_t at = k + (brackets ? 2 : 1);
            if (at >= rest.size() || rest[at].kind != SourceTokenKind::name ||
                (brackets && (at + 1 >= rest.size() || !rest[at + 1].is(")"))))
                refuse("shader.directive", rest[k].span, "'defined' needs a name", "write defined(NAME)");
            known.push_back(
                {SourceTokenKind::number, macros_.contains(rest[at].text) ? "1" : "0", rest[at].span, true});
            k = at + (brackets ? 1 : 0);
        }
        condition_ = expanded(std::move(known));
        next_ = 0;
        if (condition_.empty())
            refuse("shader.directive", word.span, "#" + word.text + " needs a condition", "write one after it");
        const std::int64_t value = operation(1, true);
        if (next_ < condition_.size())
            refuse("shader.directive", condition_[next_].span, "'" + condition_[next_].text + "' was not expected here",
                   "take it out");
        return value != 0;
    }

    bool takes(std::string_view mark) {
        if (next_ >= condition_.size() || !condition_[next_].is(mark)) return false;
        ++next_;
        return true;
    }

    static int strength(std::string_view mark) {
        static constexpr std::array<std::pair<std::string_view, int>, 18> rows = {{{"||", 1},
                                                                                   {"&&", 2},
                                                                                   {"|", 3},
                                                                                   {"^", 4},
                                                                                   {"&", 5},
                                                                                   {"==", 6},
                                                                                   {"!=", 6},
                                                                                   {"<", 7},
                                                                                   {">", 7},
                                                                                   {"<=", 7},
                                                                                   {">=", 7},
                                                                                   {"<<", 8},
                                                                                   {">>", 8},
                                                                                   {"+", 9},
                                                                                   {"-", 9},
                                                                                   {"*", 10},
                                                                                   {"/", 10},
                                                                                   {"%", 10}}};
        for (const auto& [known, strength] : rows) {
            if (known == mark) return strength;
        }
        return 0;
    }

    // `matters` is false behind && and || where the first side has decided: faults of values do not count there.
    std::int64_t operation(int least, bool matters) {
        std::int64_t left = single(matters);
        while (next_ < condition_.size() && condition_[next_].kind == SourceTokenKind::mark &&
               strength(condition_[next_].text) >= least) {
            const SourceToken mark = condition_[next_++];
            const bool decided = (mark.text == "&&" && left == 0) || (mark.text == "||" && left != 0);
            const std::int64_t right = operation(strength(mark.text) + 1, matters && !decided);
            left = joined(mark, left, right, matters && !decided);
        }
        return left;
    }

    static std::int64_t joined(const SourceToken& mark, std::int64_t a, std::int64_t b, bool matters) {
        const std::string& m = mark.text;
        // Whole numbers wrap around at 32 bits.
        const auto held = [](std::int64_t x) { return std::int64_t{static_cast<std::int32_t>(x & 0xFFFFFFFF)}; };
        if (m == "||") return a != 0 || b != 0 ? 1 : 0;
        if (m == "&&") return a != 0 && b != 0 ? 1 : 0;
        if (m == "|") return a | b;
        if (m == "^") return a ^ b;
        if (m == "&") return a & b;
        if (m == "==") return a == b ? 1 : 0;
        if (m == "!=") return a != b ? 1 : 0;
        if (m == "<") return a < b ? 1 : 0;
        if (m == ">") return a > b ? 1 : 0;
        if (m == "<=") return a <= b ? 1 : 0;
        if (m == ">=") return a >= b ? 1 : 0;
        if (m == "<<") return held(a << (b & 31));
        if (m == ">>") return a >> (b & 31);
        if (m == "+") return held(a + b);
        if (m == "-") return held(a - b);
        if (m == "*") return held(a * b);
        if (b == 0) {
            if (matters) refuse("shader.directive", mark.span, "nothing can be divided by 0", "divide by another");
            return 0;
        }
        return m == "/" ? held(a / b) : a % b;
    }

    std::int64_t single(bool matters) {
        if (++nesting_ > 200) too_much(condition_.back().span);
        const std::int64_t value = any_single(matters);
        --nesting_;
        return value;
    }

    std::int64_t any_single(bool matters) {
        if (takes("!")) return single(matters) == 0 ? 1 : 0;
        if (takes("-")) return -single(matters);
        if (takes("+")) return single(matters);
        if (takes("~")) return ~single(matters);
        if (takes("(")) {
            const std::int64_t inner = operation(1, matters);
            if (!takes(")"))
                refuse("shader.directive", condition_.back().span, "a bracket is never closed", "add a ')'");
            return inner;
        }
        if (next_ >= condition_.size())
            refuse("shader.directive", condition_.back().span, "the condition stops short", "write a number after it");
        const SourceToken& token = condition_[next_++];
        if (token.kind == SourceTokenKind::number) return whole_number(token);
        if (token.kind == SourceTokenKind::name && !matters) return 0;
        if (token.kind == SourceTokenKind::name)
            refuse("shader.directive", token.span, "'" + token.text + "' is no macro, so it has no value here",
                   "write defined(" + token.text + ")");
        refuse("shader.directive", token.span, "'" + token.text + "' was not expected here", "put a number here");
    }

    static std::int64_t whole_number(const SourceToken& token) {
        std::string_view digits = token.text;
        if (digits.back() == 'u' || digits.back() == 'U') digits.remove_suffix(1);
        int base = 10;
        if (digits.size() > 1 && digits[0] == '0') {
            const bool hexadecimal = digits[1] == 'x' || digits[1] == 'X';
            base = hexadecimal ? 16 : 8;
            digits.remove_prefix(hexadecimal ? 2 : 1);
        }
        std::int64_t value = 0;
        const auto [end, problem] = std::from_chars(digits.data(), digits.data() + digits.size(), value, base);
        if (problem != std::errc() || end != digits.data() + digits.size())
            refuse("shader.directive", token.span, "'" + token.text + "' is no whole number", "write a whole number");
        return value;
    }

    std::vector<SourceToken> tokens_;
    std::size_t at_ = 0;
    int line_number_ = 1;
    std::map<std::string, Macro, std::less<>> macros_;
    std::vector<Branch> branches_;
    PreprocessedShader made_;
    std::size_t work_ = 0;
    int nesting_ = 0;
    std::vector<SourceToken> condition_;  // of the #if at hand
    std::size_t next_ = 0;
};

}  // namespace

PreprocessedShader preprocess(std::string_view text) { return Preprocessor(text).run(); }

}  // namespace lacquer
