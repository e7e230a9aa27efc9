#include "core/finish/completion.h"

#include <algorithm>
#include <optional>
#include <set>

#include "core/base/text.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/kinds.h"
#include "core/finish/play.h"
#include "core/lang/builtins.h"
#include "core/lang/code.h"
#include "core/lang/fitting.h"
#include "core/lang/known_names.h"
#include "core/lang/token.h"
#include "core/shader/shape.h"

namespace lacquer {

namespace {

// What is wanted at a place: values that can stand for one of some types, or something that is read by name.
struct Wanted {
    std::vector<Type> types;
    bool any = true;
    bool picture = false;
    bool gradient = false;
};

bool can_stand(Type have, Type wanted) { return fits({NameHere(), have}, wanted); }

bool suits(const Wanted& wanted, Type type) {
    if (wanted.picture || wanted.gradient) return false;
    return wanted.any ||
           std::any_of(wanted.types.begin(), wanted.types.end(), [&](Type t) { return can_stand(type, t); });
}

// The types that a letter of the table of built-in functions stands for.
void want(Wanted& wanted, char letter) {
    const auto all_widths = [&](Scalar scalar) {
        for (int width = 1; width <= 4; ++width) wanted.types.push_back(make_type(scalar, width));
    };
    switch (letter) {
        case 'p':
            wanted.picture = true;
            break;
        case 't':
            wanted.gradient = true;
            break;
        case 'g':
            all_widths(Scalar::real);
            break;
        case 'w':
            all_widths(Scalar::whole);
            break;
        case 'n':
            all_widths(Scalar::natural);
            break;
        case 'a':
            for (const Scalar scalar : {Scalar::real, Scalar::whole, Scalar::natural}) all_widths(scalar);
            break;
        case 'B':
            all_widths(Scalar::truth);
            break;
        case 'f':
            wanted.types.push_back(Type::number);
            break;
        case '2':
        case '3':
        case '4':
            wanted.types.push_back(make_type(Scalar::real, letter - '0'));
            break;
        case 'b':
            wanted.types.push_back(Type::boolean);
            break;
        case 'i':
            wanted.types.push_back(Type::integer);
            break;
        case 'I':
            wanted.types.push_back(Type::ivec2);
            break;
        case 'u':
            wanted.types.push_back(Type::natural);
            break;
        case 'm':
            wanted.types.push_back(Type::mat2);
            break;
        default:
            wanted.types.push_back(Type::mat3);
            break;
    }
}

// The brackets that are open at the place, innermost last.
struct Bracket {
    std::string_view name;
    std::size_t argument = 0;
};

std::vector<Bracket> open_brackets(const std::vector<Token>& tokens) {
    std::vector<Bracket> open;
    for (std::size_t i = 0; i < tokens.size(); ++i) {
        if (tokens[i].kind != TokenKind::mark) continue;
        if (tokens[i].text == "(") {
            const bool called = i > 0 && tokens[i - 1].kind == TokenKind::name;
            open.push_back({called ? tokens[i - 1].text : std::string_view(), 0});
        } else if (tokens[i].text == ")" && !open.empty()) {
            open.pop_back();
        } else if (tokens[i].text == "," && !open.empty()) {
            ++open.back().argument;
        }
    }
    return open;
}

std::string signature_of(const Operation& operation) {
    std::string text;
    for (const OperationArgument& argument : operation.arguments) text += (text.empty() ? "" : ", ") + argument.name;
    return operation.name + "(" + text + ")";
}

std::string dial_words(const Dial& dial) {
    if (!dial.note.empty()) return dial.note;
    if (dial.kind == DialKind::toggle || dial.kind == DialKind::colour) return std::string(dial_kind_name(dial.kind));
    return shortest_number(dial.least) + " to " + shortest_number(dial.most) +
           (dial.unit.empty() ? "" : " " + dial.unit);
}

class Collector {
public:
    Collector(const CheckedFinish& checked, const Catalogue& catalogue, std::string_view step)
        : checked_(checked), catalogue_(catalogue), step_(step) {}

    Completions run(std::string_view formula, std::size_t place) {
        place = std::min(place, formula.size());
        const Result<std::vector<Token>> tokens = tokenize(formula.substr(0, place));
        if (!tokens) return {};
        made_.word = {static_cast<std::uint32_t>(place), static_cast<std::uint32_t>(place)};
        if (tokens->size() >= 2) {
            const Token& last = (*tokens)[tokens->size() - 2];
            if (last.span.end == place && last.kind == TokenKind::number) return {};
            if (last.span.end == place && last.kind == TokenKind::name) {
                made_.word = last.span;
                typed_ = last.text;
            }
        }
        const std::vector<Bracket> open = open_brackets(*tokens);
        if (!open.empty() && !open.back().name.empty()) find_wanted(open.back());
        if (is_code(formula)) add_declared(*tokens);
        add_symbols();
        add_functions();
        sort();
        return std::move(made_);
    }

private:
    void find_wanted(const Bracket& bracket) {
        made_.argument = bracket.argument;
        const auto operation = catalogue_.operations.find(bracket.name);
        if (operation != catalogue_.operations.end()) {
            made_.inside.push_back(signature_of(operation->second));
            if (bracket.argument >= operation->second.arguments.size()) return;
            const OperationArgument& argument = operation->second.arguments[bracket.argument];
            wanted_.any = false;
            want(wanted_, argument.picture      ? 'p'
                          : argument.width == 0 ? 'g'
                          : argument.width == 1 ? 'f'
                                                : static_cast<char>('0' + argument.width));
            return;
        }
        for (const BuiltinRow& row : builtin_rows()) {
            if (row.name != bracket.name) continue;
            const std::string signature = signature_text(row);
            if (made_.inside.empty() || made_.inside.back() != signature) made_.inside.push_back(signature);
            if (bracket.argument >= row.params.size()) continue;
            wanted_.any = false;
            want(wanted_, row.params[bracket.argument]);
        }
    }

    void add(std::string name, CompletionKind kind, std::string signature, std::string words, bool fits) {
        const auto at = name.find(typed_);
        const bool begins = at == 0 || (at != std::string::npos && name[at - 1] == '_');
        if (!begins) return;
        made_.choices.push_back({std::move(name), kind, std::move(signature), std::move(words), fits});
    }

    void add_value(const std::string& name, CompletionKind kind, Type type, std::string words, bool readable = false) {
        const bool fits = wanted_.picture ? readable : suits(wanted_, type);
        add(name, kind, std::string(glsl_name(type)) + " " + name, std::move(words), fits);
    }

    // Variables and functions of the code itself, what was declared last first.
    void add_declared(const std::vector<Token>& tokens) {
        std::set<std::string_view> added;
        for (std::size_t i = tokens.size(); i-- > 1;) {
            const Token& name = tokens[i];
            const Token& type = tokens[i - 1];
            const bool is_typed = type.kind == TokenKind::name &&
                                  (type.text == "void" || !shape_named(type.text).is(GlslShape::Kind::nothing));
            if (name.kind != TokenKind::name || name.span == made_.word || !is_typed) continue;
            if (!added.insert(name.text).second) continue;
            const bool is_called = i + 1 < tokens.size() && tokens[i + 1].text == "(";
            const GlslShape shape = shape_named(type.text);
            const bool fits = !shape.is(GlslShape::Kind::leaf) || suits(wanted_, shape.leaf);
            std::string signature = std::string(type.text) + " " + std::string(name.text);
            if (is_called) {
                std::size_t end = i + 1;
                while (end < tokens.size() && tokens[end].text != ")") ++end;
                signature = std::string(name.text) + "(";
                for (std::size_t k = i + 2; k < end; ++k)
                    signature += (k == i + 2 || tokens[k].text == "," ? "" : " ") + std::string(tokens[k].text);
                signature += ")";
            }
            add(std::string(name.text), is_called ? CompletionKind::function : CompletionKind::variable,
                std::move(signature), "of this code", fits);
        }
    }

    void add_symbols() {
        const Finish& finish = *checked_.finish;
        for (const KnownName& known : known_names()) {
            add_value(std::string(known.name), CompletionKind::known, known.type, std::string(known.words));
        }
        for (const Ground& ground : finish.grounds) {
            for (const GroundPicture& picture : ground_pictures(ground))
                add_value(picture.name, CompletionKind::picture, picture.type, std::string(picture.words), true);
            if (const auto values = stop_values(ground))
                add(ground.name, CompletionKind::gradient, "at(" + ground.name + ", t)",
                    *values == StopValues::heights ? "curve" : "gradient", wanted_.gradient);
        }
        for (const Dial& dial : finish.dials) {
            add_value(dial.name, CompletionKind::dial, dial_type(dial.kind), dial_words(dial));
        }
        for (const Response& response : finish.responses) {
            const ResponseKind* kind = find_response_kind(response.kind);
            if (kind == nullptr) continue;
            add_value(response.name, CompletionKind::response, float_type(kind->width), std::string(kind->words));
            for (const OutputSpec& output : response_outputs()) {
                if (kind->has(output.name))
                    add_value(response.name + "." + std::string(output.name), CompletionKind::response,
                              float_type(output.width), std::string(output.words));
            }
        }
        for (const Signal& signal : finish.signals) {
            for (const auto& [name, type] : signal_names(signal)) {
                const bool itself = name == signal.name;
                add_value(name, CompletionKind::response, type,
                          itself && !signal.note.empty() ? signal.note : "signal");
            }
        }
        for (const CheckedStep& step : checked_.steps) {
            if (step.name == step_) break;
            const Step* written = find_step(finish, step.name);
            if (!step.typed || written == nullptr) continue;
            add_value(step.name, CompletionKind::step, step.typed->type, written->note, true);
        }
    }

    void add_functions() {
        std::string_view before;
        for (const BuiltinRow& row : builtin_rows()) {
            // Rows of one name follow one another; the first speaks for all.
            if (row.name == before) continue;
            before = row.name;
            add(std::string(row.name), CompletionKind::function, signature_text(row), std::string(row.words),
                gives_what_fits(row.result));
        }
        for (const auto& [name, operation] : catalogue_.operations) {
            // Those that fill a whole step stand alone.
            const bool alone = made_.inside.empty() && made_.word.begin == 0;
            add(name, CompletionKind::operation, signature_of(operation), operation.about,
                operation.is_plain() ? !wanted_.picture && !wanted_.gradient : alone);
        }
        for (int type = 0; type <= static_cast<int>(Type::mat3); ++type) {
            const std::string name(glsl_name(static_cast<Type>(type)));
            add(name, CompletionKind::type, name + "(...)", "made from parts, or from another kind",
                suits(wanted_, static_cast<Type>(type)));
        }
    }

    bool gives_what_fits(char result) const {
        if (wanted_.any) return true;
        if (wanted_.picture || wanted_.gradient) return false;
        Wanted gives;
        // A function that gives what a picture has gives up to four numbers.
        want(gives, result == 'p' ? 'g' : result);
        return std::any_of(gives.types.begin(), gives.types.end(), [&](Type type) { return suits(wanted_, type); });
    }

    void sort() {
        const auto rank = [&](const Completion& c) {
            return std::tuple(!c.fits, c.name.rfind(typed_, 0) != 0, c.kind != CompletionKind::variable,
                              std::string_view(c.name));
        };
        std::sort(made_.choices.begin(), made_.choices.end(),
                  [&](const Completion& a, const Completion& b) { return rank(a) < rank(b); });
    }

    const CheckedFinish& checked_;
    const Catalogue& catalogue_;
    std::string_view step_;
    std::string_view typed_;
    Wanted wanted_;
    Completions made_;
};

}  // namespace

Completions completions_at(const CheckedFinish& checked, const Catalogue& catalogue, std::string_view step,
                           std::string_view formula, std::size_t place) {
    return Collector(checked, catalogue, step).run(formula, place);
}

}  // namespace lacquer
