// A response's arguments as its kind reads them, and the cues that it hears.
#pragma once

#include <functional>
#include <string>
#include <string_view>

#include "core/drive/response.h"

namespace lacquer {

/// Looks up a response's arguments, falling back to the kind's defaults. To be used while an answerer is made; what
/// that keeps, it keeps by value.
class Arguments {
public:
    Arguments(const Response& response, const ResponseKind& kind, const Tape& tape, const FormulaSource& formulas)
        : response_(response), kind_(kind), tape_(tape), formulas_(formulas) {}

    /// A number as it is at a time: at 0 for steady ones, when the cue comes for those that are read at cues.
    double number(std::string_view name, double time = 0) const;
    /// A number for whatever time is asked for later.
    std::function<double(double)> at_any_time(std::string_view name) const;
    /// A number over time, to be integrated or followed.
    Track track(std::string_view name) const;
    std::string word(std::string_view name) const;
    Easing easing(std::string_view name) const;
    PathKeys keys(std::string_view name) const;
    /// True if an argument that may be a formula is set at all.
    bool is_set(std::string_view name) const;

    /// The cue that starts it; empty for time 0.
    const std::string& cue() const { return response_.cue; }
    /// The cues of a name with some strength, in order of time.
    Cues heard(const std::string& cue) const;

private:
    const Setting* setting(std::string_view name) const;
    const Response& response_;
    const ResponseKind& kind_;
    const Tape& tape_;
    const FormulaSource& formulas_;
};

}  // namespace lacquer
