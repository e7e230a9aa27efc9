#include "core/finish/grounds/stops.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/finish/json_fields.h"
#include "core/finish/kinds.h"
#include "core/finish/stops_table.h"

namespace lacquer {

namespace {

constexpr std::size_t parts_of(StopValues values) { return values == StopValues::colours ? 4 : 1; }

std::vector<Stop> read_list(Fields& fields, const char* key, std::size_t parts) {
    Json list;
    if (!fields.take(key, list)) return {};
    const auto is_stop = [&](const Json& stop) {
        const std::vector<Json>& members = stop.list();
        if (members.size() < parts + 1 || members.size() > parts + 2) return false;
        const auto end_of_numbers = members.begin() + static_cast<std::ptrdiff_t>(parts + 1);
        return std::all_of(members.begin(), end_of_numbers, Fields::is_number) &&
               (end_of_numbers == members.end() || end_of_numbers->is_string());
    };
    const std::vector<Json>& read = list.list();
    if (!list.is_array() || read.size() > max_members || !std::all_of(read.begin(), read.end(), is_stop)) {
        fields.complain(key, fmt::format("a list of stops, each {} numbers", parts + 1));
        return {};
    }
    std::vector<Stop> stops;
    for (const Json& each : read) {
        const std::vector<Json>& members = each.list();
        Stop stop{members[0].number(), {0, 0, 0, 1}, {}};
        for (std::size_t c = 0; c < parts; ++c) stop.value[c] = members[c + 1].number();
        if (members.size() > parts + 1) stop.easing = stop_easing_named(members[parts + 1].text());
        const auto& known = stop_easings();
        if (!stop.easing.empty() && std::find(known.begin(), known.end(), stop.easing) == known.end()) {
            fields.complain(key, "a list of stops with easings such as ease_in");
            stop.easing.clear();
        }
        stops.push_back(stop);
    }
    return stops;
}

}  // namespace

Stops read_stops(Fields& fields, const char* key, StopValues values) {
    Stops stops{read_list(fields, key, parts_of(values))};
    const auto between = stop_mix_named(fields.text("between", "linear"));
    if (!between) fields.complain("between", "linear, srgb, oklab, smooth or stay");
    stops.between = between.value_or(StopMix::straight);
    return stops;
}

void write_stops(Json& object, const char* key, StopValues values, const Stops& stops) {
    Json list = Json::array();
    for (const Stop& stop : stops.list) {
        Json numbers{stop.at};
        for (std::size_t c = 0; c < parts_of(values); ++c) numbers.push_back(stop.value[c]);
        if (!stop.easing.empty()) numbers.push_back(stop.easing);
        list.push_back(std::move(numbers));
    }
    object[key] = std::move(list);
    if (stops.between != StopMix::straight) object["between"] = stop_mix_name(stops.between);
}

}  // namespace lacquer
