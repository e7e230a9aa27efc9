#include "core/finish/live_words.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/lang/builtins.h"
#include "core/lang/code.h"
#include "core/lang/expression.h"
#include "core/lang/token.h"

namespace lacquer {

namespace {

// A hundredth of the number's own magnitude; of 0, a hundredth.
double increment_of(double value) {
    if (value == 0) return 0.01;
    return std::pow(10.0, std::floor(std::log10(std::fabs(value)) + 1e-9) - 2);
}

// A tidy step: at least a hundred of them make the range.
double increment_in(std::pair<double, double> range) {
    return std::pow(10.0, std::floor(std::log10((range.second - range.first) / 100) + 1e-9));
}

class Finder {
public:
    Finder(const CheckedFinish& checked, std::string_view formula)
        : checked_(checked), finish_(*checked.finish), formula_(formula) {}

    std::vector<LiveWord> run() {
        const Result<std::vector<Token>> tokens = tokenize(formula_);
        if (!tokens) return {};
        add_tokens(*tokens);
        if (!is_code(formula_)) {
            if (const Result<Expression> parsed = parse(formula_)) learn_from(*parsed, true);
        }
        std::stable_sort(words_.begin(), words_.end(),
                         [](const LiveWord& a, const LiveWord& b) { return a.span.begin < b.span.begin; });
        return std::move(words_);
    }

private:
    void add_tokens(const std::vector<Token>& tokens) {
        const bool code = is_code(formula_);
        for (std::size_t i = 0; i + 1 < tokens.size(); ++i) {
            const Token& token = tokens[i];
            if (i > 0 && tokens[i - 1].text == ".") continue;
            // The version of the language is no number of the picture's.
            if (i > 1 && tokens[i - 2].text == "#" && tokens[i - 1].text == "version") continue;
            LiveWord word;
            word.span = token.span;
            word.text = token.text;
            if (token.kind == TokenKind::number) {
                const auto value = parse_number(token.text);
                if (!value) continue;
                word.value = *value;
                word.increment = increment_of(*value);
                // In code a count may have to stay one.
                word.whole = code && token.text.find_first_of(".eE") == std::string_view::npos;
                if (word.whole) word.increment = 1;
            } else if (token.kind != TokenKind::name || !kind_of(token.text, tokens[i + 1].text == "(", word.kind)) {
                continue;
            }
            words_.push_back(std::move(word));
        }
    }

    bool kind_of(std::string_view name, bool called, LiveKind& kind) const {
        const auto named = [&](const auto& things) {
            return std::any_of(things.begin(), things.end(), [&](const auto& t) { return t.name == name; });
        };
        if (called) {
            kind = LiveKind::function;
            return is_builtin_name(name) || checked_.catalogue->operations.contains(name);
        }
        if (find_step(finish_, name) != nullptr) {
            kind = LiveKind::step;
        } else if (named(finish_.dials)) {
            kind = LiveKind::dial;
        } else if (named(finish_.responses) || named(finish_.signals)) {
            kind = LiveKind::response;
        } else if (named(finish_.grounds) || find_ground_picture(finish_, name)) {
            kind = LiveKind::ground;
        } else {
            kind = LiveKind::known;
            return is_known_name(name);
        }
        return true;
    }

    LiveWord* number_at(Span span) {
        const auto found = std::find_if(words_.begin(), words_.end(), [&](const LiveWord& word) {
            return word.kind == LiveKind::number && word.span == span;
        });
        return found == words_.end() ? nullptr : &*found;
    }

    // A sign that belongs to a number, a number that picks a part, what each argument of an operation allows, and which
    // vec3 is a colour: one that stands where a colour goes.
    void learn_from(const Expression& e, bool colour_goes_here) {
        for (std::size_t i = 0; i < e.args.size(); ++i) learn_from(e.args[i], colour_goes_here && takes_colour(e, i));
        if (e.kind == ExpressionKind::unary && e.text == "-" && e.args[0].kind == ExpressionKind::number) {
            if (LiveWord* word = number_at(e.args[0].span)) {
                word->span = e.span;
                word->value = -word->value;
                word->text = formula_.substr(e.span.begin, e.span.end - e.span.begin);
            }
        }
        if (e.kind == ExpressionKind::index) {
            if (LiveWord* word = number_at(e.args[1].span)) {
                word->whole = true;
                word->increment = 1;
            }
        }
        if (e.kind != ExpressionKind::call) return;
        if (colour_goes_here && (e.text == "vec3" || e.text == "vec4") && is_colour(e)) add_colour(e);
        const auto operation = checked_.catalogue->operations.find(e.text);
        if (operation == checked_.catalogue->operations.end()) return;
        const auto& arguments = operation->second.arguments;
        for (std::size_t i = 0; i < std::min(e.args.size(), arguments.size()); ++i) {
            for (LiveWord& word : words_) {
                const bool own = word.span == e.args[i].span;
                if (own && (word.kind == LiveKind::number || word.kind == LiveKind::colour))
                    set_argument(word, arguments[i]);
            }
        }
    }

    static void set_argument(LiveWord& word, const OperationArgument& argument) {
        word.argument = argument.name;
        word.unit = argument.unit;
        word.range = argument.range;
        if (word.kind != LiveKind::number) return;
        if (argument.range) word.increment = increment_in(*argument.range);
        if (argument.choices.empty()) return;
        word.kind = LiveKind::choice;
        word.choices = argument.choices;
        word.increment = 1;
    }

    // Whether a colour that is written there would come out as one.
    bool takes_colour(const Expression& e, std::size_t index) const {
        if (e.kind == ExpressionKind::call) {
            const auto operation = checked_.catalogue->operations.find(e.text);
            if (operation == checked_.catalogue->operations.end()) return !takes_places(e.text);
            const auto& arguments = operation->second.arguments;
            return index < arguments.size() && arguments[index].role == "colour";
        }
        // What is added to a place in the world, or multiplied with a direction, is one itself.
        return std::none_of(e.args.begin(), e.args.end(), [&](const Expression& arg) { return names_place(arg); });
    }

    // Functions of places, directions and weights.
    static bool takes_places(std::string_view builtin) {
        constexpr std::array names{"hash",
                                   "hash3",
                                   "value_noise",
                                   "gradient_noise",
                                   "cellular_noise",
                                   "fractal_value_noise",
                                   "fractal_gradient_noise",
                                   "fractal_cellular_noise",
                                   "length",
                                   "distance",
                                   "dot",
                                   "cross",
                                   "normalize",
                                   "reflect",
                                   "refract",
                                   "faceforward",
                                   "texture",
                                   "textureLod",
                                   "texelFetch",
                                   "at"};
        return std::find(names.begin(), names.end(), builtin) != names.end();
    }

    bool names_place(const Expression& e) const {
        if (e.kind != ExpressionKind::name) return false;
        const auto picture = find_ground_picture(finish_, e.text);
        return picture &&
               (picture->picture.layer == GroundLayer::position || picture->picture.layer == GroundLayer::normal);
    }

    // Plain numbers, none of them below 0.
    static bool is_colour(const Expression& e) {
        const auto plain = [](const Expression& arg) { return arg.kind == ExpressionKind::number; };
        return e.args.size() == (e.text == "vec3" ? 3U : 4U) && std::all_of(e.args.begin(), e.args.end(), plain);
    }

    void add_colour(const Expression& e) {
        LiveWord word;
        word.kind = LiveKind::colour;
        word.span = e.span;
        if (e.args.size() == 4) word.opacity = e.args[3].value;
        word.text = formula_.substr(word.span.begin, word.span.end - word.span.begin);
        for (std::size_t i = 0; i < 3; ++i) word.colour[i] = e.args[i].value;
        words_.insert(words_.begin(), std::move(word));
    }

    const CheckedFinish& checked_;
    const Finish& finish_;
    std::string_view formula_;
    std::vector<LiveWord> words_;
};

}  // namespace

std::vector<LiveWord> live_words(const CheckedFinish& checked, std::string_view formula) {
    return Finder(checked, formula).run();
}

std::string number_text(double value, double increment) {
    if (!(increment > 0)) return shortest_number(value);
    const int decimals = std::clamp(static_cast<int>(std::ceil(-std::log10(increment) - 1e-9)), 0, 9);
    return plain_number(std::round(value / increment) * increment, decimals);
}

std::string apart_from_sign(std::string_view formula, Span span, std::string text) {
    const bool touches = span.begin > 0 && span.begin <= formula.size() && formula[span.begin - 1] == '-';
    return touches && text.starts_with('-') ? " " + text : text;
}

std::string number_by_rules(const Step& step, const LiveWord& word, std::string text) {
    const bool plain = text.find_first_of(".en") == std::string::npos;
    const bool is_float = step.rules == CodeRules::glsl && word.kind == LiveKind::number && !word.whole;
    return is_float && plain && is_code(step.formula) ? text + ".0" : text;
}

std::string colour_formula(const DialValue& colour, std::optional<double> opacity) {
    return (opacity ? "vec4(" : "vec3(") + plain_number(colour[0], 4) + ", " + plain_number(colour[1], 4) + ", " +
           plain_number(colour[2], 4) + (opacity ? ", " + plain_number(*opacity, 4) : std::string()) + ")";
}

}  // namespace lacquer
