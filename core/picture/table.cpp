#include "core/picture/table.h"

#include <algorithm>

namespace lacquer {

Picture table_of(std::vector<Stop> stops) {
    if (stops.empty()) stops.emplace_back();
    std::stable_sort(stops.begin(), stops.end(), [](const Stop& a, const Stop& b) { return a.at < b.at; });
    Picture table(table_width, 1, 4);
    for (int x = 0; x < table_width; ++x) {
        const double t = static_cast<double>(x) / (table_width - 1);
        const auto after = std::find_if(stops.begin(), stops.end(), [&](const Stop& stop) { return stop.at > t; });
        const Stop& low = after == stops.begin() ? stops.front() : *(after - 1);
        const Stop& high = after == stops.end() ? stops.back() : *after;
        const double share = high.at > low.at ? std::clamp((t - low.at) / (high.at - low.at), 0.0, 1.0) : 0.0;
        for (std::size_t c = 0; c < 4; ++c) {
            table.at(x, 0)[c] = static_cast<float>(low.value[c] * (1 - share) + high.value[c] * share);
        }
    }
    return table;
}

}  // namespace lacquer
