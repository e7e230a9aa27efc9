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
    const PictureView view = view_of(picture);
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
            const std::array<float, 4> at = fetch(view, px, py);
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

namespace {

// The pixels that a part can touch.
struct Reach {
    int left = 0;
    int right = 0;  ///< behind the last
    int top = 0;
    int bottom = 0;
};

Reach reach_of(const LaidPart& part, int width, int height) {
    if (part.colour == nullptr || !(part.scale > 0)) return {};
    const Lie lie(part);
    const auto [x0, x1] = lie.span(part.x, part.colour->width, part.colour->height, width);
    const auto [y0, y1] = lie.span(part.y, part.colour->height, part.colour->width, height);
    return {x0, x1, y0, y1};
}

// One row of one part.
void lay_row(const LaidPart& part, std::size_t number, const Reach& reach, int y, SpriteLayer layer, Picture& made) {
    const Picture& own = *part.colour;
    const Lie lie(part);
    for (int x = reach.left; x < reach.right; ++x) {
        const auto [u, v] = lie.own_place(x + 0.5, y + 0.5, own);
        const Pixel colour = part_at(own, u, v, lie.turned());
        if (colour[3] <= 0) continue;
        float* to = made.at(x, y);
        switch (layer) {
            case SpriteLayer::colour:
                lay_over(to, colour);
                break;
            case SpriteLayer::part:
                *to = static_cast<float>(number + 1);
                break;
            case SpriteLayer::share:
                *to = static_cast<float>(part.share);
                break;
            case SpriteLayer::normal:
                if (part.normal == nullptr) break;
                const Pixel facing = lie.direction(
                    direction(*part.normal, u * part.normal->width / own.width, v * part.normal->height / own.height));
                std::copy(facing.begin(), facing.end(), to);
                break;
        }
    }
}

}  // namespace

std::int64_t touched_pixels(const std::vector<LaidPart>& parts, int width, int height) {
    std::int64_t sum = 0;
    for (const LaidPart& part : parts) {
        const Reach reach = reach_of(part, width, height);
        sum += static_cast<std::int64_t>(reach.right - reach.left) * (reach.bottom - reach.top);
    }
    return sum;
}

Picture lay_parts(const std::vector<LaidPart>& parts, int width, int height, SpriteLayer layer, WorkerPool& pool,
                  const Cancel& cancel) {
    Picture made(width, height, channels_of(layer));
    std::vector<Reach> reaches;
    for (const LaidPart& part : parts) reaches.push_back(reach_of(part, width, height));
    constexpr int band = 8;
    pool.run((height + band - 1) / band, [&](int nth) {
        for (int y = nth * band; y < std::min(height, (nth + 1) * band) && !cancel.requested(); ++y) {
            float* row = made.at(0, y);
            std::fill_n(row, static_cast<std::size_t>(width) * static_cast<std::size_t>(made.channels), 0.0F);
            for (int x = 0; layer == SpriteLayer::normal && x < width; ++x) row[x * 4 + 2] = row[x * 4 + 3] = 1;
            for (std::size_t n = 0; n < parts.size() && !cancel.requested(); ++n) {
                const Reach& reach = reaches[n];
                if (y >= reach.top && y < reach.bottom) lay_row(parts[n], n, reach, y, layer, made);
            }
        }
    });
    return made;
}

Picture sheet_cell(const Picture& sheet, int columns, int rows, int cell) {
    const int width = std::max(1, sheet.width / std::max(1, columns));
    const int height = std::max(1, sheet.height / std::max(1, rows));
    const int left = std::min(cell % std::max(1, columns) * width, sheet.width - width);
    const int top = std::min(cell / std::max(1, columns) * height, sheet.height - height);
    if (sheet.coding != Coding::numbers) {
        Picture cut = Picture::of_bytes(width, height, sheet.coding);
        for (int y = 0; y < height; ++y) std::copy_n(sheet.bytes_at(left, top + y), width * 4, cut.bytes_at(0, y));
        return cut;
    }
    Picture cut(width, height, sheet.channels);
    for (int y = 0; y < height; ++y) std::copy_n(sheet.at(left, top + y), width * sheet.channels, cut.at(0, y));
    return cut;
}

}  // namespace lacquer
