#include "core/drive/signal.h"

#include <algorithm>
#include <cmath>

namespace lacquer {

namespace {

double held(double value, double least, double most) {
    return std::isnan(value) ? least : std::clamp(value, least, std::max(least, most));
}

}  // namespace

std::array<double, 3> signal_value(const Signal& signal, std::array<double, 3> value) {
    switch (signal.kind) {
        case SignalKind::toggle:
            return {value[0] != 0 && !std::isnan(value[0]) ? 1.0 : 0.0, 0, 0};
        case SignalKind::place:
            return {held(value[0], 0, 1), held(value[1], 0, 1), 0};
        case SignalKind::integer:
            return {std::round(held(value[0], signal.least, signal.most)), 0, 0};
        case SignalKind::number:
            break;
    }
    return {held(value[0], signal.least, signal.most), 0, 0};
}

bool is_within(const Zone& zone, double x, double y, double aspect) {
    const double wide = aspect > 1 ? aspect : 1;
    const double high = aspect > 1 ? 1 : 1 / aspect;
    return std::hypot((x - zone.x) * wide, (y - zone.y) * high) <= zone.radius;
}

}  // namespace lacquer
