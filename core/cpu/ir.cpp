#include "core/cpu/ir.h"

#include <fmt/core.h>

#include <bit>
#include <cmath>
#include <map>
#include <tuple>

#include "core/cpu/kernels.h"

namespace lacquer {

namespace {

constexpr std::array<OpInfo, op_count> infos = {{
#define LACQUER_OP_INFO(name, inputs, outputs) {#name, inputs, outputs},
    LACQUER_OPS(LACQUER_OP_INFO)
#undef LACQUER_OP_INFO
}};

constexpr std::array<std::string_view, 4> rate_names = {"uniform", "row", "column", "pixel"};

std::string line(const Ir& ir, const Instruction& i) {
    const OpInfo& info = op_info(i.op);
    std::string text;
    for (int k = 0; k < info.outputs; ++k) text += fmt::format("v{} ", i.first_out + k);
    text += fmt::format("{} = {}", rate_names[static_cast<std::size_t>(i.rate)], info.name);
    for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) text += fmt::format(" v{}", i.in[k]);
    if (i.op == Op::constant) {
        const float number = std::bit_cast<float>(i.bits);
        const bool plain = std::isfinite(number) && (std::fpclassify(number) == FP_NORMAL || i.bits == 0);
        text += plain ? fmt::format(" {}", number) : fmt::format(" 0x{:08x}", i.bits);
    }
    if (i.op == Op::uniform) text += fmt::format(" {}.{}", ir.uniforms[i.bits].name, ir.uniforms[i.bits].part);
    if (i.op == Op::read_here || i.op == Op::sample) text += " " + ir.pictures[i.bits];
    return text + "\n";
}

// Rebuilds a program instruction by instruction, keeping track of where each old value went.
class Rebuild {
public:
    explicit Rebuild(const Ir& old) : old_(old), moved_(static_cast<std::size_t>(old.value_count), -1) {
        made_.uniforms = old.uniforms;
        made_.pictures = old.pictures;
    }

    Instruction with_moved_inputs(Instruction i) const {
        for (std::size_t k = 0; k < static_cast<std::size_t>(op_info(i.op).inputs); ++k) i.in[k] = now(i.in[k]);
        return i;
    }
    void keep(Instruction i, int old_first) {
        i.first_out = made_.value_count;
        made_.value_count += op_info(i.op).outputs;
        made_.code.push_back(i);
        alias(old_first, i.first_out, op_info(i.op).outputs);
    }
    void alias(int old_first, int new_first, int count) {
        for (int k = 0; k < count; ++k) moved_[static_cast<std::size_t>(old_first + k)] = new_first + k;
    }
    Ir finish() {
        for (const IrOutput& output : old_.outputs) {
            IrOutput moved{output.name, {}};
            for (const int value : output.values) moved.values.push_back(now(value));
            made_.outputs.push_back(std::move(moved));
        }
        return std::move(made_);
    }

private:
    int now(int value) const { return moved_[static_cast<std::size_t>(value)]; }
    const Ir& old_;
    std::vector<int> moved_;
    Ir made_;
};

}  // namespace

const OpInfo& op_info(Op op) { return infos[static_cast<std::size_t>(op)]; }

std::string to_text(const Ir& ir) {
    std::string text;
    for (const Instruction& i : ir.code) text += line(ir, i);
    for (const IrOutput& output : ir.outputs) {
        text += "output " + output.name + " =";
        for (const int value : output.values) text += fmt::format(" v{}", value);
        text += "\n";
    }
    return text;
}

Ir fold_constants(const Ir& ir) {
    const KernelSet kernels = best_kernels();
    Rebuild rebuild(ir);
    std::vector<std::uint8_t> known(static_cast<std::size_t>(ir.value_count), 0);
    std::vector<float> numbers(static_cast<std::size_t>(ir.value_count), 0.0F);
    for (const Instruction& i : ir.code) {
        const OpInfo& info = op_info(i.op);
        const auto first = static_cast<std::size_t>(i.first_out);
        bool constant = i.op == Op::constant;
        if (constant) numbers[first] = std::bit_cast<float>(i.bits);
        if (info.inputs > 0 && i.op != Op::sample) {
            constant = true;
            for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) {
                constant = constant && known[static_cast<std::size_t>(i.in[k])] != 0;
            }
            if (constant) run_on_constants(kernels, i, numbers);
        }
        if (!constant || i.op == Op::constant) {
            if (constant) known[first] = 1;
            rebuild.keep(rebuild.with_moved_inputs(i), i.first_out);
            continue;
        }
        for (std::size_t k = 0; k < static_cast<std::size_t>(info.outputs); ++k) {
            known[first + k] = 1;
            Instruction folded;
            folded.bits = std::bit_cast<std::uint32_t>(numbers[first + k]);
            rebuild.keep(folded, i.first_out + static_cast<int>(k));
        }
    }
    return rebuild.finish();
}

Ir share_common(const Ir& ir) {
    Rebuild rebuild(ir);
    std::map<std::tuple<Op, std::uint32_t, int, int, int>, int> seen;
    int next = 0;
    for (const Instruction& old : ir.code) {
        const Instruction i = rebuild.with_moved_inputs(old);
        const int outputs = op_info(i.op).outputs;
        const auto [place, fresh] = seen.try_emplace({i.op, i.bits, i.in[0], i.in[1], i.in[2]}, next);
        if (fresh) {
            rebuild.keep(i, old.first_out);
            next += outputs;
        } else {
            rebuild.alias(old.first_out, place->second, outputs);
        }
    }
    return rebuild.finish();
}

Ir drop_unused(const Ir& ir) {
    std::vector<std::uint8_t> needed(static_cast<std::size_t>(ir.value_count), 0);
    for (const IrOutput& output : ir.outputs) {
        for (const int value : output.values) needed[static_cast<std::size_t>(value)] = 1;
    }
    std::vector<std::uint8_t> kept(ir.code.size(), 0);
    for (std::size_t n = ir.code.size(); n-- > 0;) {
        const Instruction& i = ir.code[n];
        for (int k = 0; k < op_info(i.op).outputs; ++k) {
            if (needed[static_cast<std::size_t>(i.first_out + k)] != 0) kept[n] = 1;
        }
        if (kept[n] == 0) continue;
        for (std::size_t k = 0; k < static_cast<std::size_t>(op_info(i.op).inputs); ++k) {
            needed[static_cast<std::size_t>(i.in[k])] = 1;
        }
    }
    Rebuild rebuild(ir);
    for (std::size_t n = 0; n < ir.code.size(); ++n) {
        if (kept[n] != 0) rebuild.keep(rebuild.with_moved_inputs(ir.code[n]), ir.code[n].first_out);
    }
    return rebuild.finish();
}

Ir optimised(const Ir& ir) { return drop_unused(share_common(fold_constants(ir))); }

}  // namespace lacquer
