#include "core/cpu/cost.h"

#include <fmt/core.h>

namespace lacquer {

namespace {

bool is_free(Op op) {
    return op == Op::constant || op == Op::uniform || op == Op::picture_size || op == Op::cell || is_control(op);
}

}  // namespace

PassCost cost_of(const Ir& ir) {
    PassCost cost;
    for (const Instruction& i : ir.code) {
        cost.loops = cost.loops || i.op == Op::loop_begin;
        if (is_free(i.op)) continue;
        if (reads_picture(i.op)) {
            ++cost.reads;
            continue;
        }
        // What runs at each turn of a loop runs with the pixels.
        const Rate rate = i.timed ? Rate::pixel : i.rate;
        (rate == Rate::pixel    ? cost.pixel
         : rate == Rate::column ? cost.column
         : rate == Rate::row    ? cost.row
                                : cost.once) += i.op == Op::mix_3 ? 3 : 1;
    }
    return cost;
}

std::string to_text(const PassCost& cost) {
    return fmt::format("per pixel {} instructions and {} readings, per column {}, per row {}, once {}{}", cost.pixel,
                       cost.reads, cost.column, cost.row, cost.once,
                       cost.loops ? "; what is in loops counted once" : "");
}

}  // namespace lacquer
