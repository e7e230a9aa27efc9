// Changes to what a step says and where its parts stand. Each takes a finish and gives back the changed one, or a fault
// and no change.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/finish/checked.h"

namespace lacquer {

/// Gives a step another formula. Where that becomes code, it goes by GLSL's rules; code that is there already keeps its
/// own.
void set_formula(Step& step, std::string formula);

/// A finish, and the step to look at now.
struct StepEdit {
    Finish finish;
    std::string step;
};

/// Puts `text` in place of the characters of `span` in a step's formula. Faults: `edit.unknown`, `edit.span`.
Result<Finish> replace_words(Finish finish, std::string_view step, Span span, std::string_view text);

/// Adds a step before the one named. Faults: `edit.unknown`, `edit.name`.
Result<Finish> add_step_before(Finish finish, std::string_view before, Step step);

/// A copy of the step below it, under a free name; the steps below go on using the first. Faults: `edit.unknown`.
Result<StepEdit> duplicate_step(Finish finish, std::string_view name);

/// Makes the part of the formula that `span` touches (where it is empty, the operator or call there) a step of its own
/// above, and uses that wherever the same words stand in this formula. Faults: `edit.unknown`, `edit.extract`.
Result<StepEdit> extract_step(Finish finish, std::string_view step, Span span);

/// Writes the step's formula into the steps that use it, in place of its name, and takes the step out. Faults:
/// `edit.unknown`, `edit.inline` where that cannot be written.
Result<Finish> inline_step(const CheckedFinish& checked, std::string_view step);

/// Turns a step round: 1 minus what it was, a colour's opacity kept. Turning it twice gives back the first text.
/// Faults: `edit.unknown`, `edit.invert`.
Result<Finish> invert_step(const CheckedFinish& checked, std::string_view step);

/// Swaps the two sides of the innermost operator, or the first two arguments of the innermost call, that `span`
/// touches. Faults: `edit.unknown`, `edit.swap`.
Result<Finish> swap_arguments(Finish finish, std::string_view step, Span span);

/// Uses `to` wherever steps and dials name `from`. `from` stays. Faults: `edit.unknown`.
Result<Finish> use_instead(Finish finish, std::string_view from, std::string_view to);

/// Moves a step to stand right below another, or to the top of its coat's first if that is empty. Faults:
/// `edit.unknown`.
Result<Finish> move_step_below(Finish finish, std::string_view step, std::string_view other);

/// Moves steps to the end of a coat, in the ladder's order. Faults: `edit.unknown`.
Result<Finish> move_steps_to_coat(Finish finish, const std::vector<std::string>& steps, std::size_t coat);

/// Makes these steps, in the ladder's order, a coat of their own with that heading, below the coat of the last of them;
/// coats that are left without a step stay. Faults: `edit.unknown`.
Result<Finish> group_steps(Finish finish, const std::vector<std::string>& steps, const std::string& heading);

/// Moves a coat with all its steps up (-1) or down (+1). Faults: `edit.unknown`, `edit.end`.
Result<Finish> move_coat(Finish finish, std::size_t coat, int direction);

/// Names of the steps marked as stand-ins, from the top.
std::vector<std::string> stand_ins(const Finish& finish);

/// Steps that name one which stands below them: what a move has broken.
struct OutOfOrder {
    std::string step;
    std::string names;
    friend bool operator==(const OutOfOrder&, const OutOfOrder&) = default;
};
std::vector<OutOfOrder> out_of_order(const Finish& finish);

}  // namespace lacquer
