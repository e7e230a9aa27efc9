// Responses: how a dial answers time and cues. Each kind is a closed form in a file of its own; nothing is stepped, so
// any moment can be asked for at once and the frame rate never matters.
#pragma once

#include <map>
#include <span>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/base/result.h"
#include "core/drive/cue.h"

namespace lacquer {

/// An argument's setting: a number, or one of the words that the kind offers.
using Setting = std::variant<double, std::string>;

/// A response of the finish: a name, a kind, and what differs from the kind's defaults. `cue` names the cue that starts
/// it, for kinds that listen to one; empty means that it starts at time 0.
struct Response {
    std::string name;
    std::string kind;
    std::string cue;
    std::map<std::string, Setting> settings;

    friend bool operator==(const Response&, const Response&) = default;
};

/// The moment at which a response is asked: seconds, and all cues in order of time. Later cues do not count.
struct Moment {
    double time = 0;
    std::span<const Cue> cues;
};

/// One argument of a kind. With `choices`, it is a word and `default_word` holds; else a number with a unit.
struct ArgumentSpec {
    std::string_view name;
    double default_number = 0;
    double least = 0;
    double most = 1;
    std::string_view unit;
    std::string_view words;
    std::vector<std::string> choices = {};
    std::string_view default_word = {};
};

/// Looks up a response's arguments, falling back to the kind's defaults.
class Arguments {
public:
    Arguments(const Response& response, std::span<const ArgumentSpec> specs) : response_(response), specs_(specs) {}
    double number(std::string_view name) const;
    std::string word(std::string_view name) const;
    const std::string& cue() const { return response_.cue; }

private:
    const ArgumentSpec* spec(std::string_view name) const;
    const Response& response_;
    std::span<const ArgumentSpec> specs_;
};

/// A kind of response: its name, a sentence, its arguments, and its value at a moment. `presence` is null for kinds
/// that have none; else it is exactly 0 at rest and 1 at the peak.
struct ResponseKind {
    std::string_view name;
    std::string_view words;
    bool listens_to_cue = false;
    std::vector<ArgumentSpec> arguments;
    double (*value)(const Arguments&, const Moment&) = nullptr;
    double (*presence)(const Arguments&, const Moment&) = nullptr;
};

/// All kinds, in the order in which they are offered.
std::span<const ResponseKind> response_kinds();

/// The kind of this name, or null.
const ResponseKind* find_response_kind(std::string_view name);

/// A complaint about a kind or argument that does not exist or does not fit. Faults: `drive.kind`, `drive.argument`.
Faults check_response(const Response& response);

/// The value at a moment; 0 for an unknown kind.
double response_value(const Response& response, const Moment& moment);

/// The presence at a moment; 0 for a kind that has none.
double response_presence(const Response& response, const Moment& moment);

// One file each.
ResponseKind hold_kind();
ResponseKind wave_kind();
ResponseKind sweep_kind();
ResponseKind strike_kind();

}  // namespace lacquer
