#include "core/cpu/native.h"

#include <algorithm>
#include <array>

namespace lacquer {

const NativeWay* native_way(std::string_view name) {
    static const std::array<NativeWay, 7> ways = {
        nearest_places_way(),  gaussian_across_way(),  gaussian_down_way(),      greatest_over_disc_way(),
        least_over_disc_way(), gaussian_quarter_way(), spline_from_quarter_way()};
    const auto* const found =
        std::find_if(ways.begin(), ways.end(), [&](const NativeWay& way) { return way.name == name; });
    return found != ways.end() ? found : nullptr;
}

}  // namespace lacquer
