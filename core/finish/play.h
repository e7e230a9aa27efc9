// A finish against a tape: what all signals, responses and dials are worth at any moment.
#pragma once

#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/droplets/emitter.h"
#include "core/finish/checked.h"
#include "core/lang/value.h"

namespace lacquer {

/// Dials that are held by hand, against their formula.
using HeldDials = std::map<std::string, DialValue, std::less<>>;

/// Values by name: every dial, every response and its outputs (`blow.presence`), every signal and its ends
/// (`hull.most`).
using DriveValues = std::map<std::string, Value, std::less<>>;

/// Works out once what responses need of the tape; asked for any moment, in any order, it gives the same values.
class Play {
public:
    Play(std::shared_ptr<const CheckedFinish> checked, const Tape& tape, HeldDials held = {});

    /// All values at a time, in seconds, those of droplets as far as some formula reads them. A held dial has its held
    /// value, a driven one that of its formula, one that was set on the tape that value, any other its working value.
    DriveValues values(double time) const;

    /// The answer of one response; 0 if there is none of the name.
    Answer answer(std::string_view response, double time) const;

    /// What lives of a ground of droplets; null if there is none of the name. It is made when it is first asked for,
    /// and no play may be asked from several threads at once.
    const Emitter* emitter(std::string_view ground) const;

    /// How many drops of such a ground live at a time; 0 if there is none of the name.
    double drop_count(std::string_view ground, double time) const;

    const CheckedFinish& checked() const { return *checked_; }
    const std::shared_ptr<const CheckedFinish>& shared_checked() const { return checked_; }
    const HeldDials& held() const { return held_; }

private:
    /// What stands still between the moments at which the tape sets it.
    struct Setting {
        Type type = Type::number;
        std::vector<double> at;
        std::vector<Value> values;  // one more: the first holds from the start
        const Value& value(double time) const;
    };
    using Settings = std::map<std::string, Setting, std::less<>>;
    void add_settings(const Tape& tape);
    void find_counted();
    FormulaSource formulas_by(const std::map<std::string, Typed, std::less<>>& typed) const;
    std::unique_ptr<Emitter> make_emitter(const Ground& ground, const CheckedDroplets& checked) const;

    std::shared_ptr<const CheckedFinish> checked_;
    HeldDials held_;
    std::shared_ptr<Settings> settings_;  ///< shared with the answerers that read them
    std::vector<Answerer> answerers_;     ///< in the order of the finish's responses
    Tape tape_;
    std::vector<double> moments_;       ///< at which the tape sets something
    std::vector<std::string> counted_;  ///< grounds of droplets whose numbers some formula reads
    mutable std::map<std::string, std::shared_ptr<const Emitter>, std::less<>> emitters_;
};

/// A play that is asked once.
DriveValues drive_values(const CheckedFinish& checked, double time, const Tape& tape, const HeldDials& held = {});

/// A dial's setting as a value of the language.
Value dial_value(DialKind kind, const DialValue& setting);

/// The other way round, for display: up to three numbers.
DialValue setting_from(const Value& value);

/// The names that a ground of droplets goes by besides its pictures: `drops.count` and `drops.steady`.
std::vector<std::pair<std::string, Type>> droplets_names(const std::string& ground);

/// The type of a signal's value in a formula.
Type signal_type(SignalKind kind);

/// The names that a signal goes by, itself first, with their types: `hull`, `hull.share`, `hull.most`, `hull.least`.
std::vector<std::pair<std::string, Type>> signal_names(const Signal& signal);

/// The names that a response goes by, itself first, with their types.
std::vector<std::pair<std::string, Type>> response_names(const Response& response);

}  // namespace lacquer
