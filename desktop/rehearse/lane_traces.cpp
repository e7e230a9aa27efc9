#include "desktop/rehearse/lane_traces.h"

#include <algorithm>
#include <cmath>

#include "desktop/playing/drop_counts.h"

namespace lacquer {

namespace {

LaneTrace count_trace(const Play& play, const std::string& ground, double from, double to, int samples) {
    LaneTrace trace;
    trace.lines.push_back(drop_counts(play, ground, from, to, samples));
    const auto [least, most] = std::minmax_element(trace.lines[0].begin(), trace.lines[0].end());
    trace.least = *least;
    trace.most = *most;
    return trace;
}

}  // namespace

std::string counted_drops(const std::string& name) {
    constexpr std::string_view ending = ".count";
    return name.ends_with(ending) ? name.substr(0, name.size() - ending.size()) : std::string();
}

LaneTraces lane_traces(const Play& play, const std::vector<std::string>& names, double from, double to, int samples) {
    LaneTraces traces;
    if (names.empty()) return traces;
    for (const std::string& name : names) {
        const std::string drops = counted_drops(name);
        if (play.emitter(drops) != nullptr) traces[name] = count_trace(play, drops, from, to, samples);
    }
    for (int i = 0; i < samples; ++i) {
        const DriveValues values = play.values(from + (to - from) * i / (samples - 1));
        for (const std::string& name : names) {
            const auto found = values.find(name);
            if (found == values.end() || !counted_drops(name).empty()) continue;
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
