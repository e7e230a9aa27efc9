#include "desktop/rehearse/lane_traces.h"

#include <algorithm>
#include <cmath>

namespace lacquer {

LaneTraces lane_traces(const Play& play, const std::vector<std::string>& names, double from, double to, int samples) {
    LaneTraces traces;
    if (names.empty()) return traces;
    for (int i = 0; i < samples; ++i) {
        const DriveValues values = play.values(from + (to - from) * i / (samples - 1));
        for (const std::string& name : names) {
            const auto found = values.find(name);
            if (found == values.end()) continue;
            LaneTrace& trace = traces[name];
            const Type type = found->second.type;
            trace.lines.resize(type == Type::vec2 ? 2 : 1);
            const DialValue numbers = setting_from(found->second);
            for (std::size_t part = 0; part < trace.lines.size(); ++part) {
                const auto value = static_cast<float>(numbers[part]);
                const bool first = trace.lines[0].empty();
                trace.lines[part].push_back(value);
                if (!std::isfinite(value)) continue;
                trace.least = first ? value : std::min(trace.least, value);
                trace.most = first ? value : std::max(trace.most, value);
            }
        }
    }
    return traces;
}

}  // namespace lacquer
