#include "core/scene/places.h"

#include <algorithm>
#include <array>
#include <cmath>

namespace lacquer {

namespace {

struct HourName {
    Hour hour;
    std::string_view name;
};
constexpr std::array<HourName, 3> hours = {{{Hour::day, "day"}, {Hour::dusk, "dusk"}, {Hour::storm, "storm"}}};

}  // namespace

const std::vector<ScenePlace>& scene_places() {
    static const std::vector<ScenePlace> places = {harbour(), lamp_room()};
    return places;
}

const ScenePlace* find_place(std::string_view name) {
    const auto& places = scene_places();
    const auto found =
        std::find_if(places.begin(), places.end(), [&](const ScenePlace& place) { return place.name == name; });
    return found != places.end() ? &*found : nullptr;
}

std::optional<Hour> hour_named(std::string_view name) {
    for (const HourName& hour : hours) {
        if (hour.name == name) return hour.hour;
    }
    return std::nullopt;
}

std::string_view name_of(Hour hour) { return hours[static_cast<std::size_t>(hour)].name; }

float swell_of(Hour hour) { return hour == Hour::storm ? 0.75F : hour == Hour::dusk ? 0.3F : 0.4F; }

Sky sky_of(Hour hour, double seconds) {
    Sky sky;
    switch (hour) {
        case Hour::day:
            sky.high = {0.13F, 0.27F, 0.50F};
            sky.low = {0.56F, 0.66F, 0.72F};
            sky.light = {1.15F, 1.05F, 0.88F};
            sky.towards_light = {0.55, 0.62, 0.45};
            sky.fog = 0.0035F;
            sky.cloud = 0.3F;
            break;
        case Hour::dusk:
            sky.high = {0.055F, 0.075F, 0.17F};
            sky.low = {0.62F, 0.27F, 0.13F};
            sky.light = {0.95F, 0.42F, 0.20F};
            sky.towards_light = {-0.62, 0.16, -0.55};
            sky.fog = 0.005F;
            sky.cloud = 0.5F;
            break;
        case Hour::storm: {
            sky.high = {0.009F, 0.014F, 0.022F};
            sky.low = {0.030F, 0.043F, 0.055F};
            sky.light = {0.065F, 0.085F, 0.11F};
            sky.towards_light = {-0.35, 0.6, 0.5};
            sky.fog = 0.010F;
            sky.cloud = 0.75F;
            // Lightning far off, now and then: bright at once, dying away within a second.
            const double since = seconds - 7 * std::floor(seconds / 7) - 2.2;
            const float flash = since > 0 && since < 1 ? static_cast<float>((1 - since) * (1 - since)) : 0.0F;
            for (std::size_t c = 0; c < 3; ++c) sky.low[c] += flash * std::array{0.10F, 0.13F, 0.18F}[c];
            break;
        }
    }
    return sky;
}

}  // namespace lacquer
