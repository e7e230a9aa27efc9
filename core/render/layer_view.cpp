#include "core/render/layer_view.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/hash.h"
#include "core/picture/transfer.h"

namespace lacquer {

namespace {

using Rgb = std::array<double, 3>;  // display values

constexpr double middle_distance = 20;  // metres: shown as middle grey
constexpr double metres_a_turn = 4;

Rgb of_depth(const float* v) {
    const double grey = 1 / (1 + std::max(0.0, static_cast<double>(v[0])) / middle_distance);
    return {grey, grey, grey};
}

Rgb of_normal(const float* v) {
    return {0.5 + 0.5 * static_cast<double>(v[0]), 0.5 + 0.5 * static_cast<double>(v[1]),
            0.5 + 0.5 * static_cast<double>(v[2])};
}

Rgb of_position(const float* v) {
    Rgb shown{};
    for (std::size_t c = 0; c < 3; ++c) {
        const double turns = static_cast<double>(v[c]) / metres_a_turn;
        shown[c] = 0.15 + 0.7 * (turns - std::floor(turns));
    }
    return shown;
}

Rgb of_id(const float* v) {
    if (!(v[0] > 0)) return {0.08, 0.08, 0.08};
    // Whatever a file holds in the place of numbers.
    const std::uint32_t hash = pcg(static_cast<std::uint32_t>(std::min(static_cast<double>(v[0]), 4294967295.0)));
    const auto part = [&](unsigned shift) { return 0.25 + 0.7 * static_cast<double>(hash >> shift & 255U) / 255; };
    return {part(0), part(8), part(16)};
}

}  // namespace

bool needs_layer_view(GroundLayer layer) {
    switch (layer) {
        case GroundLayer::colour:
        case GroundLayer::marks:
        case GroundLayer::share:
        case GroundLayer::age:
        case GroundLayer::seed:
        case GroundLayer::place:
        case GroundLayer::push:
            return false;
        case GroundLayer::depth:
        case GroundLayer::normal:
        case GroundLayer::position:
        case GroundLayer::id:
        case GroundLayer::part:
            break;
    }
    return true;
}

std::optional<GroundLayer> layer_to_view(const Finish& finish, std::string_view name) {
    if (find_step(finish, name) != nullptr) return std::nullopt;
    const std::optional<NamedPicture> ground = find_ground_picture(finish, name);
    if (!ground || !needs_layer_view(ground->picture.layer)) return std::nullopt;
    return ground->picture.layer;
}

Picture layer_view(const Picture& values, GroundLayer layer) {
    Picture shown(values.width, values.height, 3);
    const auto make = layer == GroundLayer::depth                              ? of_depth
                      : layer == GroundLayer::normal                           ? of_normal
                      : layer == GroundLayer::id || layer == GroundLayer::part ? of_id
                                                                               : of_position;
    for (int y = 0; y < values.height; ++y) {
        for (int x = 0; x < values.width; ++x) {
            const Rgb colour = make(values.at(x, y));
            for (std::size_t c = 0; c < 3; ++c) {
                const double held = std::isfinite(colour[c]) ? std::clamp(colour[c], 0.0, 1.0) : 0.0;
                shown.at(x, y)[c] = static_cast<float>(srgb_decode(held));
            }
        }
    }
    return shown;
}

}  // namespace lacquer
