#include "core/picture/sprite.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <utility>

#include "core/picture/sample.h"

namespace lacquer {

namespace {

using Pixel = std::array<float, 4>;

// A part's value at a place of the sprite, clear beyond its borders. Colours are mixed by how opaque they are. A turned
// part's borders are not in line with the sprite's pixels, so they are softened by one.
Pixel part_at(const Picture& picture, double u, double v, bool soft) {
    const double beyond = soft ? 0.5 : 0;
    if (!(u >= -beyond) || !(v >= -beyond) || u >= picture.width + beyond || v >= picture.height + beyond) return {};
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
            const int px = std::clamp(left + i, 0, picture.width - 1);
            const int py = std::clamp(top + j, 0, picture.height - 1);
            if (weight <= 0 || (soft && (px != left + i || py != top + j))) continue;
            const float* at = picture.at(px, py);
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

// How a part lies: from the sprite's pixels to its own, and its directions back.
struct Lie {
    double x;
    double y;
    double scale;
    double cosine;
    double sine;
    bool mirrored;

    explicit Lie(const LaidPart& part)
        : x(part.x), y(part.y), scale(part.scale), cosine(1), sine(0), mirrored(part.mirrored) {
        if (part.turn == 0) return;
        const double angle = std::fmod(part.turn, 360.0) * std::numbers::pi / 180;
        cosine = std::cos(angle);
        sine = std::sin(angle);
    }
    bool turned() const { return sine != 0 || cosine != 1; }
    std::pair<double, double> own_place(double px, double py, const Picture& own) const {
        // Without a turn it is one sum each, so that whole pixels stay whole.
        if (!turned()) {
            const double u = (px - (x - own.width * scale / 2)) / scale;
            return {mirrored ? own.width - u : u, (py - (y - own.height * scale / 2)) / scale};
        }
        const double across = (cosine * (px - x) + sine * (py - y)) / scale;
        const double down = (cosine * (py - y) - sine * (px - x)) / scale;
        return {own.width / 2.0 + (mirrored ? -across : across), own.height / 2.0 + down};
    }
    // Rows go down, directions up.
    Pixel direction(const Pixel& own) const {
        const double across = mirrored ? -static_cast<double>(own[0]) : static_cast<double>(own[0]);
        const auto up = static_cast<double>(own[1]);
        return {static_cast<float>(cosine * across + sine * up), static_cast<float>(cosine * up - sine * across),
                own[2], 1};
    }
    // The pixels that it can touch, from the first to behind the last.
    std::pair<int, int> span(double middle, double length, double other, int most) const {
        const double half = scale * (std::abs(cosine) * length + std::abs(sine) * other) / 2 + 1;
        const auto within = [&](double at) { return static_cast<int>(std::clamp(std::floor(at), 0.0, 1.0 * most)); };
        return {within(middle - half), within(middle + half + 1)};
    }
};

Pixel direction(const Picture& normals, double u, double v) {
    const Pixel kept = part_at(normals, u, v, false);
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
        const Lie lie(part);
        const auto [x0, x1] = lie.span(part.x, own.width, own.height, width);
        const auto [y0, y1] = lie.span(part.y, own.height, own.width, height);
        for (int y = y0; y < y1; ++y) {
            for (int x = x0; x < x1; ++x) {
                const auto [u, v] = lie.own_place(x + 0.5, y + 0.5, own);
                const Pixel colour = part_at(own, u, v, lie.turned());
                if (colour[3] <= 0) continue;
                lay_over(made.colour.at(x, y), colour);
                made.part.at(x, y)[0] = static_cast<float>(n + 1);
                made.share.at(x, y)[0] = static_cast<float>(part.share);
                if (part.normal == nullptr) continue;
                const Pixel facing = lie.direction(
                    direction(*part.normal, u * part.normal->width / own.width, v * part.normal->height / own.height));
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
