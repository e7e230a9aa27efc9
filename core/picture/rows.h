// Rows of numbers as files hold them, turned into a picture's.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

#include "core/picture/coded.h"
#include "core/picture/files_module.h"
#include "core/picture/picture.h"

namespace lacquer {

/// Some rows: `stride` numbers a pixel, grey or colours, then opacity where there are 2 or 4; shares of the largest
/// whole number where the file holds those.
struct Rows {
    std::vector<float> channels;
    std::size_t stride = 4;
    PictureMeaning meaning = PictureMeaning::colour;
    bool whole_numbers = true;
    bool eight_bits = true;
};

/// Puts them into a picture of 4 channels from row `first` on: whole numbers of colours through the sRGB curve, opacity
/// taken out of them where it was multiplied in. `rows` is used up.
void put_rows(Rows& rows, Picture& picture, int first);

/// As what a picture of whole numbers of 8 bits is kept; numbers where opacity was multiplied into its colours.
Coding coding_of(PictureMeaning meaning);

/// Puts rows of bytes, `stride` a pixel: grey or colours, then opacity where there are 2 or 4, into a picture of bytes
/// from row `first` on.
void put_byte_rows(const std::uint8_t* from, std::size_t stride, std::size_t pixels, Picture& picture, int first);

}  // namespace lacquer
