#include "core/cpu/ir.h"

#include <fmt/core.h>

#include <bit>
#include <cmath>

namespace lacquer {

namespace {

constexpr std::array<std::string_view, 4> rate_names = {"uniform", "row", "column", "pixel"};

std::string line(const Ir& ir, const Instruction& i) {
    const OpInfo& info = op_info(i.op);
    std::string text;
    for (int k = 0; k < info.outputs; ++k) text += fmt::format("v{} ", i.first_out + k);
    if (info.outputs > 0)
        text += fmt::format("{}{} = ", rate_names[static_cast<std::size_t>(i.rate)], i.timed ? " each turn" : "");
    text += info.name;
    for (std::size_t k = 0; k < static_cast<std::size_t>(info.inputs); ++k) text += fmt::format(" v{}", i.in[k]);
    if (i.op == Op::constant) {
        const float number = std::bit_cast<float>(i.bits);
        const bool plain = std::isfinite(number) && (std::fpclassify(number) == FP_NORMAL || i.bits == 0);
        text += plain ? fmt::format(" {}", number) : fmt::format(" 0x{:08x}", i.bits);
    }
    if (i.op == Op::uniform) text += fmt::format(" {}.{}", ir.uniforms[i.bits].name, ir.uniforms[i.bits].part);
    if (reads_picture(i.op)) text += " " + ir.pictures[i.bits].name;
    return text + "\n";
}

}  // namespace

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

}  // namespace lacquer
