#include "core/ship/pictures/sprite_sheet.h"

#include <algorithm>
#include <bit>
#include <cstdint>
#include <cstring>
#include <limits>

namespace lacquer {

namespace {

const std::uint8_t* pixel(const Image8& image, int x, int y) {
    return image.data.data() +
           4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(x));
}

int power_of_two(int side) { return static_cast<int>(std::bit_ceil(static_cast<unsigned>(std::max(side, 1)))); }

// As many columns as give the smallest sheet; of equal ones the one that is nearest to a square.
int best_columns(int count, int width, int height, int padding) {
    std::int64_t least = std::numeric_limits<std::int64_t>::max();
    int best = 1;
    for (int columns = 1; columns <= count; ++columns) {
        const int rows = (count + columns - 1) / columns;
        const std::int64_t wide = power_of_two(columns * (width + 2 * padding));
        const std::int64_t high = power_of_two(rows * (height + 2 * padding));
        const std::int64_t cost =
            wide * high * 64 + std::max(wide, high) / std::max<std::int64_t>(1, std::min(wide, high));
        if (cost < least) {
            least = cost;
            best = columns;
        }
    }
    return best;
}

}  // namespace

SheetRectangle trimmed(const Image8& image) {
    int left = image.width;
    int right = -1;
    int top = image.height;
    int bottom = -1;
    for (int y = 0; y < image.height; ++y) {
        for (int x = 0; x < image.width; ++x) {
            if (pixel(image, x, y)[3] == 0) continue;
            left = std::min(left, x);
            right = std::max(right, x);
            top = std::min(top, y);
            bottom = std::max(bottom, y);
        }
    }
    if (right < 0) return {0, 0, 1, 1, 0, 0};
    return {0, 0, right - left + 1, bottom - top + 1, left, top};
}

SpriteSheet sprite_sheet(std::span<const Image8> frames, int padding) {
    SpriteSheet sheet;
    int width = 1;
    int height = 1;
    for (const Image8& frame : frames) {
        sheet.rectangles.push_back(trimmed(frame));
        width = std::max(width, sheet.rectangles.back().width);
        height = std::max(height, sheet.rectangles.back().height);
    }
    const int count = std::max(1, static_cast<int>(frames.size()));
    sheet.columns = best_columns(count, width, height, padding);
    sheet.rows = (count + sheet.columns - 1) / sheet.columns;
    Image8& image = sheet.image;
    image.width = power_of_two(sheet.columns * (width + 2 * padding));
    image.height = power_of_two(sheet.rows * (height + 2 * padding));
    image.data.resize(4 * static_cast<std::size_t>(image.width) * static_cast<std::size_t>(image.height));
    std::fill(image.data.begin(), image.data.end(), std::uint8_t{0});
    for (std::size_t k = 0; k < frames.size(); ++k) {
        SheetRectangle& place = sheet.rectangles[k];
        const int number = static_cast<int>(k);
        place.x = padding + number % sheet.columns * (width + 2 * padding);
        place.y = padding + number / sheet.columns * (height + 2 * padding);
        for (int y = -padding; y < place.height + padding; ++y) {
            for (int x = -padding; x < place.width + padding; ++x) {
                const int from_x = place.left + std::clamp(x, 0, place.width - 1);
                const int from_y = place.top + std::clamp(y, 0, place.height - 1);
                const std::size_t to =
                    4 * (static_cast<std::size_t>(place.y + y) * static_cast<std::size_t>(image.width) +
                         static_cast<std::size_t>(place.x + x));
                std::memcpy(image.data.data() + to, pixel(frames[k], from_x, from_y), 4);
            }
        }
    }
    return sheet;
}

}  // namespace lacquer
