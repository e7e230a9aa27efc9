// Picture files. The library that reads them is a module of its own, loaded when the first picture is needed: it brings
// hundreds of libraries along, and a window should not wait for them.
#pragma once

#include <string>

#include "core/base/result.h"
#include "core/picture/picture.h"

namespace lacquer {

/// What the numbers in a file stand for.
enum class PictureMeaning {
    colour,  ///< whole-number files hold sRGB display values and are turned into linear light; float files are linear
    data     ///< the numbers as they are
};

/// The picture at `path` as 4 channels with straight opacity; grey is spread over the colours, missing opacity is 1.
/// Faults: `picture.missing`, `picture.unreadable`, `picture.too-large`, `picture.module`.
Result<Picture> read_picture(const std::string& path, PictureMeaning meaning);

/// Loads the module now rather than when the first picture is needed. Safe from any thread.
void prepare_picture_files();

/// Writes `image` as a PNG marked as sRGB, with opacity only where some pixel is not opaque; an older file is replaced
/// only once the new one is whole. Faults: `file.unwritable`, `picture.unwritable`, `picture.module`.
Result<Done> write_png(const std::string& path, const Image8& image);

}  // namespace lacquer
