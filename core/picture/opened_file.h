// A picture file opened by OpenImageIO, and what is done with all that it gives. Part of the module that reads picture
// files.
#pragma once

#include <OpenImageIO/imageio.h>

#include <memory>
#include <string>

#include "core/picture/files_module.h"

namespace lacquer {

/// Most channels that a file's part may have.
inline constexpr int most_channels = 256;
/// Rows that are read at a time, so that beside the picture little more is held.
inline constexpr int rows_at_once = 64;

/// Opens a file at one of its parts, counted from 0, by a reader that is chosen by the file's first bytes. What it
/// gives is checked before any of it is held in memory.
PictureRead open_at(const std::string& path, int part, std::unique_ptr<OIIO::ImageInput>& input, std::string& error);

/// The picture within its display window: what lies beyond is cut off, what it does not fill is clear.
Picture in_display_window(Picture data, const OIIO::ImageSpec& spec);

/// Whether nothing of its display window is left over, and nothing lies beyond.
bool fills_display_window(const OIIO::ImageSpec& spec);

/// Whether the file says that opacity is not multiplied into its colours.
bool is_straight(const OIIO::ImageSpec& spec);
/// Whether opacity has to be taken out of colours that are floats.
bool is_multiplied(const OIIO::ImageSpec& spec, PictureMeaning meaning);

/// Divides colours of 4 channels by their opacity, where there is any.
void to_straight(Picture& picture);

}  // namespace lacquer
