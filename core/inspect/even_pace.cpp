#include "core/inspect/even_pace.h"

#include <algorithm>
#include <cmath>
#include <vector>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/stops_table.h"
#include "core/lang/rename.h"
#include "core/picture/table.h"

namespace lacquer {

namespace {

constexpr int grid = 1000;  // places of stops are thousandths
constexpr std::size_t most_stops = 64;
constexpr double even_enough = 0.002;

// The share of the way at a height, 0..1 of the range.
double share_at(const std::vector<WayPoint>& way, double height) {
    const auto after = std::lower_bound(way.begin(), way.end(), height,
                                        [](const WayPoint& point, double at) { return point.value < at; });
    if (after == way.begin()) return way.front().share;
    if (after == way.end()) return way.back().share;
    const WayPoint& before = *(after - 1);
    const double wide = after->value - before.value;
    const double part = wide > 0 ? (height - before.value) / wide : 1;
    return before.share + (after->share - before.share) * part;
}

// As few straight parts as keep what they give even.
Stops inverse_of(const Way& way) {
    const auto height_at = [&](int place) {
        return std::round(way.value_at(static_cast<double>(place) / grid) * 1e7) / 1e7;
    };
    std::vector<std::pair<int, double>> stops = {{0, 0.0}, {grid, 1.0}};
    while (stops.size() < most_stops) {
        double worst = even_enough;
        std::size_t worst_part = 0;
        for (std::size_t part = 1; part < stops.size(); ++part) {
            const auto& [left, low] = stops[part - 1];
            const auto& [right, high] = stops[part];
            for (int place = left + 1; place < right; ++place) {
                const double height = low + (high - low) * (place - left) / (right - left);
                const double off = std::fabs(share_at(way.points, height) - static_cast<double>(place) / grid);
                if (off <= worst) continue;
                worst = off;
                worst_part = part;
            }
        }
        if (worst_part == 0) break;
        // In the middle, not where it is worst: beside an edge that would be its neighbour for ever.
        const int middle = (stops[worst_part - 1].first + stops[worst_part].first) / 2;
        stops.insert(stops.begin() + static_cast<std::ptrdiff_t>(worst_part), {middle, height_at(middle)});
    }
    Stops made;
    for (const auto& [place, height] : stops)
        made.list.push_back({static_cast<double>(place) / grid, {height, 0, 0, 1}, {}});
    return made;
}

// The way over the heights of the curve that is there already, or over the share of the range.
Way over_heights(const Way& way, const Sweep& sweep, const CurveGround* curve) {
    Way heights = way;
    const Picture table = curve != nullptr ? stops_table(curve->stops) : Picture();
    double most = 0;
    for (WayPoint& point : heights.points) {
        const double share = (point.value - sweep.from) / (sweep.to - sweep.from);
        point.value = curve != nullptr ? table_value(table, share)[0] : share;
        point.share = most = std::max(most, point.share);
    }
    return heights;
}

// What looks the curve up: over the range, if that is not 0..1.
std::string lookup_formula(const std::string& curve, const Sweep& sweep) {
    if (sweep.from == 0 && sweep.to == 1) return "at(" + curve + ", " + sweep.dial + ")";
    const std::string from = shortest_number(sweep.from);
    const std::string to = shortest_number(sweep.to);
    return "mix(" + from + ", " + to + ", at(" + curve + ", (" + sweep.dial + " - (" + from + ")) / (" + to + " - (" +
           from + "))))";
}

// The curve by which the dial is evened over this very range; null if it is not.
const Ground* present_curve(const Finish& finish, const Sweep& sweep) {
    const Ground* found = nullptr;
    for (const Ground& ground : finish.grounds) {
        if (ground.as<CurveGround>() == nullptr) continue;
        const std::string formula = lookup_formula(ground.name, sweep);
        for_each_step(finish, [&](const Coat&, const Step& step) {
            if (step.formula == formula) found = &ground;
        });
    }
    return found;
}

std::string name_with(const std::string& dial, const char* end, const Finish& finish) {
    return free_name(finish, dial.substr(0, max_name_length - 7) + end);
}

}  // namespace

Result<Finish> even_the_pace(const Finish& finish, const Sweep& sweep, const Way& way) {
    if (find_dial(finish, sweep.dial) == nullptr || way.points.size() < 2 || !way.is_one_way)
        return Fault{"edit.pace", "this way can't be evened", "measure it again", {sweep.dial, {}, 0, 0}};
    const Ground* there = present_curve(finish, sweep);
    const CurveGround* curve = there != nullptr ? there->as<CurveGround>() : nullptr;
    Stops stops = inverse_of(over_heights(way, sweep, curve));
    Finish changed = finish;
    if (there != nullptr) {
        const auto own = std::find_if(changed.grounds.begin(), changed.grounds.end(),
                                      [&](const Ground& ground) { return ground.name == there->name; });
        own->as<CurveGround>()->stops = std::move(stops);
        return changed;
    }
    const std::string curve_name = name_with(sweep.dial, "_pace", finish);
    Step step{name_with(sweep.dial, "_even", finish), lookup_formula(curve_name, sweep)};
    step.note = "evens the pace of " + shown_name(sweep.dial);
    for (Coat& coat : changed.coats) {
        for (Step& own : coat.steps.own()) own.formula = rename_in_formula(own.formula, sweep.dial, step.name);
    }
    Ground ground;
    ground.name = curve_name;
    ground.kind = CurveGround{std::move(stops)};
    changed.grounds.push_back(std::move(ground));
    if (changed.coats.empty()) changed.coats.emplace_back();
    auto& steps = changed.coats.front().steps.own();
    steps.insert(steps.begin(), std::move(step));
    return changed;
}

}  // namespace lacquer
