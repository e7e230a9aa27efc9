// What a compiled pass costs, counted.
#pragma once

#include <string>

#include "core/cpu/ir.h"

namespace lacquer {

/// Instructions by how often they run. What stands within a loop is counted once, whatever its turns.
struct PassCost {
    int pixel = 0;   ///< for each pixel, without the readings
    int reads = 0;   ///< readings of pictures for each pixel
    int column = 0;  ///< for each column
    int row = 0;     ///< for each row
    int once = 0;    ///< for the whole picture
    bool loops = false;
};

/// Counts a program that has its rates; constants and the program's inputs cost nothing.
PassCost cost_of(const Ir& ir);

/// "per pixel 7 instructions and 2 readings, per column 3, per row 4, once 1".
std::string to_text(const PassCost& cost);

}  // namespace lacquer
