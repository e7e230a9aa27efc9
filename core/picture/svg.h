// Drawings in SVG, drawn by librsvg in a process of its own (svg_program.cpp).
#pragma once

#include <string>

#include "core/picture/files_module.h"
#include "core/picture/reading.h"

namespace lacquer {

/// Whether the file is one, by its name.
bool is_svg(const std::string& path);

/// The drawing at its own size, or at 1024 pixels across where it says none; larger ones are drawn at most 8192 pixels
/// across. 4 channels, straight opacity, in linear light unless it is data. It can read no other file. `watch` is asked
/// again and again, and one that takes longer than `svg_patience_seconds` is given up.
PictureRead read_svg(const std::string& path, PictureMeaning meaning, const ReadWatch& watch, Picture& picture,
                     std::string& error);

}  // namespace lacquer
