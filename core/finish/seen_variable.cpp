#include "core/finish/seen_variable.h"

#include <algorithm>
#include <optional>
#include <utility>
#include <vector>

#include "core/base/guarded.h"
#include "core/finish/edits.h"
#include "core/finish/seen_part.h"
#include "core/shader/parser.h"
#include "core/shader/preprocess.h"
#include "core/shader/refusal.h"

namespace lacquer {

namespace {

using Statements = std::vector<ShaderStatement>;

Fault cannot(std::string message, std::string mend) {
    return {"edit.extract", std::move(message), std::move(mend), {}, Severity::fault};
}

bool holds(Span span, std::uint32_t place) { return span.begin <= place && place < span.end; }

// A piece of the text to be replaced by another.
struct TextChange {
    Span span;
    std::string text;
};

std::string changed_text(std::string_view text, std::vector<TextChange> changes) {
    // What is put in at one place keeps its order.
    std::stable_sort(changes.begin(), changes.end(),
                     [](const TextChange& a, const TextChange& b) { return a.span.begin < b.span.begin; });
    std::string made;
    std::size_t done = 0;
    for (const TextChange& change : changes) {
        made += text.substr(done, change.span.begin - done);
        made += change.text;
        done = change.span.end;
    }
    return made += text.substr(done);
}

// The declaration that a name means at a place, and which part of it is looked at.
struct Meant {
    std::string declared;  ///< its type as it is written
    std::optional<SeenPart> part;

    std::string shown_type() const {
        const int width = width_of(part->type);
        return width == 1 ? "float" : "vec" + std::to_string(width);
    }
    // Whole numbers and yes or no are shown as numbers.
    std::string shown_value(const std::string& name) const {
        if (!part) return name;
        const std::string value = name + part->path;
        return scalar_of(part->type) != Scalar::real ? shown_type() + "(" + value + ")" : value;
    }
};

// What the mark stands on: a name, and what is behind it.
struct Marked {
    std::string name;
    std::uint32_t place = 0;
    std::vector<PartAccess> accesses = {};
};

class Search {
public:
    Search(const std::vector<SourceToken>& tokens, const ShaderStructs& structs, const Marked& marked, std::string seen)
        : tokens_(tokens),
          structs_(structs),
          name_(marked.name),
          place_(marked.place),
          accesses_(marked.accesses),
          seen_(std::move(seen)) {}

    void look(const ShaderSyntax& syntax, bool is_whole_shader) {
        for (const auto& item : syntax.items) {
            if (const auto* function = std::get_if<ShaderFunctionSyntax>(&item)) {
                if (holds(function->whole, place_) && function->body) look_in(*function);
                continue;
            }
            const auto& s = std::get<ShaderStatement>(item);
            if (s.whole.begin > place_) break;
            declare(s);
            if (!holds(s.whole, place_)) continue;
            // Of what is declared outside of main the value is taken where main begins.
            if (!is_whole_shader) statement(s);
            is_outside_ = is_whole_shader;
        }
    }

    const std::optional<Meant>& meant() const { return meant_; }
    bool is_outside() const { return is_outside_; }
    const std::vector<TextChange>& changes() const { return changes_; }

private:
    std::string noting() const { return " " + seen_ + " = " + (meant_ ? meant_->shown_value(name_) : name_) + ";"; }

    void look_in(const ShaderFunctionSyntax& function) {
        for (const ParameterSyntax& parameter : function.parameters) {
            if (parameter.name == name_)
                mean(parameter.type, parameter.is_array || parameter.type.is_array, parameter.span);
        }
        const Statements& body = *function.body;
        if (body.empty() || place_ < body.front().whole.begin) return before(body);
        list(body);
    }

    void declare(const ShaderStatement& s) {
        if (s.kind != ShaderStatementKind::declare) return;
        for (const Declarator& one : s.names) {
            if (one.name == name_ && one.span.begin <= place_) mean(s.type, one.is_array || s.type.is_array, one.span);
        }
    }

    // Behind the name in its own declaration stands how many there are, and no part.
    void mean(const TypeSyntax& type, bool is_array, Span declared) {
        const bool is_declared_here = declared.begin == place_;
        meant_ = Meant{is_array ? type.name + "[]" : type.name,
                       seen_part(structs_, type, is_array, is_declared_here ? std::vector<PartAccess>() : accesses_)};
    }

    void list(const Statements& all) {
        for (const ShaderStatement& s : all) {
            if (s.whole.begin > place_) return;
            declare(s);
            if (holds(s.whole, place_)) return statement(s);
        }
    }

    static bool covers(const Statements& body, std::uint32_t place) {
        return !body.empty() && body.front().whole.begin <= place && place < body.back().whole.end;
    }

    void statement(const ShaderStatement& s) {
        for (const ShaderStatement& head : s.first) declare(head);
        if (covers(s.body, place_)) return list(s.body);
        if (covers(s.otherwise, place_)) return list(s.otherwise);
        switch (s.kind) {
            case ShaderStatementKind::loop:
                return before(s.body);
            case ShaderStatementKind::loop_after:
                return s.body.empty() ? void() : after(s.body.back());
            case ShaderStatementKind::branch:
            case ShaderStatementKind::choose:
            case ShaderStatementKind::give_back:
                return before({s});
            case ShaderStatementKind::declare:
            case ShaderStatementKind::compute:
                return after(s);
            default:
                return;
        }
    }

    // Whether a statement stands by itself behind an if or a loop's head.
    bool stands_alone(const ShaderStatement& s) const {
        const SourceToken* last = nullptr;
        for (const SourceToken& token : tokens_) {
            if (token.span.begin >= s.whole.begin) break;
            last = &token;
        }
        return last != nullptr && (last->is(")") || last->is_word("else") || last->is_word("do"));
    }

    void before(const Statements& body) {
        if (body.empty()) return;
        const ShaderStatement& s = body.front();
        if (stands_alone(s)) return wrap(s, true);
        changes_.push_back({{s.whole.begin, s.whole.begin}, noting().substr(1) + " "});
    }

    void after(const ShaderStatement& s) {
        if (stands_alone(s)) return wrap(s, false);
        changes_.push_back({{s.whole.end, s.whole.end}, noting()});
    }

    void wrap(const ShaderStatement& s, bool first) {
        changes_.push_back({{s.whole.begin, s.whole.begin}, first ? "{" + noting() + " " : "{ "});
        changes_.push_back({{s.whole.end, s.whole.end}, first ? " }" : noting() + " }"});
    }

    const std::vector<SourceToken>& tokens_;  // what the directives have left
    const ShaderStructs& structs_;
    std::string name_;
    std::uint32_t place_;
    std::vector<PartAccess> accesses_;
    std::string seen_;
    std::optional<Meant> meant_;
    bool is_outside_ = false;
    std::vector<TextChange> changes_;
};

// Of a part, the variable that it belongs to.
std::optional<Marked> marked_at(const std::vector<SourceToken>& tokens, std::uint32_t place) {
    for (std::size_t k = 0; k < tokens.size(); ++k) {
        const SourceToken& token = tokens[k];
        const bool is_at = token.span.begin <= place && place <= token.span.end;
        if (token.kind != SourceTokenKind::name || !is_at) continue;
        const std::size_t root = root_of(tokens, k);
        return Marked{tokens[root].text, tokens[root].span.begin, accesses_behind(tokens, root, k)};
    }
    return std::nullopt;
}

std::string unused(const std::vector<SourceToken>& tokens, const std::string& wanted) {
    const auto is_used = [&](const std::string& name) {
        return std::any_of(tokens.begin(), tokens.end(), [&](const SourceToken& t) { return t.text == name; });
    };
    std::string name = wanted;
    for (int k = 2; is_used(name); ++k) name = wanted + std::to_string(k);
    return name;
}

// All that the step's own statements give back is computed all the same: it may call what sets the variable.
void give_seen(std::string_view text, const Statements& all, const std::string& seen,
               std::vector<TextChange>& changes) {
    constexpr std::string_view word = "return";
    for (const ShaderStatement& s : all) {
        const bool as_written = text.substr(s.whole.begin, word.size()) == word;
        if (s.kind == ShaderStatementKind::give_back && !s.nodes.empty() && as_written) {
            const auto behind = static_cast<std::uint32_t>(s.whole.begin + word.size());
            const bool is_closed = text[s.whole.end - 1] == ';';
            changes.push_back({{s.whole.begin, behind}, "{"});
            changes.push_back({{s.whole.end, s.whole.end}, (is_closed ? " return " : "; return ") + seen + "; }"});
        }
        give_seen(text, s.body, seen, changes);
        give_seen(text, s.otherwise, seen, changes);
    }
}

// Where variables may be declared first: behind what is said of precision.
std::uint32_t first_place(const ShaderSyntax& syntax) {
    for (const auto& item : syntax.items) {
        const auto* s = std::get_if<ShaderStatement>(&item);
        if (s == nullptr || s->kind != ShaderStatementKind::nothing)
            return std::visit([](const auto& any) { return any.whole.begin; }, item);
    }
    return 0;
}

// The output by an older name, where there is no other.
constexpr std::string_view old_output = "gl_FragColor";

}  // namespace

Result<SeenVariable> seen_variable(std::string_view code, std::uint32_t place) {
    return guarded([&]() -> Result<SeenVariable> {
        try {
            const std::vector<SourceToken> tokens = source_tokens(code);
            const std::optional<Marked> marked = marked_at(tokens, place);
            if (!marked) return cannot("there is no name here", "put the mark on a variable's name");
            const std::string& name = marked->name;
            const PreprocessedShader prepared = preprocess(code);
            const ShaderSyntax syntax = ShaderParser(prepared.tokens).shader();
            const ShaderFunctionSyntax* main = nullptr;
            const ShaderStatement* output = nullptr;
            for (const auto& item : syntax.items) {
                if (const auto* function = std::get_if<ShaderFunctionSyntax>(&item)) {
                    if (function->name == "main" && function->body) main = function;
                } else if (const auto& s = std::get<ShaderStatement>(item); s.storage == Storage::output) {
                    output = &s;
                }
            }
            const std::string seen = unused(tokens, "seen_" + name);
            const ShaderStructs structs = structs_of(syntax);
            Search search(prepared.tokens, structs, *marked, seen);
            search.look(syntax, main != nullptr);
            if (!search.meant())
                return cannot("'" + name + "' isn't a variable of this code", "put the mark on a variable's name");
            const Meant& meant = *search.meant();
            if (!meant.part)
                return cannot("'" + name + "' is a " + meant.declared + ", which has no numbers",
                              "put the mark on a number or a vector");
            const std::string shown_name = name + meant.part->path;
            const std::string shown_type(glsl_name(meant.part->type));
            std::vector<TextChange> changes = search.changes();
            if (changes.empty() && !search.is_outside())
                return cannot("nothing is done with '" + name + "' here", "put the mark on a line that uses it");
            const std::string type = meant.shown_type();
            const std::uint32_t begin = first_place(syntax);
            changes.insert(changes.begin(), {{begin, begin}, type + " " + seen + " = " + type + "(0.0);\n"});
            if (main == nullptr) {
                for (const auto& item : syntax.items) {
                    if (const auto* s = std::get_if<ShaderStatement>(&item)) give_seen(code, {*s}, seen, changes);
                }
                return SeenVariable{shown_name, shown_type, changed_text(code, std::move(changes))};
            }
            const std::string main_before = unused(tokens, "main_before");
            changes.push_back({main->word, main_before});
            if (output != nullptr) {
                changes.push_back({{output->whole.begin, output->type.span.begin}, ""});
            } else {
                const std::string colour = unused(tokens, "colour_before");
                changes.push_back({{begin, begin}, "vec4 " + colour + ";\n"});
                for (const SourceToken& token : tokens) {
                    if (token.is_word(old_output)) changes.push_back({token.span, colour});
                }
            }
            const std::string shown = unused(tokens, "shown_" + name);
            const std::string outside = search.is_outside() ? seen + " = " + meant.shown_value(name) + "; " : "";
            return SeenVariable{shown_name, shown_type,
                                changed_text(code, std::move(changes)) + "\nout " + type + " " + shown +
                                    ";\nvoid main() { " + outside + main_before + "(); " + shown + " = " + seen +
                                    "; }\n"};
        } catch (const Refusal& refusal) {
            return cannot("the code has a mistake: " + refusal.fault.message, "mend it first");
        }
    });
}

CheckedFinish with_seen(const CheckedFinish& checked, std::string_view step, const SeenVariable& variable) {
    Finish finish = *checked.finish;
    const StepPlace place = place_of(finish, step);
    if (place.coat < finish.coats.size()) {
        std::vector<Step>& steps = finish.coats[place.coat].steps.own();
        const std::size_t at = std::min(place.step, steps.size());
        Step made;
        if (at < steps.size()) made.rules = steps[at].rules;
        made.name = seen_step;
        made.formula = variable.code;
        steps.insert(steps.begin() + static_cast<std::ptrdiff_t>(at), std::move(made));
    }
    return check_finish(std::make_shared<const Finish>(std::move(finish)), checked.catalogue, &checked);
}

}  // namespace lacquer
