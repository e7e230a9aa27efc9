// What may stand at a place in a formula: data for editors.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/checked.h"

namespace lacquer {

enum class CompletionKind { step, picture, gradient, dial, response, known, variable, function, operation, type };

/// Something that can be written at the place.
struct Completion {
    std::string name;
    CompletionKind kind = CompletionKind::known;
    std::string signature;  ///< "smoothstep(edge0, edge1, x)" of what is called, "float rim" of what has a value
    std::string words;      ///< one line about it; may be empty
    bool fits = true;       ///< its kind and width can stand here
};

struct Completions {
    Span word;                        ///< of the formula: the name that has been begun, which a choice replaces
    std::vector<std::string> inside;  ///< signatures of the function or operation in whose brackets the place is
    std::size_t argument = 0;         ///< which of its arguments, from 0
    std::vector<Completion> choices;  ///< what fits first; then what begins as typed; then the code's own; by name
};

/// What may be written at `place`, a byte of `formula`, which stands in the step called `step`: names whose words or
/// parts begin as what has been typed, in code also what it has declared before the place. Nothing within comments or
/// text that cannot be cut into words.
Completions completions_at(const CheckedFinish& checked, const Catalogue& catalogue, std::string_view step,
                           std::string_view formula, std::size_t place);

}  // namespace lacquer
