// The words of a formula that can be taken hold of where they stand: numbers, colours, names, choices.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "core/finish/checked.h"

namespace lacquer {

enum class LiveKind { number, choice, colour, step, dial, response, ground, known, function };

/// A word and what is known of it.
struct LiveWord {
    LiveKind kind = LiveKind::number;
    Span span;             ///< in the formula; of a colour its whole vec3(...) or vec4(...), of a number its sign too
    std::string text;      ///< as it stands there
    double value = 0;      ///< of a number or choice
    double increment = 0;  ///< what dragging a number by one pixel changes it by
    DialValue colour{};    ///< of a colour, in linear light
    std::optional<double> opacity;  ///< of a colour of four numbers
    bool whole = false;             ///< a number that must stay whole: a count in code, a part in brackets
    std::string argument;           ///< the operation's argument that a number, choice or colour fills; may be empty
    std::string unit;
    std::optional<std::pair<double, double>> range;  ///< in which the argument behaves
    std::vector<std::string> choices;                ///< what 0, 1, 2 and so on stand for
};

/// True for a word that can be made a dial: a number or colour that is written out.
inline bool can_be_dial(const LiveWord& word) { return word.kind == LiveKind::number || word.kind == LiveKind::colour; }

/// The live words of a step's formula from left to right; a colour comes before the numbers within it. Of a text that
/// cannot be cut into words: none.
std::vector<LiveWord> live_words(const CheckedFinish& checked, std::string_view formula);

/// The number as it is written into a formula, in whole increments: "0.35", "12".
std::string number_text(double value, double increment);

/// A number's new text as the step's code needs it: by GLSL's rules a number that has a point keeps one.
std::string number_by_rules(const Step& step, const LiveWord& word, std::string text);

/// `text` as it can stand at `span` of the formula: two minus signs in a row would be one of their own.
std::string apart_from_sign(std::string_view formula, Span span, std::string text);

/// The colour as a formula writes it: "vec3(0.8, 0.06, 0.02)", with an opacity "vec4(0.8, 0.06, 0.02, 1)".
std::string colour_formula(const DialValue& colour, std::optional<double> opacity = std::nullopt);

}  // namespace lacquer
