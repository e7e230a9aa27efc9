// A copy at a quarter of the frame's size, made by a Gaussian, and the frame made of it again: what the text of the
// operation mixes for every pixel of both axes at once, done an axis at a time.
#include <algorithm>
#include <array>
#include <atomic>
#include <cmath>
#include <span>
#include <utility>
#include <vector>

#include "core/cpu/gaussian_line.h"
#include "core/cpu/line_tap.h"
#include "core/cpu/native.h"

namespace lacquer {

namespace {

constexpr float spare = 4;  // pixels of the copy beside the frame's border

// One side of the frame and of its copy, in pixels of the finish's own frame.
struct Side {
    float frame = 1;
    float copy() const { return std::ceil(frame / 4.0F); }
    float pace() const { return frame / (copy() - 2 * spare); }
    bool has_copy() const { return copy() > 2 * spare; }
};

// For each pixel of a side the pixels of another that it is the weighted mean of, which lie next to one another.
class Mixture {
public:
    struct Part {
        int first = 0;
        std::span<const float> weights;
    };

    // `side` is what is read, in drawn pixels.
    Mixture(int side, int count) : side_(side) { parts_.reserve(static_cast<std::size_t>(count)); }

    // A reading between pixels, at a share of the side, for the pixel that is made up next.
    void read(float place, float weight) {
        const LineOffset at = line_offset(static_cast<double>(place * static_cast<float>(side_) - 0.5F));
        put(at.whole, weight * (1.0F - at.share));
        if (at.share > 0) put(at.whole + 1, weight * at.share);
    }

    // The pixel has all its readings.
    void end_pixel() {
        const auto [least, most] = std::minmax_element(read_.begin(), read_.end(),
                                                       [](const auto& a, const auto& b) { return a.first < b.first; });
        Stored stored{least->first, weights_.size(), static_cast<std::size_t>(most->first - least->first) + 1};
        weights_.resize(stored.begin + stored.count, 0.0F);
        float total = 0;
        for (const auto& [pixel, weight] : read_) total += weight;
        for (const auto& [pixel, weight] : read_)
            weights_[stored.begin + static_cast<std::size_t>(pixel - stored.first)] += weight / total;
        parts_.push_back(stored);
        read_.clear();
    }

    Part operator[](int pixel) const {
        const Stored& stored = parts_[static_cast<std::size_t>(pixel)];
        return {stored.first, std::span(weights_).subspan(stored.begin, stored.count)};
    }

private:
    struct Stored {
        int first = 0;
        std::size_t begin = 0;
        std::size_t count = 0;
    };
    void put(int pixel, float weight) { read_.emplace_back(std::clamp(pixel, 0, side_ - 1), weight); }

    const int side_;
    std::vector<std::pair<int, float>> read_;
    std::vector<float> weights_;
    std::vector<Stored> parts_;
};

float exponential(float x, const KernelSet& kernels) {
    Instruction instruction;
    instruction.op = Op::exp;
    instruction.in[0] = 0;
    instruction.first_out = 1;
    std::vector<float> numbers = {x, 0};
    run_on_constants(kernels, instruction, numbers);
    return numbers[1];
}

// In the same steps as the text, so that no reading is there that the text leaves out.
Mixture gaussian(const Side& side, int from, int to, float deviation, const KernelSet& kernels) {
    Mixture mixture(from, to);
    const float s = deviation * side.pace();
    const float pixel = 1.0F / side.frame;
    const auto share = [&](float away) { return exponential(-0.5F * away * away / (s * s), kernels); };
    for (int i = 0; i < to; ++i) {
        const float place = (static_cast<float>(i) + 0.5F) / static_cast<float>(to);
        const float at = (place * side.copy() - spare) * side.pace();
        const float first = std::floor(at - 3.0F * s) + 0.5F;
        const float count = std::ceil(3.0F * s);
        for (float k = 0; k <= count; ++k) {
            const float x = first + 2.0F * k;
            const float one = share(x - at);
            const float other = share(x - at + 1.0F);
            mixture.read((x + other / (one + other)) * pixel, one + other);
        }
        mixture.end_pixel();
    }
    return mixture;
}

// The four linear readings of a cubic B-spline: Sigg and Hadwiger, "Fast Third-Order Texture Filtering", GPU Gems 2
// (2005), chapter 20, from memory.
Mixture spline(const Side& side, int from, int to) {
    Mixture mixture(from, to);
    for (int i = 0; i < to; ++i) {
        const float place = (static_cast<float>(i) + 0.5F) / static_cast<float>(to) * side.frame / side.pace() + spare;
        const float f = place - 0.5F - std::floor(place - 0.5F);
        const float w0 = (1.0F - f) * (1.0F - f) * (1.0F - f) / 6.0F;
        const float w1 = (4.0F - 6.0F * f * f + 3.0F * f * f * f) / 6.0F;
        const float w3 = f * f * f / 6.0F;
        const float w2 = 1.0F - w0 - w1 - w3;
        const float at = place / side.copy();
        mixture.read(at + (w1 / (w0 + w1) - 1.0F - f) / side.copy(), w0 + w1);
        mixture.read(at + (w3 / (w2 + w3) + 1.0F - f) / side.copy(), 1.0F - (w0 + w1));
        mixture.end_pixel();
    }
    return mixture;
}

template <std::size_t channels>
void mix_columns(std::span<const float> row, const Mixture& mixture, int width, float* to) {
    for (int x = 0; x < width; ++x, to += channels) {
        const Mixture::Part part = mixture[x];
        const float* pixel = row.data() + channels * static_cast<std::size_t>(part.first);
        std::array<float, channels> sum{};
        for (const float weight : part.weights) {
            for (std::size_t c = 0; c < channels; ++c) sum[c] += pixel[c] * weight;
            pixel += channels;
        }
        std::copy(sum.begin(), sum.end(), to);
    }
}

bool mix(const PictureView& from, const Mixture& across, const Mixture& down, Picture& to, WorkerPool& pool,
         const Cancel& cancel) {
    constexpr int rows = 8;
    const auto row = static_cast<std::size_t>(from.width) * static_cast<std::size_t>(from.channels);
    std::atomic<bool> whole = true;
    pool.run((to.height + rows - 1) / rows, [&](int piece) {
        std::vector<float> mixed(row);
        for (int y = piece * rows; y < std::min(to.height, (piece + 1) * rows); ++y) {
            if (cancel.requested()) whole = false;
            if (!whole) return;
            const Mixture::Part part = down[y];
            mix_lines(from.data + static_cast<std::size_t>(part.first) * row, part.weights, row, mixed.data());
            if (from.channels == 1) mix_columns<1>(mixed, across, to.width, to.at(0, y));
            if (from.channels == 2) mix_columns<2>(mixed, across, to.width, to.at(0, y));
            if (from.channels == 4) mix_columns<4>(mixed, across, to.width, to.at(0, y));
        }
    });
    return whole;
}

bool to_quarter(const NativeInputs& inputs, const KernelSet& kernels, Picture& to, WorkerPool& pool,
                const Cancel& cancel) {
    const Side across{inputs.frame_width};
    const Side down{inputs.frame_height};
    const float deviation = std::min(inputs.argument, 8.0F);
    if (!(deviation > 0) || !across.has_copy() || !down.has_copy()) {
        std::fill(to.data.begin(), to.data.end(), 0.0F);
        return true;
    }
    return mix(inputs.from, gaussian(across, inputs.from.width, to.width, deviation, kernels),
               gaussian(down, inputs.from.height, to.height, deviation, kernels), to, pool, cancel);
}

bool from_quarter(const NativeInputs& inputs, const KernelSet& /*kernels*/, Picture& to, WorkerPool& pool,
                  const Cancel& cancel) {
    const Side across{inputs.frame_width};
    const Side down{inputs.frame_height};
    if (!(inputs.argument > 0) || !across.has_copy() || !down.has_copy()) {
        std::fill(to.data.begin(), to.data.end(), 0.0F);
        return true;
    }
    return mix(inputs.from, spline(across, inputs.from.width, to.width), spline(down, inputs.from.height, to.height),
               to, pool, cancel);
}

constexpr int row_bytes = 16;  // a column of the row that is being put together

}  // namespace

NativeWay gaussian_quarter_way() { return {"gaussian_quarter", 0, 0, 0, row_bytes, to_quarter, true, true}; }
NativeWay spline_from_quarter_way() { return {"spline_from_quarter", 0, 0, 0, row_bytes, from_quarter, true, true}; }

}  // namespace lacquer
