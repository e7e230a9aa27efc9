// An operation at its best: on the sample that its file names.
#pragma once

#include <string>

#include "core/finish/finish.h"

namespace lacquer {

/// The samples as steps, and below them the step `shown` with this formula.
Finish finish_on_samples(const std::string& formula);

}  // namespace lacquer
