// The strip functions: one for each instruction, compiled for several instruction sets.
#pragma once

#include <array>
#include <cstddef>
#include <string>
#include <vector>

#include "core/cpu/ir.h"
#include "core/picture/sample.h"

namespace lacquer {

/// Lanes of the widest instruction set; every strip's length is a multiple, and a uniform is stored this many times
/// over.
inline constexpr std::size_t lane_block = 16;

/// What a kernel works on. Input k at pixel i is in[k][i * stride[k]], with stride 0 for what is the same all along
/// the strip (then lane_block copies of it lie there). Whole vectors are read and written up to `count` rounded up.
struct KernelArgs {
    std::array<const float*, max_inputs> in{};
    std::array<std::size_t, max_inputs> stride{};
    std::array<float*, 4> out{};
    std::size_t count = 0;
    const PictureView* picture = nullptr;
    int x = 0;  ///< column of the first pixel in the drawn grid
    int y = 0;
    int grid_width = 1;
    int grid_height = 1;
    float frame_width = 1;
    float frame_height = 1;
};

using Kernel = void (*)(const KernelArgs&);

/// Writes four strips as pixels of four channels; `count` is a multiple of lane_block.
using JoinPixels = void (*)(const std::array<const float*, 4>& parts, const std::array<std::size_t, 4>& strides,
                            float* to, std::size_t count);

/// The kernels of one instruction set. Those of all sets give the same bits.
struct KernelSet {
    std::string name;
    std::array<Kernel, op_count> kernels{};
    JoinPixels join_pixels = nullptr;
};

/// The sets that this processor can run, fastest first.
std::vector<KernelSet> kernel_sets();

/// The fastest of them.
KernelSet best_kernels();

/// Runs one instruction on numbers[value] for each of its inputs and stores its outputs there.
void run_on_constants(const KernelSet& kernels, const Instruction& instruction, std::vector<float>& numbers);

// Each file of kernels adds its own to the sets, in the same order.
using KernelFill = void (*)(KernelSet&);
struct TargetFill {
    const char* name;
    std::int64_t target;
    KernelFill fill;
};
std::vector<TargetFill> arithmetic_kernels();
std::vector<TargetFill> elementary_kernels();
std::vector<TargetFill> noise_kernels();
std::vector<TargetFill> sampling_kernels();

}  // namespace lacquer
