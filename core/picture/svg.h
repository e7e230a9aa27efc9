// Drawings in SVG, drawn by librsvg. Part of the module that reads picture files.
#pragma once

#include <string>

#include "core/picture/files_module.h"

namespace lacquer {

/// The drawing at its own size, or at 1024 pixels across where it says none; larger ones are drawn at most 8192 pixels
/// across. 4 channels, straight opacity, in linear light unless it is data.
PictureRead read_svg(const std::string& path, PictureMeaning meaning, Picture& picture, std::string& error);

}  // namespace lacquer
