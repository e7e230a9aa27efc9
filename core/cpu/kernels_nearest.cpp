// The nearest pixels of two kinds: first within each column, by one sweep down and one up, then across columns.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_nearest.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
// clang-format off
#include <hwy/highway.h>
// clang-format on

#include <algorithm>
#include <array>
#include <atomic>
#include <cstddef>
#include <vector>

#include "core/cpu/native.h"

#ifndef LACQUER_SEARCHED_ROWS
#define LACQUER_SEARCHED_ROWS
namespace lacquer {

/// Columns that are looked at together; a multiple of the lanes of all instruction sets.
inline constexpr std::size_t column_block = 16;
/// Columns beyond the borders, in which there is nothing.
inline constexpr std::size_t beyond = 3 * column_block;

// What a row is searched for: how far down the nearest of a kind is in each column, that squared, and the least square
// of each block of columns. All begin `beyond` columns before the first.
struct SearchedRow {
    const float* down = nullptr;
    const float* square = nullptr;
    const float* least = nullptr;
    std::size_t width = 0;
    float limit = 0;  // what lies further is not looked for
};

}  // namespace lacquer
#endif

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using F = hn::CappedTag<float, column_block>;
using V = hn::Vec<F>;

// One sweep: `here` becomes how far it is to the nearest of a kind among the rows before, which have `before`.
void sweep_row(const float* seeds, const float* before, float* here, std::size_t count) {
    const F d;
    const V one = hn::Set(d, 1.0F);
    const V zero = hn::Zero(d);
    for (std::size_t i = 0; i < count; i += hn::Lanes(d)) {
        const V further = hn::Add(hn::LoadU(d, before + i), one);
        const auto is_here = hn::Lt(hn::LoadU(d, seeds + i), hn::Set(d, 0.5F));
        hn::StoreU(hn::IfThenElse(is_here, zero, further), d, here + i);
    }
}

// Of the nearest above and below the nearer one, below where they are as far; what lies above is less than 0.
void join_row(const float* below, float* above, std::size_t count) {
    const F d;
    for (std::size_t i = 0; i < count; i += hn::Lanes(d)) {
        const V up = hn::LoadU(d, above + i);
        const V down = hn::LoadU(d, below + i);
        hn::StoreU(hn::IfThenElse(hn::Le(down, up), down, hn::Neg(up)), d, above + i);
    }
}

struct Found {
    V best;  // square of the distance
    V across;
    V down;
};

// To one side of the columns from `x` on, nearest first.
template <int side>
HWY_INLINE void search_side(const SearchedRow& row, std::size_t x, Found& found) {
    const F d;
    const std::size_t lanes = hn::Lanes(d);
    const std::size_t last = side > 0 ? row.width - 1 - x : x + lanes - 1;
    for (std::size_t at = 1; at <= last; at += column_block) {
        const float most = hn::GetLane(hn::MaxOfLanes(d, found.best));
        const auto away = static_cast<float>(at * at);
        if (away >= most) return;
        // All columns that any of the lanes looks at now.
        const std::size_t first = beyond + x + (side > 0 ? at : 0) - (side > 0 ? 0 : at + column_block - 1);
        const std::size_t end = first + column_block - 1 + lanes - 1;
        float least = row.least[first / column_block];
        for (std::size_t block = first / column_block + 1; block <= end / column_block; ++block)
            least = std::min(least, row.least[block]);
        if (away + least >= most) continue;
        for (std::size_t i = at; i < at + column_block; ++i) {
            const std::size_t place = beyond + x + (side > 0 ? i : 0) - (side > 0 ? 0 : i);
            const V distance = hn::Add(hn::Set(d, static_cast<float>(i * i)), hn::LoadU(d, row.square + place));
            const auto nearer = hn::Lt(distance, found.best);
            found.best = hn::IfThenElse(nearer, distance, found.best);
            found.across =
                hn::IfThenElse(nearer, hn::Set(d, static_cast<float>(i) * static_cast<float>(side)), found.across);
            found.down = hn::IfThenElse(nearer, hn::LoadU(d, row.down + place), found.down);
        }
    }
}

void search_row(const SearchedRow& row, float* across, float* down) {
    const F d;
    const V limit = hn::Set(d, row.limit);
    for (std::size_t x = 0; x < row.width; x += hn::Lanes(d)) {
        const V own = hn::LoadU(d, row.down + beyond + x);
        Found found;
        found.best = hn::Min(hn::LoadU(d, row.square + beyond + x), hn::Mul(limit, limit));
        found.across = hn::Zero(d);
        found.down = hn::IfThenElse(hn::Gt(hn::Abs(own), limit), hn::Set(d, 1e6F), own);
        search_side<1>(row, x, found);
        search_side<-1>(row, x, found);
        hn::StoreU(found.across, d, across + x);
        hn::StoreU(found.down, d, down + x);
    }
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace lacquer {

namespace {

HWY_EXPORT(sweep_row);
HWY_EXPORT(join_row);
HWY_EXPORT(search_row);

constexpr float nowhere = 1e6F;

// So many numbers that whole vectors of any row can be read and written.
std::size_t padded(int width) {
    return (static_cast<std::size_t>(width) + column_block - 1) / column_block * column_block;
}

// How far down the nearest of one kind is within its own column, for all pixels; rows are `padded`.
struct Columns {
    PlainVector<float> down;
    std::size_t row = 0;
    bool any = false;  // there is one at all
};

// A few columns of it, from `first` on.
class Sweep {
public:
    static constexpr int width = 128;  // columns that stay in the first cache together

    Sweep(const PictureView& seeds, int kind, Columns& to, int first)
        : seeds_(seeds), kind_(kind), to_(to), first_(first), count_(std::min(width, seeds.width - first)) {}

    bool run(const Cancel& cancel) {
        Row before;
        before.fill(nowhere);
        for (int y = 0; y < seeds_.height; ++y) {
            if (y % 64 == 0 && cancel.requested()) return false;
            take_seeds(y);
            HWY_DYNAMIC_DISPATCH(sweep_row)(row_.data(), y == 0 ? before.data() : at(y - 1), at(y), padded(count_));
        }
        for (int y = seeds_.height - 1; y >= 0; --y) {
            if (y % 64 == 0 && cancel.requested()) return false;
            take_seeds(y);
            HWY_DYNAMIC_DISPATCH(sweep_row)(row_.data(), before.data(), before.data(), padded(count_));
            HWY_DYNAMIC_DISPATCH(join_row)(before.data(), at(y), padded(count_));
        }
        return true;
    }

    bool any() const { return any_; }

private:
    using Row = std::array<float, width>;

    float* at(int y) const {
        return to_.down.data() + static_cast<std::size_t>(y) * to_.row + static_cast<std::size_t>(first_);
    }

    void take_seeds(int y) {
        const auto channels = static_cast<std::size_t>(seeds_.channels);
        const float* from =
            seeds_.data +
            (static_cast<std::size_t>(y) * static_cast<std::size_t>(seeds_.width) + static_cast<std::size_t>(first_)) *
                channels +
            static_cast<std::size_t>(kind_);
        row_.fill(nowhere);
        for (std::size_t x = 0; x < static_cast<std::size_t>(count_); ++x) {
            row_[x] = from[x * channels];
            any_ = any_ || row_[x] < 0.5F;
        }
    }

    const PictureView& seeds_;
    const int kind_;
    Columns& to_;
    const int first_;
    const int count_;
    Row row_{};
    bool any_ = false;
};

// The numbers of one row, with room beyond both borders.
class RowSearch {
public:
    explicit RowSearch(int width)
        : width_(static_cast<std::size_t>(width)),
          down_(padded(width) + 2 * beyond, nowhere),
          square_(down_.size(), nowhere * nowhere),
          least_(down_.size() / column_block, nowhere * nowhere),
          across_(padded(width)),
          found_down_(padded(width)) {}

    void run(const Columns& columns, int y, float limit) {
        std::copy_n(columns.down.data() + static_cast<std::size_t>(y) * columns.row, width_, down_.begin() + beyond);
        for (std::size_t x = beyond; x < beyond + width_; ++x) square_[x] = down_[x] * down_[x];
        for (std::size_t block = 0; block < least_.size(); ++block) {
            const auto begin = square_.begin() + static_cast<std::ptrdiff_t>(block * column_block);
            least_[block] = *std::min_element(begin, begin + column_block);
        }
        HWY_DYNAMIC_DISPATCH(search_row)
        ({down_.data(), square_.data(), least_.data(), width_, limit}, across_.data(), found_down_.data());
    }

    const std::vector<float>& across() const { return across_; }
    const std::vector<float>& down() const { return found_down_; }

private:
    std::size_t width_;
    std::vector<float> down_;
    std::vector<float> square_;
    std::vector<float> least_;
    std::vector<float> across_;
    std::vector<float> found_down_;
};

constexpr int kinds = 2;

bool sweep(const PictureView& seeds, std::array<Columns, kinds>& columns, WorkerPool& pool, const Cancel& cancel) {
    for (Columns& of_kind : columns) {
        of_kind.row = padded(seeds.width);
        of_kind.down = PlainVector<float>(of_kind.row * static_cast<std::size_t>(seeds.height));
    }
    std::atomic<bool> whole = true;
    std::array<std::atomic<bool>, kinds> any{};
    const int bands = (seeds.width + Sweep::width - 1) / Sweep::width;
    pool.run(bands * kinds, [&](int piece) {
        const auto kind = static_cast<std::size_t>(piece % kinds);
        Sweep band(seeds, piece % kinds, columns[kind], piece / kinds * Sweep::width);
        if (!band.run(cancel)) whole = false;
        if (band.any()) any[kind] = true;
    });
    for (std::size_t kind = 0; kind < kinds; ++kind) columns[kind].any = any[kind];
    return whole;
}

bool nearest_places(const NativeInputs& inputs, const KernelSet& /*kernels*/, Picture& to, WorkerPool& pool,
                    const Cancel& cancel) {
    std::array<Columns, kinds> columns;
    if (!sweep(inputs.from, columns, pool, cancel)) return false;
    constexpr int rows = 8;
    std::atomic<bool> whole = true;
    pool.run((to.height + rows - 1) / rows, [&](int piece) {
        RowSearch search(to.width);
        for (int y = piece * rows; y < std::min(to.height, (piece + 1) * rows); ++y) {
            if (cancel.requested()) whole = false;
            if (!whole) return;
            for (std::size_t kind = 0; kind < kinds; ++kind) {
                float* pixel = to.at(0, y) + 2 * kind;
                if (columns[kind].any) search.run(columns[kind], y, inputs.argument + 1.0F);
                for (std::size_t x = 0; x < static_cast<std::size_t>(to.width); ++x, pixel += 2 * kinds) {
                    pixel[0] = columns[kind].any ? search.across()[x] : 0.0F;
                    pixel[1] = columns[kind].any ? search.down()[x] : nowhere;
                }
            }
        }
    });
    return whole;
}

}  // namespace

NativeWay nearest_places_way() {
    return {"nearest_places", kinds, 2 * kinds, kinds * sizeof(float), 0, nearest_places};
}

}  // namespace lacquer
#endif
