// Cube tables (`.cube`): colours for colours, as plain text.
#pragma once

#include <array>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/picture/picture.h"

namespace lacquer {

/// A table as a picture of 4 channels. One of three dimensions and N entries a side has N slices side by side, each N x
/// N: red goes across within a slice, green down, blue from slice to slice. One of one dimension is a row. The first
/// entry stands for 0 and the last for 1; where the file says other colours, `least` and `most`, a further row below
/// begins with these two. A row of 4 then has 7 entries, which say the same, lest it look like a table of 2 x 2 x 2.
struct CubeTable {
    std::string title;
    int size = 0;  ///< entries a side
    bool three = true;
    std::array<float, 3> least{0, 0, 0};
    std::array<float, 3> most{1, 1, 1};
    Picture picture;
};

/// Reads the text of a file: TITLE, LUT_1D_SIZE or LUT_3D_SIZE, DOMAIN_MIN, DOMAIN_MAX, comments with #, then a line of
/// three numbers for each entry, red changing fastest. Fault `picture.cube`, with the line concerned.
Result<CubeTable> cube_from_text(std::string_view text, const std::string& where);

/// The table in a file. Faults: `picture.missing`, `picture.unreadable`, `picture.cube`.
Result<CubeTable> read_cube(const std::string& path);

}  // namespace lacquer
