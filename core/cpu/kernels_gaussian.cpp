// A Gaussian along one axis, tap by tap in the order in which the text of the operation adds them up.
#undef HWY_TARGET_INCLUDE
#define HWY_TARGET_INCLUDE "core/cpu/kernels_gaussian.cpp"
#include <hwy/foreach_target.h>
// The order matters to Highway.
// clang-format off
#include <hwy/highway.h>
// clang-format on

#include <algorithm>
#include <atomic>
#include <cmath>
#include <span>
#include <vector>

#include "core/cpu/native.h"

#ifndef LACQUER_GAUSSIAN_LINES
#define LACQUER_GAUSSIAN_LINES
namespace lacquer {

// Numbers at one place before or after the middle, mixed of two neighbours.
struct LineTap {
    const float* near = nullptr;
    const float* next = nullptr;
    float share = 0;  // of the next one
};

// Two places at the same distance, and how much they count.
struct LinePair {
    LineTap after;
    LineTap before;
    float weight = 0;
};

struct GaussianLine {
    const float* middle = nullptr;
    std::span<const LinePair> pairs;
    float total = 1;
};

}  // namespace lacquer
#endif

HWY_BEFORE_NAMESPACE();
namespace lacquer::HWY_NAMESPACE {
namespace hn = hwy::HWY_NAMESPACE;

using F = hn::ScalableTag<float>;
using V = hn::Vec<F>;

HWY_INLINE V read(const LineTap& tap, std::size_t at) {
    const F d;
    const V near = hn::LoadU(d, tap.near + at);
    if (tap.share == 0.0F) return near;
    const V next = hn::LoadU(d, tap.next + at);
    return hn::Add(hn::Mul(near, hn::Set(d, 1.0F - tap.share)), hn::Mul(next, hn::Set(d, tap.share)));
}

// Some vectors at once, so that each pair is looked up once for all of them.
template <std::size_t vectors>
HWY_INLINE void weigh_some(const GaussianLine& line, std::size_t at, float* to) {
    const F d;
    const std::size_t lanes = hn::Lanes(d);
    V a = hn::LoadU(d, line.middle + at);
    V b = vectors > 1 ? hn::LoadU(d, line.middle + at + lanes) : a;
    V c = vectors > 2 ? hn::LoadU(d, line.middle + at + 2 * lanes) : a;
    V e = vectors > 3 ? hn::LoadU(d, line.middle + at + 3 * lanes) : a;
    for (const LinePair& pair : line.pairs) {
        const V weight = hn::Set(d, pair.weight);
        const auto both = [&](std::size_t place) {
            return hn::Mul(hn::Add(read(pair.after, place), read(pair.before, place)), weight);
        };
        a = hn::Add(a, both(at));
        if (vectors > 1) b = hn::Add(b, both(at + lanes));
        if (vectors > 2) c = hn::Add(c, both(at + 2 * lanes));
        if (vectors > 3) e = hn::Add(e, both(at + 3 * lanes));
    }
    const V total = hn::Set(d, line.total);
    hn::StoreU(hn::Div(a, total), d, to + at);
    if (vectors > 1) hn::StoreU(hn::Div(b, total), d, to + at + lanes);
    if (vectors > 2) hn::StoreU(hn::Div(c, total), d, to + at + 2 * lanes);
    if (vectors > 3) hn::StoreU(hn::Div(e, total), d, to + at + 3 * lanes);
}

// From one place on as far as whole vectors go; gives where it has ended.
std::size_t weigh(const GaussianLine& line, std::size_t at, std::size_t end, float* to) {
    const std::size_t lanes = hn::Lanes(F());
    for (; at + 4 * lanes <= end; at += 4 * lanes) weigh_some<4>(line, at, to);
    for (; at + lanes <= end; at += lanes) weigh_some<1>(line, at, to);
    return at;
}

}  // namespace lacquer::HWY_NAMESPACE
HWY_AFTER_NAMESPACE();

#if HWY_ONCE
namespace lacquer {

namespace {

HWY_EXPORT(weigh);

float read_one(const LineTap& tap, std::size_t at) {
    if (tap.share == 0.0F) return tap.near[at];
    return tap.near[at] * (1.0F - tap.share) + tap.next[at] * tap.share;
}

void weigh_line(const GaussianLine& line, std::size_t from, std::size_t end, float* to) {
    for (std::size_t at = HWY_DYNAMIC_DISPATCH(weigh)(line, from, end, to); at < end; ++at) {
        float sum = line.middle[at];
        for (const LinePair& pair : line.pairs)
            sum += (read_one(pair.after, at) + read_one(pair.before, at)) * pair.weight;
        to[at] = sum / line.total;
    }
}

// The part of a Gaussian at each whole distance from 1 on, and what all of them together count.
struct Shares {
    std::vector<float> at;
    float total = 1;
};

Shares shares_of(float deviation, const KernelSet& kernels) {
    // Only small frames are softened so widely here, and further on lies nothing but their border.
    constexpr float furthest = 4096;
    Shares shares;
    const float reach = std::min(std::ceil(deviation * 4.0F), furthest);
    Instruction exponential;
    exponential.op = Op::exp;
    exponential.in[0] = 0;
    exponential.first_out = 1;
    std::vector<float> numbers(2);
    for (float away = 1; away <= reach; ++away) {
        numbers[0] = -0.5F * away * away / (deviation * deviation);
        run_on_constants(kernels, exponential, numbers);
        shares.at.push_back(numbers[1]);
        shares.total += 2.0F * numbers[1];
    }
    return shares;
}

// Where a distance in pixels of the frame lies in drawn ones: rounded to 1/256 of one, as in all reading of pictures.
struct Offset {
    int whole = 0;
    float share = 0;
};

Offset offset_of(double drawn) {
    const double rounded = std::floor(drawn * 256 + 0.5) / 256;
    const double whole = std::floor(rounded);
    return {static_cast<int>(whole), static_cast<float>(rounded - whole)};
}

// Numbers of `count` lines of pictures, one below the other, made of all that lies within the Gaussian's reach.
class Lines {
public:
    Lines(const NativeInputs& inputs, const KernelSet& kernels, bool across)
        : from_(inputs.from),
          across_(across),
          row_(static_cast<std::size_t>(from_.width) * static_cast<std::size_t>(from_.channels)),
          shares_(shares_of(inputs.argument, kernels)) {
        const double scale = across ? static_cast<double>(from_.width) / static_cast<double>(inputs.frame_width)
                                    : static_cast<double>(from_.height) / static_cast<double>(inputs.frame_height);
        for (std::size_t i = 1; i <= shares_.at.size(); ++i) {
            after_.push_back(offset_of(static_cast<double>(i) * scale));
            before_.push_back(offset_of(-static_cast<double>(i) * scale));
        }
        reach_ = after_.empty() ? 1 : std::max(after_.back().whole + 1, -before_.back().whole);
    }

    // Some rows, in parts of which what is read for them stays in the cache.
    void draw(int first, int count, Picture& to) const {
        std::vector<float> padded(across_ ? row_ + 2 * static_cast<std::size_t>(reach_) * channels() : 0);
        std::vector<LinePair> pairs(after_.size() * static_cast<std::size_t>(across_ ? 1 : count));
        if (across_) {
            for (int y = first; y < first + count; ++y) {
                pad(y, padded);
                const auto at = [&](int away) {
                    return padded.data() + static_cast<std::size_t>(reach_ + away) * channels();
                };
                weigh_line({at(0), pairs_by(at, pairs), shares_.total}, 0, row_, to.at(0, y));
            }
            return;
        }
        std::vector<GaussianLine> lines;
        for (int y = first; y < first + count; ++y) {
            const auto at = [&](int away) { return row(std::clamp(y + away, 0, from_.height - 1)); };
            const std::span<LinePair> own(pairs.data() + after_.size() * lines.size(), after_.size());
            lines.push_back({at(0), pairs_by(at, own), shares_.total});
        }
        constexpr std::size_t part = 512;
        for (std::size_t begin = 0; begin < row_; begin += part) {
            for (std::size_t i = 0; i < lines.size(); ++i)
                weigh_line(lines[i], begin, std::min(begin + part, row_), to.at(0, first + static_cast<int>(i)));
        }
    }

private:
    std::size_t channels() const { return static_cast<std::size_t>(from_.channels); }

    // Where `at` finds the numbers so far away.
    template <class At>
    std::span<const LinePair> pairs_by(const At& at, std::span<LinePair> pairs) const {
        const auto tap = [&](const Offset& offset) {
            return LineTap{at(offset.whole), offset.share == 0 ? nullptr : at(offset.whole + 1), offset.share};
        };
        for (std::size_t i = 0; i < after_.size(); ++i) pairs[i] = {tap(after_[i]), tap(before_[i]), shares_.at[i]};
        return pairs;
    }

    const float* row(int y) const { return from_.data + static_cast<std::size_t>(y) * row_; }

    // The row with its outermost pixels again and again on both sides.
    void pad(int y, std::vector<float>& padded) const {
        const float* begin = row(y);
        const float* last = begin + row_ - channels();
        float* to = padded.data();
        for (int i = 0; i < reach_; ++i) to = std::copy_n(begin, channels(), to);
        to = std::copy_n(begin, row_, to);
        for (int i = 0; i < reach_; ++i) to = std::copy_n(last, channels(), to);
    }

    const PictureView& from_;
    const bool across_;
    const std::size_t row_;  // numbers
    const Shares shares_;
    std::vector<Offset> after_;
    std::vector<Offset> before_;
    int reach_ = 1;  // drawn pixels
};

bool gaussian(const NativeInputs& inputs, const KernelSet& kernels, bool across, Picture& to, WorkerPool& pool,
              const Cancel& cancel) {
    if (!(inputs.argument > 0)) {
        std::fill(to.data.begin(), to.data.end(), 0.0F);
        return true;
    }
    const Lines lines(inputs, kernels, across);
    constexpr int rows = 16;
    std::atomic<bool> whole = true;
    pool.run((to.height + rows - 1) / rows, [&](int piece) {
        if (cancel.requested()) whole = false;
        if (whole) lines.draw(piece * rows, std::min(rows, to.height - piece * rows), to);
    });
    return whole;
}

bool across(const NativeInputs& inputs, const KernelSet& kernels, Picture& to, WorkerPool& pool, const Cancel& cancel) {
    return gaussian(inputs, kernels, true, to, pool, cancel);
}

bool down(const NativeInputs& inputs, const KernelSet& kernels, Picture& to, WorkerPool& pool, const Cancel& cancel) {
    return gaussian(inputs, kernels, false, to, pool, cancel);
}

}  // namespace

NativeWay gaussian_across_way() { return {"gaussian_across", 0, 0, 0, across}; }
NativeWay gaussian_down_way() { return {"gaussian_down", 0, 0, 0, down}; }

}  // namespace lacquer
#endif
