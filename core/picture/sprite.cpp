#include "core/picture/sprite.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/picture/sample.h"

namespace lacquer {

namespace {

using Pixel = std::array<float, 4>;

// A part's value at a place of the sprite, clear beyond its borders. Colours are mixed by how opaque they are.
Pixel part_at(const Picture& picture, double u, double v) {
    if (!(u >= 0) || !(v >= 0) || u >= picture.width || v >= picture.height) return {};
    const double x = u - 0.5;
    const double y = v - 0.5;
    const int left = static_cast<int>(std::floor(x));
    const int top = static_cast<int>(std::floor(y));
    const auto across = static_cast<float>(x - left);
    const auto down = static_cast<float>(y - top);
    Pixel sum{};
    for (int j = 0; j < 2; ++j) {
        for (int i = 0; i < 2; ++i) {
            const float weight = (i == 0 ? 1 - across : across) * (j == 0 ? 1 - down : down);
            if (weight <= 0) continue;
            const float* at =
                picture.at(std::clamp(left + i, 0, picture.width - 1), std::clamp(top + j, 0, picture.height - 1));
            for (std::size_t c = 0; c < 3; ++c) sum[c] += weight * at[3] * at[c];
            sum[3] += weight * at[3];
        }
    }
    if (sum[3] <= 0) return {};
    for (std::size_t c = 0; c < 3; ++c) sum[c] /= sum[3];
    return sum;
}

void lay_over(float* below, const Pixel& above) {
    const float opacity = above[3] + below[3] * (1 - above[3]);
    if (opacity <= 0) return;
    for (std::size_t c = 0; c < 3; ++c)
        below[c] = (above[c] * above[3] + below[c] * below[3] * (1 - above[3])) / opacity;
    below[3] = opacity;
}

void fill(Picture& picture, Pixel with) {
    for (std::size_t i = 0; i < picture.data.size(); ++i) picture.data[i] = with[i % 4];
}

// The opposite way for rows: pictures of directions have y upwards.
Pixel direction(const Picture& normals, double u, double v) {
    const Pixel kept = part_at(normals, u, v);
    if (kept[3] <= 0) return {0, 0, 1, 1};
    return {kept[0] * 2 - 1, kept[1] * 2 - 1, kept[2] * 2 - 1, 1};
}

}  // namespace

SpritePictures lay_parts(const std::vector<LaidPart>& parts, int width, int height) {
    SpritePictures made{Picture(width, height, 4), Picture(width, height, 4), Picture(width, height, 4),
                        Picture(width, height, 4)};
    fill(made.colour, {0, 0, 0, 0});
    fill(made.normal, {0, 0, 1, 1});
    fill(made.part, {0, 0, 0, 1});
    fill(made.share, {0, 0, 0, 1});
    for (std::size_t n = 0; n < parts.size(); ++n) {
        const LaidPart& part = parts[n];
        if (part.colour == nullptr || !(part.scale > 0)) continue;
        const Picture& own = *part.colour;
        const double left = part.x - own.width * part.scale / 2;
        const double top = part.y - own.height * part.scale / 2;
        const auto first = [](double from, int most) {
            return static_cast<int>(std::clamp(std::floor(from), 0.0, 1.0 * most));
        };
        const int x1 = first(left + own.width * part.scale + 1, width);
        const int y1 = first(top + own.height * part.scale + 1, height);
        for (int y = first(top, height); y < y1; ++y) {
            for (int x = first(left, width); x < x1; ++x) {
                const double u = (x + 0.5 - left) / part.scale;
                const double v = (y + 0.5 - top) / part.scale;
                const Pixel colour = part_at(own, u, v);
                if (colour[3] <= 0) continue;
                lay_over(made.colour.at(x, y), colour);
                made.part.at(x, y)[0] = static_cast<float>(n + 1);
                made.share.at(x, y)[0] = static_cast<float>(part.share);
                if (part.normal == nullptr) continue;
                const Pixel facing =
                    direction(*part.normal, u * part.normal->width / own.width, v * part.normal->height / own.height);
                std::copy(facing.begin(), facing.end(), made.normal.at(x, y));
            }
        }
    }
    return made;
}

Picture sheet_cell(const Picture& sheet, int columns, int rows, int cell) {
    const int width = std::max(1, sheet.width / std::max(1, columns));
    const int height = std::max(1, sheet.height / std::max(1, rows));
    const int left = std::min(cell % std::max(1, columns) * width, sheet.width - width);
    const int top = std::min(cell / std::max(1, columns) * height, sheet.height - height);
    Picture cut(width, height, sheet.channels);
    for (int y = 0; y < height; ++y) std::copy_n(sheet.at(left, top + y), width * sheet.channels, cut.at(0, y));
    return cut;
}

}  // namespace lacquer
