// PNG by libspng, without the large picture library. Source of the format: W3C PNG, third edition.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/picture/files_module.h"
#include "core/picture/picture.h"
#include "core/picture/reading.h"

namespace lacquer {

/// Whether a file begins as a PNG that holds one picture; one that moves is for the large library.
bool is_still_png(const std::string& path);

/// As `read_picture`. Texts and profiles of more than a few megabytes are refused, whatever they would inflate to.
PictureRead read_png(const std::string& path, PictureMeaning meaning, const ReadWatch& watch, Picture& picture,
                     std::string& error);

/// Width and height, and how many bits and channels.
struct PngShape {
    int width = 0;
    int height = 0;
    int channels = 4;  ///< 1 grey, 3 colour, 4 colour and straight opacity
    int bits = 8;      ///< 8 or 16
    bool srgb = true;  ///< marked as display values
};

/// The file's bytes for rows of whole numbers, from the top; those of 16 bits as the processor has them. Empty, with a
/// reason, where it cannot be.
std::string png_of(const PngShape& shape, const void* numbers, std::size_t bytes, std::string& error);

/// The file's bytes for display values with straight opacity. Faults: `picture.unwritable`.
Result<std::string> png_bytes(const Image8& image);

}  // namespace lacquer
