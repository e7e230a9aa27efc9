// Looks that are drawn by lot: dials at random values within their ranges.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/finish/finish.h"
#include "core/finish/play.h"

namespace lacquer {

/// How many are drawn at a time.
inline constexpr int lots_at_a_time = 8;

/// What a lot is drawn from.
struct Lots {
    std::vector<std::string> dials;  ///< that take part
    std::uint32_t seed = 1;
    HeldDials around;    ///< what the lots are drawn around; a dial that isn't here is drawn from its whole range
    double reach = 0.5;  ///< how far from there, as a share of the range: 0..1
    friend bool operator==(const Lots&, const Lots&) = default;
};

/// The values of one lot: the same for the same seed, dials and place. Whole numbers and switches get such values;
/// colours keep within 0 and the dial's most. Dials that the finish hasn't are left out.
HeldDials lot(const Lots& lots, const Finish& finish, int nth);

/// The finish with these values as the working values of its dials.
Finish with_values(Finish finish, const HeldDials& values);

}  // namespace lacquer
