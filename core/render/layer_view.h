// Depth, normals, positions and ids as colours that tell them apart.
#pragma once

#include <optional>
#include <string_view>

#include "core/finish/ground_pictures.h"
#include "core/picture/picture.h"

namespace lacquer {

/// True for a layer whose numbers say little when they are shown as they are.
bool needs_layer_view(GroundLayer layer);

/// The layer that a name stands for, where it is a picture of the finish's grounds of that kind, and no step.
std::optional<GroundLayer> layer_to_view(const Finish& finish, std::string_view name);

/// The layer as a picture of 3 channels in linear light: depth the darker the farther, normals and positions by their
/// parts, with lines every 4 metres, each object in a colour of its own.
Picture layer_view(const Picture& values, GroundLayer layer);

}  // namespace lacquer
