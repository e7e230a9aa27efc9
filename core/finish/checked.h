// A finish whose formulas have been read and understood, each with its type or its fault.
#pragma once

#include <cstdint>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/catalogue/catalogue.h"
#include "core/finish/finish.h"
#include "core/finish/operation_steps.h"
#include "core/lang/checker.h"
#include "core/lang/structural_hash.h"

namespace lacquer {

/// A step as the planner sees it. One that is off, itself or with its coat, has the tree of what it passes on.
/// An expression that is read as a picture is a step too, called after its owner, a point and a number.
struct CheckedStep {
    std::string name;
    bool on = true;
    std::shared_ptr<const Typed> typed;  ///< null where there is a fault
    std::optional<Fault> fault;          ///< its own, or that of a step it reads
    Faults notes;                        ///< what its code is told besides, with spans in its formula; warnings
    double scale = 1;                    ///< of the frame's size; less than 1 only where it is stored
    StructuralHash hash;                 ///< of `typed`
    std::shared_ptr<const NativeUse> native = {};  ///< how this processor may do it in one go
};

/// A dial with its formula, if it has a good one.
struct CheckedDial {
    std::string name;
    std::optional<Typed> formula;
    std::optional<Fault> fault;
};

/// A response's arguments that are formulas, as far as they are good ones.
struct CheckedResponse {
    std::map<std::string, Typed, std::less<>> formulas;
};

/// The formulas of a ground of droplets, by their keys, as far as they are good ones.
struct CheckedDroplets {
    std::string name;  ///< the ground's
    std::map<std::string, Typed, std::less<>> formulas;
};

/// A step that goes on from tick to tick: `previous` names it, or it uses `previous`. It is drawn at ticks only;
/// whatever else reads it finds its picture after the last tick.
struct TickedStep {
    std::string name;
    Type type = Type::number;
    double scale = 1;  ///< of the frame's size
    bool half = false;
    bool has_start = false;              ///< there is a step of what it was before the first tick
    std::shared_ptr<const Typed> shown;  ///< what stands for it in frames
    StructuralHash shown_hash;           ///< of `shown`
};

/// What a step's checking went by, so that it need not be done again.
struct StepSource {
    std::string name;
    std::string formula;
    CodeRules rules = CodeRules::formulas;
    Ticking ticking = {};
    bool on = true;
    std::uint64_t surroundings = 0;  ///< stands for all names that the step may use, and what they mean
    std::size_t first = 0;           ///< where its own begin among the checked steps
    std::size_t count = 0;
    friend bool operator==(const StepSource&, const StepSource&) = default;
};

struct CheckedFinish {
    std::shared_ptr<const Finish> finish;
    std::shared_ptr<const Catalogue> catalogue;
    std::vector<StepSource> sources;         ///< one for each step of the finish
    std::vector<CheckedStep> steps;          ///< from the top
    std::vector<TickedStep> ticked;          ///< from the top
    std::vector<CheckedDial> dials;          ///< in the finish's order
    std::vector<CheckedResponse> responses;  ///< in the finish's order
    std::vector<CheckedDroplets> droplets;   ///< those of the finish's grounds that are some, in their order
    std::vector<std::size_t> dial_order;     ///< indices of dials, each after those that its formula reads
    Faults faults;                           ///< about names, responses and dials; steps carry their own

    // Compiled once, in checked.cpp, as those of `Finish` are.
    CheckedFinish();
    CheckedFinish(const CheckedFinish&);
    CheckedFinish(CheckedFinish&&) noexcept;
    CheckedFinish& operator=(const CheckedFinish&);
    CheckedFinish& operator=(CheckedFinish&&) noexcept;
    ~CheckedFinish();
};

/// The type of a dial's value in a formula.
Type dial_type(DialKind kind);

/// Understands all formulas. Faults on names: `finish.name`, `finish.duplicate`; on responses: those of
/// `check_response`, `finish.cue` and those of the language; on dials: `finish.circle` and those of the language; on
/// steps: `finish.broken-source`, `finish.whole-step`, `finish.operation`, `finish.past` and those of the language.
/// What is as it was in `before` is taken from there.
CheckedFinish check_finish(std::shared_ptr<const Finish> finish,
                           std::shared_ptr<const Catalogue> catalogue = built_in_catalogue(),
                           const CheckedFinish* before = nullptr);

/// The step of this name that goes on from tick to tick; null if there is none.
const TickedStep* find_ticked(const CheckedFinish& checked, std::string_view name);

/// Finds a checked step by name; null if there is none.
const CheckedStep* find_step(const CheckedFinish& checked, std::string_view name);

/// The name of the step that is the finished picture: the last that is on. Empty if there is none.
std::string finished_step(const CheckedFinish& checked);

}  // namespace lacquer
