#include "core/scene/capture.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <initializer_list>

namespace lacquer {

namespace {

std::string lower(std::string text) {
    std::transform(text.begin(), text.end(), text.begin(),
                   [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
    return text;
}

// The first layer that is called one of these, or whose last part is: "main.normal" is called "normal".
std::string called(const std::vector<PictureLayer>& layers, std::initializer_list<std::string_view> names) {
    for (const std::string_view name : names) {
        for (const PictureLayer& layer : layers) {
            const std::string own = lower(layer.name);
            if (own == name || own.substr(own.rfind('.') + 1) == name) return layer.name;
        }
    }
    return no_layer;
}

}  // namespace

CaptureLayers found_layers(const std::vector<PictureLayer>& layers, const CaptureLayers& chosen) {
    CaptureLayers found = chosen;
    const auto find = [&](std::string& layer, std::initializer_list<std::string_view> names) {
        if (layer.empty()) layer = called(layers, names);
    };
    find(found.colour, {"", "rgba", "rgb", "colour", "color", "beauty"});
    find(found.depth, {"z", "depth"});
    find(found.normal, {"n", "normal", "normals"});
    find(found.position, {"p", "position", "pos", "world", "worldposition"});
    find(found.id, {"id", "objectid", "object", "ids"});
    // A file with one layer only, whatever it is called, shows that.
    if (found.colour == no_layer && chosen.colour.empty() && !layers.empty()) found.colour = layers.front().name;
    return found;
}

Result<Done> write_capture(const std::string& path, const SceneLayers& layers, CaptureBits bits) {
    const bool half = bits == CaptureBits::half_colours;
    std::vector<WrittenChannel> channels;
    const auto add = [&](const Picture& picture, std::initializer_list<const char*> names, bool in_half = false) {
        if (picture.data.empty()) return;
        int channel = 0;
        for (const char* name : names) channels.push_back({name, &picture, channel++, in_half});
    };
    add(layers.colour, {"R", "G", "B", "A"}, half);
    add(layers.depth, {"Z"});
    add(layers.normal, {"N.X", "N.Y", "N.Z"}, half);
    add(layers.position, {"P.X", "P.Y", "P.Z"});
    add(layers.id, {"id"});
    return write_exr(path, channels);
}

}  // namespace lacquer
