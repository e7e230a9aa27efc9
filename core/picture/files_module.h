// The seam between the core and the module that reads and writes picture files.
#pragma once

#include <string>

#include "core/picture/picture.h"

namespace lacquer {

/// File name of the module; it lies beside the program or in ../lib/lacquer.
inline constexpr const char* picture_module_file = "lacquer-picture-files.so";

enum class PictureRead { done, unreadable, too_large };

using ReadPictureFunction = PictureRead (*)(const std::string& path, bool colour, Picture& picture,
                                            std::string& error) noexcept;
using EncodePngFunction = bool (*)(const Image8& image, std::string& bytes, std::string& error) noexcept;

}  // namespace lacquer
