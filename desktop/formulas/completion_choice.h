// What may stand at a place of a formula, as a choice of a list.
#pragma once

#include "core/finish/completion.h"
#include "desktop/kit/choice_list.h"

namespace lacquer {

/// Whether it is written with brackets behind it.
bool is_called(CompletionKind kind);

Choice choice_of(const Completion& completion);

}  // namespace lacquer
