// Steps and coats as text that can be copied anywhere and pasted into another finish.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/step_edits.h"

namespace lacquer {

/// The steps of these names in the ladder's order, each under its coat's heading, with the dials, responses, cues and
/// pictures that they name: a finish of its own, written as docs/format.md says. Pictures are named by their full path,
/// as seen from `finish_path`.
std::string steps_as_text(const Finish& finish, const std::string& finish_path, const std::vector<std::string>& names);

/// Dials, grounds, signals, responses and cues of these names, in the same way, without a step.
std::string parts_as_text(const Finish& finish, const std::string& finish_path, const std::vector<std::string>& names);

/// A coat with all its steps, in the same way.
std::string coat_as_text(const Finish& finish, const std::string& finish_path, std::size_t coat);

/// Adds what the text holds below the step `after` (at the end if that is empty), and gives the last step that was
/// added. The text is one of the above, or lines that say `name = formula`. Steps join the coat at hand; a coat stays
/// one, below it. Parts without a step are added once more. Names that are taken change, also where they are used;
/// dials and responses that are there already and alike are shared, and grounds that go by the same name. Faults:
/// `edit.paste`.
Result<StepEdit> paste_text(Finish finish, const std::string& finish_path, std::string_view after,
                            std::string_view text);

}  // namespace lacquer
