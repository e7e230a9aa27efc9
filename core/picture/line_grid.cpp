#include "core/picture/line_grid.h"

#include <algorithm>
#include <cmath>
#include <cstdlib>

namespace lacquer {

Picture line_grid(int width, int height) {
    Picture picture(width, height, 4);
    const int cell = std::max(4, std::max(width, height) / 24);
    const int thick = std::max(1, cell / 16);
    // From the middle outwards, so that the grid is the same on both sides.
    const auto on_line = [&](int place, int size) { return std::abs(place - size / 2) % cell < thick; };
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x) {
            const bool middle = std::abs(x - width / 2) < thick || std::abs(y - height / 2) < thick;
            const double along = static_cast<double>(x) / std::max(1, width - 1);
            const double down = static_cast<double>(y) / std::max(1, height - 1);
            const double off = std::min(std::fabs(along - down), std::fabs(along + down - 1)) * height;
            float* to = picture.at(x, y);
            const float shade = on_line(x, width) || on_line(y, height) ? 0.02F : off < thick ? 0.4F : 0.85F;
            to[0] = middle ? 0.7F : shade;
            to[1] = to[2] = middle ? 0.03F : shade;
            to[3] = 1;
        }
    }
    return picture;
}

}  // namespace lacquer
