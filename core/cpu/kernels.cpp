#include "core/cpu/kernels.h"

#include <hwy/targets.h>

#include <algorithm>

namespace lacquer {

std::vector<KernelSet> kernel_sets() {
    std::vector<KernelSet> sets;
    for (const auto& family : {arithmetic_kernels(), elementary_kernels(), noise_kernels(), sampling_kernels()}) {
        for (const TargetFill& fill : family) {
            if ((fill.target & hwy::SupportedTargets()) == 0) continue;
            auto set = std::find_if(sets.begin(), sets.end(), [&](const KernelSet& s) { return s.name == fill.name; });
            if (set == sets.end()) {
                sets.push_back({fill.name, {}, nullptr});
                set = sets.end() - 1;
            }
            fill.fill(*set);
        }
    }
    return sets;
}

KernelSet best_kernels() {
    static const KernelSet best = kernel_sets().front();
    return best;
}

void run_on_constants(const KernelSet& kernels, const Instruction& instruction, std::vector<float>& numbers) {
    alignas(64) std::array<std::array<float, lane_block>, max_inputs> in{};
    alignas(64) std::array<std::array<float, lane_block>, 4> out{};
    KernelArgs args;
    const OpInfo& info = op_info(instruction.op);
    for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) {
        in[k].fill(numbers[static_cast<std::size_t>(instruction.in[k])]);
        args.in[k] = in[k].data();
    }
    for (std::size_t k = 0; k < 4; ++k) args.out[k] = out[k].data();
    args.count = lane_block;
    kernels.kernels[static_cast<std::size_t>(instruction.op)](args);
    for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k) {
        numbers[static_cast<std::size_t>(instruction.first_out) + k] = out[k][0];
    }
}

}  // namespace lacquer
