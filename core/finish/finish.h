// The document: one effect. A plain value: copying it is a snapshot.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "core/base/kept_keys.h"
#include "core/base/shared_list.h"
#include "core/drive/response.h"
#include "core/drive/signal.h"
#include "core/drive/tape.h"
#include "core/finish/grounds/ground.h"
#include "core/finish/overlay.h"

namespace lacquer {

/// How a step goes on from tick to tick, for one that `previous` names or that uses it; for others it says nothing.
struct Ticking {
    int width = 0;            ///< numbers that it has, 1 to 4; 0: as its formula gives
    std::string starts = {};  ///< formula for what it was before the first tick; empty for 0
    double share = 1;         ///< of the frame's sides at which it is drawn: 1, 0.5 or 0.25
    int pixels = 0;           ///< width at which it is drawn, in place of `share`; 0 for none
    bool smooth = false;      ///< between ticks a blend of the last two is seen
    bool half = false;        ///< kept as halves, in half the room

    friend bool operator==(const Ticking&, const Ticking&) = default;
};

/// What all steps that go on from tick to tick have in common.
struct Ticks {
    double rate = 60;        ///< ticks a second, 24 to 240
    std::string reset = {};  ///< a cue, or a signal that rises above 0.5: all begins anew then; empty for none

    friend bool operator==(const Ticks&, const Ticks&) = default;
};

/// By which rules a step's code is read: those of formulas, where `1/2` is 0.5, or GLSL's, where it is 0.
enum class CodeRules : std::uint8_t { formulas, glsl };

/// A named value at each pixel, written as a formula.
struct Step {
    std::string name = {};
    std::string formula = {};
    std::string note = {};
    bool on = true;
    bool stand_in = false;  ///< stands for something that is not there yet, and is to be replaced
    Ticking ticking = {};
    CodeRules rules = CodeRules::formulas;  ///< counts only where the formula is code
    KeptKeys extra = {};                    ///< keys of the file that this version does not know

    friend bool operator==(const Step&, const Step&) = default;
};

/// A run of steps under a heading.
struct Coat {
    std::string name;
    std::string note;
    bool on = true;
    bool folded = false;
    SharedList<Step> steps;
    KeptKeys extra = {};  ///< keys of the file that this version does not know

    friend bool operator==(const Coat&, const Coat&) = default;
};

enum class DialKind { number, integer, toggle, colour };

/// A dial's setting: [0] for a number, an integer or a switch (0 or 1); red, green and blue in linear light for a
/// colour, which may be brighter than 1.
using DialValue = std::array<double, 3>;

/// A parameter of the finish.
struct Dial {
    std::string name;       ///< as formulas use it
    std::string code_name;  ///< as the game calls it; stays when the name changes
    DialKind kind = DialKind::number;
    DialValue value{};
    DialValue default_value{};
    double least = 0;
    double most = 1;
    double increment = 0.01;
    std::string unit;
    std::string note;
    std::string group;    ///< a heading that dials stand under; may be empty
    std::string formula;  ///< over responses, signals, other dials and time; empty for a dial that stands still
    bool shared = false;  ///< lives in the file of shared dials, too, and has its values from there
    /// Ids of the measures that it must pass (`measures` of core/inspect).
    std::vector<std::string> promises = {};
    KeptKeys extra = {};  ///< keys of the file that this version does not know

    friend bool operator==(const Dial&, const Dial&) = default;
};

/// A cue that the finish listens to, with the strength and direction (degrees clockwise from the right) that its pad
/// has.
struct CueKind {
    std::string name = {};
    double strength = 0.8;
    /// If set, each press has a strength of its own between this and `strength`.
    std::optional<double> weakest = std::nullopt;
    double direction = 0;
    KeptKeys extra = {};  ///< keys of the file that this version does not know

    friend bool operator==(const CueKind&, const CueKind&) = default;
};

struct Finish {
    std::string name = "Untitled";
    std::string brief;
    int frame_width = 1280;
    int frame_height = 720;
    double length = 6;  ///< seconds on the time rule
    Ticks ticks;
    std::vector<Ground> grounds;
    std::vector<CueKind> cues;
    std::vector<Signal> signals;
    std::vector<Response> responses;
    std::vector<Dial> dials;
    std::vector<Coat> coats;
    std::string shared_dials;  ///< path of the file of shared dials, as a ground's; empty if there is none
    SharedList<Variant> variants;
    std::string variant;             ///< the one that is on; empty for none
    SharedList<SetAside> set_aside;  ///< looks, the oldest first
    Tape tape;                       ///< what was played
    KeptKeys extra = {};             ///< keys of the file that this version does not know

    // Compiled once, in finish.cpp: otherwise each of the many files that copy a finish would do it anew.
    Finish();
    Finish(const Finish&);
    Finish(Finish&&) noexcept;
    Finish& operator=(const Finish&);
    Finish& operator=(Finish&&) noexcept;
    ~Finish();
    friend bool operator==(const Finish&, const Finish&);
};

/// Where a step stands.
struct StepPlace {
    std::size_t coat = 0;
    std::size_t step = 0;
    friend bool operator==(const StepPlace&, const StepPlace&) = default;
};

/// Finds a step by name; null if there is none.
const Step* find_step(const Finish& finish, std::string_view name);
/// Finds a dial by name; null if there is none.
const Dial* find_dial(const Finish& finish, std::string_view name);
/// Finds a signal by name; null if there is none.
const Signal* find_signal(const Finish& finish, std::string_view name);
/// Finds a response by name; null if there is none.
const Response* find_response(const Finish& finish, std::string_view name);
/// Finds a variant by name; null if there is none.
const Variant* find_variant(const Finish& finish, std::string_view name);
/// Finds a cue that the finish listens to by name; null if there is none.
const CueKind* find_cue(const Finish& finish, std::string_view name);

/// The first ground that gives colours: what a finish works on. Null if there is none.
const Ground* first_picture(const Finish& finish);

/// How many steps all coats have together.
std::size_t step_count(const Finish& finish);

/// Calls `visit(const Coat&, const Step&)` on all steps, from the top.
template <class Visit>
void for_each_step(const Finish& finish, Visit visit) {
    for (const Coat& coat : finish.coats) {
        for (const Step& step : coat.steps) visit(coat, step);
    }
}

}  // namespace lacquer
