// Responses: how a dial answers time, cues and signals. Each kind is a closed form in a file of its own: what it needs
// of the tape is worked out once, and any moment can be asked for at once, in any order. The frame rate never matters.
#pragma once

#include <array>
#include <functional>
#include <map>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/base/kept_keys.h"
#include "core/base/result.h"
#include "core/drive/easing.h"
#include "core/drive/path_keys.h"
#include "core/drive/tape.h"
#include "core/drive/track.h"

namespace lacquer {

/// An argument's setting: a number; a word that the kind offers, an easing, a cue's name or a formula; keys of a path.
using Setting = std::variant<double, std::string, PathKeys>;

/// A response of the finish: a name, a kind, and what differs from the kind's defaults. `cue` names the cue that starts
/// it, for kinds that listen to one; empty means that it starts at time 0.
struct Response {
    std::string name = {};
    std::string kind = {};
    std::string cue = {};
    std::map<std::string, Setting> settings = {};
    KeptKeys extra = {};  ///< keys of the file that this version does not know

    friend bool operator==(const Response&, const Response&) = default;
};

/// What an argument is: a number or a formula for one, one of some words, an easing, a yes or no by formula, a cue's
/// name, the keys of a path.
enum class ArgumentKind { number, word, easing, condition, cue, keys };

/// When an argument's formula is read. `steady`: once, as things are at 0 s. `at_cue`: when the cue comes.
/// `any_time`: at the moment that is asked for. `rate`: it is integrated over the time that has passed.
enum class Reads { steady, at_cue, any_time, rate };

/// One argument of a kind. A number has a default, a usual range and a unit; a word its choices.
struct ArgumentSpec {
    std::string_view name;
    ArgumentKind kind = ArgumentKind::number;
    double default_number = 0;
    double least = 0;
    double most = 1;
    std::string_view unit;
    std::string_view words;
    Reads reads = Reads::at_cue;
    std::vector<std::string> choices = {};
    std::string default_word = {};
};

/// Arguments of those kinds. Of a word's choices the first is the usual one; an easing's usual one is a name of
/// `easing_names` or a function of CSS Easing.
ArgumentSpec number_argument(std::string_view name, double usual, double least, double most, std::string_view unit,
                             std::string_view words, Reads reads = Reads::at_cue);
ArgumentSpec word_argument(std::string_view name, std::vector<std::string> choices, std::string_view words);
ArgumentSpec easing_argument(std::string_view name, std::string usual, std::string_view words);

/// What a response says at a moment, and the cue that it answers.
struct Answer {
    std::array<double, 2> value{};
    double presence = 0;  ///< exactly 0 at rest, 1 at the peak or while it runs
    double turn = 0;      ///< degrees clockwise
    double zoom = 0;      ///< share by which it comes nearer
    Cue cue = {};         ///< the one that it answers; of strength 0 before the first
    double since = 0;     ///< seconds since it began to answer it
};

/// A part of an answer that formulas read as `response.name`.
struct OutputSpec {
    std::string_view name;
    int width = 1;
    std::string_view words;
    std::array<double, 2> (*of)(const Answer&) = nullptr;
};

/// All outputs that some kind has, besides its value.
std::span<const OutputSpec> response_outputs();

/// What a moment is answered with: any time in seconds, in any order.
using Answerer = std::function<Answer(double)>;

class Arguments;

/// A kind of response: its name, a sentence, its arguments, how many numbers its value has, what else it tells, and how
/// it comes to its answers.
struct ResponseKind {
    std::string_view name;
    std::string_view words;
    bool listens_to_cue = false;
    std::vector<ArgumentSpec> arguments;
    int width = 1;
    std::vector<std::string_view> outputs = {};
    Answerer (*answerer)(const Arguments&) = nullptr;

    /// Whether it tells of this output, besides its value.
    bool has(std::string_view output) const;
};

/// All kinds, in the order in which they are offered.
std::span<const ResponseKind> response_kinds();

/// The kind of this name, or null.
const ResponseKind* find_response_kind(std::string_view name);

/// The argument of this name, or null.
const ArgumentSpec* find_argument(const ResponseKind& kind, std::string_view name);

/// The number that an argument is set to, or its default; nothing where it is a formula or no number.
std::optional<double> number_of(const Response& response, std::string_view argument);

/// What an argument is set to, as it is typed: a number without its unit, a formula, a word; its default if it is not
/// set. Empty for keys.
std::string setting_text(const Response& response, std::string_view argument);

/// A complaint about a kind or argument that does not exist or does not fit. Formulas are not read here. Faults:
/// `drive.kind`, `drive.argument`, `drive.easing`.
Faults check_response(const Response& response);

/// A formula's value at a time, in seconds, for the argument of that name; see `Arguments`.
using ArgumentFormula = std::function<double(const std::string& argument, double time)>;

/// What stands behind the formulas of a response's arguments: their values over time, and the moments at which they may
/// change, in order. Without `value`, an argument that is set to a formula counts as its default.
struct FormulaSource {
    ArgumentFormula value = {};
    std::vector<double> moments = {};
    /// Whether nothing that the argument's formula reads ever changes; null if that is not known.
    std::function<bool(const std::string& argument)> stands_still = {};
};

/// The response against a tape. Answers 0 for an unknown kind.
Answerer make_answerer(const Response& response, const Tape& tape, const FormulaSource& formulas = {});

// One file each.
ResponseKind hold_kind();
ResponseKind sweep_kind();
ResponseKind strike_kind();
ResponseKind wave_kind();
ResponseKind jolt_kind();
ResponseKind chase_kind();
ResponseKind drift_kind();
ResponseKind gate_kind();
ResponseKind clock_kind();
ResponseKind path_kind();

}  // namespace lacquer
