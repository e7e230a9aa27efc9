// Changes to the range over which a dial sweeps an effect.
#pragma once

#include <string>

#include "core/finish/finish.h"
#include "core/inspect/warning.h"

namespace lacquer {

/// Moves the lower or the upper end of a dial's range to a value, and with it what stood at that end: its working
/// value, its default, and the setting of the response that alone drives it.
Finish with_range_end(Finish finish, const std::string& dial, bool lower, double to);

/// The same as a mend.
Mend range_end_mend(const std::string& words, const std::string& dial, bool lower, double to);

}  // namespace lacquer
