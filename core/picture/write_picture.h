// Drawn values as picture files: what the name says is what is written.
#pragma once

#include <span>
#include <string>

#include "core/base/result.h"
#include "core/picture/picture.h"

namespace lacquer {

/// Values to be written: 1 number as grey, 2 as red and green, 3 as colour, 4 as colour with straight opacity. Colours
/// are in linear light; data are numbers as they are.
struct WrittenLayer {
    std::string name;
    const Picture* picture = nullptr;
    bool data = false;
};

/// What a format leaves open.
struct WriteOptions {
    int bits = 0;            ///< of each number; 0 for the format's usual ones
    bool multiplied = true;  ///< opacity multiplied into the colours, in formats with floats that leave it open
};

/// Whether a file of this name holds floats: OpenEXR.
bool holds_floats(const std::string& path);

/// Whether so many layers can be written to a file of this name. Faults: `picture.ending` for one that is no picture
/// that is written, `picture.bits`, `picture.layers`.
Result<Done> check_writing(const std::string& path, std::size_t layers, const WriteOptions& options);

/// Writes layers of one size: `.png` 8 or 16 bits, `.exr` half or float (16, 32) with one or more layers, `.tif` and
/// `.tiff` 8, 16 or 32 bits, `.webp` without loss, `.jpg` and `.jpeg` without opacity. Whole numbers of colours go
/// through the sRGB curve, those of data do not; what lies outside 0..1 is held to it. A device or pipe is written to,
/// a plain file replaced only once the new one is whole. Faults: those of `check_writing`, `file.unwritable`,
/// `picture.unwritable`, `picture.module`.
Result<Done> write_picture(const std::string& path, std::span<const WrittenLayer> layers, const WriteOptions& options);

}  // namespace lacquer
