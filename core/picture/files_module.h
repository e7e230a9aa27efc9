// The seam between the core and the module that reads and writes picture files.
#pragma once

#include <string>
#include <vector>

#include "core/picture/picture.h"

namespace lacquer {

/// File name of the module; it lies beside the program or in ../lib/lacquer.
inline constexpr const char* picture_module_file = "lacquer-picture-files.so";

enum class PictureRead { done, unreadable, too_large };

/// What the numbers in a file stand for.
enum class PictureMeaning {
    colour,  ///< whole-number files hold sRGB display values and are turned into linear light; float files are linear
    multiplied,  ///< the same, with opacity multiplied into the display values, which is undone
    straight,    ///< as colour, with nothing multiplied in, whatever is usual for such files
    data         ///< the numbers as they are
};

/// What a file's colours have to do with its opacity: what is usual for its kind and what it says itself, or what the
/// artist knows better.
enum class FileOpacity { as_marked, multiplied, straight };

/// The pictures that a file holds one after another.
struct PictureFrames {
    int count = 1;
    std::vector<double> ends;  ///< seconds from the beginning, of each picture; empty for a still
};

using PictureFramesFunction = PictureRead (*)(const std::string& path, PictureFrames& frames,
                                              std::string& error) noexcept;
/// Some channels of a file that belong together, such as R, G, B and A, or those whose names begin with "N.".
struct PictureLayer {
    std::string name;                   ///< what stands before the point, or the part's own name; may be empty
    std::vector<std::string> channels;  ///< full names, in the order in which they are read
    int width = 0;                      ///< of the display window, pixels
    int height = 0;
};

/// A channel to be written: one of a picture's.
struct WrittenChannel {
    std::string name;
    const Picture* picture = nullptr;
    int channel = 0;
    bool half = false;  ///< 16 bits rather than 32
};

using PictureLayersFunction = PictureRead (*)(const std::string& path, std::vector<PictureLayer>& layers,
                                              std::string& error) noexcept;
/// A picture to be written by the library: rows of numbers of so many bits, from the top.
struct EncodedPicture {
    const char* format = "tiff";       ///< tiff, webp or jpeg
    const char* compression = "none";  ///< as the library names it
    int width = 0;
    int height = 0;
    int channels = 4;
    int bits = 8;  ///< 8, 16, or 32 for floats
    const void* numbers = nullptr;
    bool straight = true;  ///< opacity is not multiplied into the colours
    bool srgb = true;      ///< display values
};

/// An attribute of OpenEXR files of ours, 1 where opacity is not multiplied into the colours, as it usually is there.
inline constexpr const char* straight_mark = "straightOpacity";

using EncodeExrFunction = bool (*)(const std::vector<WrittenChannel>& channels, bool straight, std::string& bytes,
                                   std::string& error) noexcept;
using EncodePictureFunction = bool (*)(const EncodedPicture& picture, std::string& bytes, std::string& error) noexcept;

}  // namespace lacquer
