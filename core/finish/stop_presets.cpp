#include "core/finish/stop_presets.h"

#include <algorithm>
#include <cmath>

#include "core/picture/transfer.h"

namespace lacquer {

namespace {

// A stop from display values, eight bits each, as they are read off a screen.
Stop colour(double at, int red, int green, int blue, double brightness = 1, double opacity = 1) {
    const auto light = [&](int level) { return std::round(srgb_decode(level / 255.0) * brightness * 1e4) / 1e4; };
    return {at, {light(red), light(green), light(blue), opacity}, {}};
}

Stop height(double at, double value, std::string easing = {}) { return {at, {value, 0, 0, 1}, std::move(easing)}; }

std::vector<StopPreset> gradients() {
    return {
        {"black to white", {{colour(0, 0, 0, 0), colour(1, 255, 255, 255)}, StopMix::display}},
        {"transparent to white", {{colour(0, 255, 255, 255, 1, 0), colour(1, 255, 255, 255)}, StopMix::straight}},
        {"lamp light",
         {{colour(0, 20, 8, 2), colour(0.45, 214, 110, 32), colour(0.8, 255, 206, 120, 2), colour(1, 255, 240, 214, 6)},
          StopMix::straight}},
        {"ember",
         {{colour(0, 0, 0, 0), colour(0.4, 120, 14, 6), colour(0.7, 246, 92, 14, 2), colour(1, 255, 226, 130, 5)},
          StopMix::straight}},
        {"storm sky",
         {{colour(0, 18, 24, 32), colour(0.55, 62, 78, 88), colour(0.85, 122, 128, 118), colour(1, 178, 164, 128)},
          StopMix::oklab}},
        {"sea depth",
         {{colour(0, 198, 222, 206), colour(0.3, 62, 146, 148), colour(0.7, 18, 72, 96), colour(1, 6, 22, 40)},
          StopMix::oklab}},
        {"dusk",
         {{colour(0, 24, 22, 48), colour(0.4, 96, 56, 92), colour(0.7, 214, 112, 92), colour(1, 250, 206, 142)},
          StopMix::oklab}},
        {"bruise",
         {{colour(0, 54, 20, 46), colour(0.5, 118, 44, 56), colour(0.8, 150, 120, 62), colour(1, 186, 170, 110)},
          StopMix::oklab}},
        {"old paper",
         {{colour(0, 74, 56, 40), colour(0.5, 176, 150, 112), colour(1, 236, 224, 194)}, StopMix::straight}},
        {"three tones",
         {{colour(0, 34, 36, 46), colour(0.34, 112, 104, 98), colour(0.67, 226, 214, 190)}, StopMix::hold}}};
}

std::vector<StopPreset> curves() {
    return {
        {"rising", {{height(0, 0), height(1, 1)}, StopMix::straight}},
        {"falling", {{height(0, 1), height(1, 0)}, StopMix::straight}},
        {"gentle rise", {{height(0, 0), height(1, 1)}, StopMix::smooth}},
        {"there and back", {{height(0, 0), height(0.5, 1), height(1, 0)}, StopMix::smooth}},
        {"blow", {{height(0, 0, "ease_out"), height(0.08, 1, "ease_out"), height(1, 0)}, StopMix::straight}},
        {"swell", {{height(0, 0, "ease_in"), height(0.7, 1, "ease_in_out"), height(1, 0)}, StopMix::straight}},
        {"overshoot", {{height(0, 0), height(0.55, 1.15), height(0.8, 0.95), height(1, 1)}, StopMix::smooth}},
        {"four steps", {{height(0, 0), height(0.25, 1.0 / 3), height(0.5, 2.0 / 3), height(0.75, 1)}, StopMix::hold}}};
}

}  // namespace

const std::vector<StopPreset>& stop_presets(StopValues values) {
    static const std::vector<StopPreset> colours = gradients();
    static const std::vector<StopPreset> heights = curves();
    return values == StopValues::colours ? colours : heights;
}

const StopPreset* find_stop_preset(StopValues values, std::string_view name) {
    const std::vector<StopPreset>& presets = stop_presets(values);
    const auto found =
        std::find_if(presets.begin(), presets.end(), [&](const StopPreset& p) { return p.name == name; });
    return found != presets.end() ? &*found : nullptr;
}

}  // namespace lacquer
