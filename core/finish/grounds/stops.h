// Stops along a line from 0 to 1: what gradients and curves are made of.
#pragma once

#include <vector>

#include "core/picture/table.h"

namespace lacquer {

class Fields;
class Json;

/// What stops hold: colours with opacity in linear light, or heights, of which only the first number counts.
enum class StopValues { colours, heights };

struct Stops {
    std::vector<Stop> list = {};
    StopMix between = StopMix::straight;  ///< how it goes from stop to stop
    friend bool operator==(const Stops&, const Stops&) = default;
};

/// A list under `key`, each a place and four numbers, or a place and a height, after which an easing may follow; and
/// the way `between` them.
Stops read_stops(Fields& fields, const char* key, StopValues values);
void write_stops(Json& object, const char* key, StopValues values, const Stops& stops);

}  // namespace lacquer
