// What the stand-in game plays: blows, health, zones and touches, the same for the same seed.
#pragma once

#include <cstdint>
#include <vector>

#include "core/link/message.h"

namespace lacquer::standin {

/// Messages that are sent together, and when, in seconds from the beginning.
struct Moment {
    double at = 0;
    std::vector<LinkMessage> messages;
};

/// A stormy stretch of this length: about a blow a second, of any strength and from any side; each takes some of the
/// hull; the keeper walks about, in and out of the spray; the chart is touched now and then.
std::vector<Moment> storm(double seconds, std::uint32_t seed);

/// One signal, so many times a second: to see what a flood does.
std::vector<Moment> flood(double seconds, double messages_a_second);

}  // namespace lacquer::standin
