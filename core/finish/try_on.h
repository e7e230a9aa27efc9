// Every operation, applied to a step, to choose from.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/checked.h"

namespace lacquer {

/// What is done with the operation that is chosen: a step below, or another formula for the step itself.
enum class TryOnUse { add_below, replace };

/// An operation as it would be called on the step.
struct TryOn {
    std::string operation;
    std::string title;
    std::string group;
    std::string about;
    std::string formula;
    bool fits = true;  ///< the call makes sense here; else `why_not` says what stands against it
    std::string why_not;
};

/// All operations of the catalogue, called on what the step gives: by group and title. Each argument that the step does
/// not fill has its default, or what stands nearest above and suits its role. In place of the step's own operation,
/// arguments of the same name, or of the same role and width in their order, carry over.
std::vector<TryOn> try_on(const CheckedFinish& checked, std::string_view step, TryOnUse use);

/// An operation called at a step with nothing but defaults and what stands nearest, such as "disc()"; empty if there is
/// no such operation.
std::string call_with_defaults(const CheckedFinish& checked, std::string_view step, std::string_view operation);

/// The finish with the choice taken: a step of a free name below, or the step's new formula. Gives the step that holds
/// it. Faults: `edit.unknown`, `edit.name`.
Result<std::pair<Finish, std::string>> take_try_on(const Finish& finish, std::string_view step, const TryOn& choice,
                                                   TryOnUse use);

/// A finish to draw candidates on: what stands above the place, then one step for each formula, called "try 0", "try 1"
/// and so on; no finish has names like these. `at` is the step below which they stand, or in whose place.
CheckedFinish candidates_on(const CheckedFinish& checked, std::string_view at, TryOnUse use,
                            const std::vector<std::string>& formulas);

/// The name of candidate `index`.
std::string candidate_name(std::size_t index);

}  // namespace lacquer
