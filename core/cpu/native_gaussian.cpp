// A Gaussian along one axis, tap by tap in the order in which the text of the operation adds them up.
#include <algorithm>
#include <atomic>
#include <cmath>
#include <vector>

#include "core/cpu/gaussian_line.h"
#include "core/cpu/native.h"

namespace lacquer {

namespace {

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

// The rows of a picture, each number made of all along one axis that lies within the Gaussian's reach.
class Lines {
public:
    Lines(const NativeInputs& inputs, const KernelSet& kernels, bool across)
        : from_(inputs.from),
          across_(across),
          row_(static_cast<std::size_t>(from_.width) * static_cast<std::size_t>(from_.channels)),
          shares_(shares_of(inputs.argument, kernels)) {
        const double scale = across ? static_cast<double>(from_.width) / static_cast<double>(inputs.stage_width)
                                    : static_cast<double>(from_.height) / static_cast<double>(inputs.stage_height);
        for (std::size_t i = 1; i <= shares_.at.size(); ++i) {
            after_.push_back(line_offset(static_cast<double>(i) * scale));
            before_.push_back(line_offset(-static_cast<double>(i) * scale));
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
        const auto tap = [&](const LineOffset& offset) {
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
    std::vector<LineOffset> after_;
    std::vector<LineOffset> before_;
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

NativeWay gaussian_across_way() { return {"gaussian_across", 0, 0, 0, 0, across, false, true}; }
NativeWay gaussian_down_way() { return {"gaussian_down", 0, 0, 0, 0, down, false, true}; }

}  // namespace lacquer
