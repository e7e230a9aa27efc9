// What a file holds, as bytes from the process that looked at it, and back.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/picture/confine.h"
#include "core/picture/files_module.h"

namespace lacquer {

std::string packed(const PictureFrames& frames);
std::string packed(const std::vector<PictureLayer>& layers);
std::string packed(const Walls& walls);

// Nothing where the bytes are not of that kind, or hold more than a file can.
std::optional<PictureFrames> unpacked_frames(std::string_view bytes);
std::optional<std::vector<PictureLayer>> unpacked_layers(std::string_view bytes);
std::optional<Walls> unpacked_walls(std::string_view bytes);

}  // namespace lacquer
