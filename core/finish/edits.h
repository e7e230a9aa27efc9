// Changes to a finish that need thought. Each takes a finish and gives back the changed one, or a fault and no change.
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// True if a step, dial, ground, response or signal has this name.
bool is_name_taken(const Finish& finish, std::string_view name);

/// True for what every step knows: uv, pixel, frame_size, pixel_size, aspect, time.
bool is_known_name(std::string_view name);

/// `wish`, or `wish_2`, `wish_3`, ... : a name that nothing has yet.
std::string free_name(const Finish& finish, std::string_view wish);

/// The place of a step; past the end of the last coat if there is no such step.
StepPlace place_of(const Finish& finish, std::string_view name);

/// Adds a step after the one named (at the end if that is empty), making a first coat if there is none. The step's name
/// must be free. Faults: `edit.name`.
Result<Finish> add_step(Finish finish, std::string_view after, Step step);

/// Takes a step out. Faults: `edit.unknown`.
Result<Finish> delete_step(Finish finish, std::string_view name);

/// Moves a step up (-1) or down (+1), across coats where it stands at an end. Faults: `edit.unknown`, `edit.end`.
Result<Finish> move_step(Finish finish, std::string_view name, int direction);

/// Renames a step, dial, ground, response or signal, and every use of it. The new name may be typed freely ("Spray
/// size"). Faults: `edit.unknown`, `edit.name`.
Result<Finish> rename(Finish finish, std::string_view from, std::string_view typed);

/// The settings of a response that are formulas, to be changed where they stand.
std::vector<std::string*> formulas_of(Response& response);

/// Gives a cue another name, also where responses listen to it and on the tape.
Finish rename_cue(Finish finish, const std::string& from, const std::string& to);

/// Adds a coat after the given one (at the end if past it). Returns the finish with the coat selected by index.
Finish add_coat(Finish finish, std::size_t after, std::string name);

/// Takes a coat and its steps out. Faults: `edit.unknown`.
Result<Finish> delete_coat(Finish finish, std::size_t coat);

/// Adds a dial. Its name must be free; an empty code name becomes the name. Faults: `edit.name`.
Result<Finish> add_dial(Finish finish, Dial dial);

/// Takes a dial out. Faults: `edit.unknown`.
Result<Finish> delete_dial(Finish finish, std::string_view name);

/// Moves a dial up (-1) or down (+1) among the dials. Faults: `edit.unknown`, `edit.end`.
Result<Finish> move_dial(Finish finish, std::string_view name, int direction);

/// Steps, responses and dials whose formulas use a name, from the top.
std::vector<std::string> users_of(const Finish& finish, std::string_view name);

/// A finish with nothing but a first coat.
Finish empty_finish();

}  // namespace lacquer
