// The strip machine's program before it is laid out: single-assignment instructions on single 32-bit values.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

namespace lacquer {

/// How often a value can change: once a picture, once a row (with y only), once a column (with x only), or at each
/// pixel.
enum class Rate : std::uint8_t { uniform, row, column, pixel };

/// The rate of something computed from both.
constexpr Rate join(Rate a, Rate b) {
    if (a == b || b == Rate::uniform) return a;
    return a == Rate::uniform ? b : Rate::pixel;
}

// X(name, inputs, outputs). Floats, whole numbers (32 bits) and truths (all bits or none) share the same lanes.
// multiply_add rounds twice, as the two instructions do for which it stands; mix_3 is three mixes by one share.
// The last two rows are what makes control flow. A cell is a value that `assign` changes, at the end of a loop's turn;
// all other values are assigned once. Between loop_begin and loop_end all is run again and again until no pixel wants
// another turn (loop_exit); between skip_begin and skip_end nothing is run where no pixel wants it. What is only meant
// for some pixels is picked by `select`.
// clang-format off
#define LACQUER_OPS(X) \
    X(constant, 0, 1) X(uniform, 0, 1) \
    X(uv_x, 0, 1) X(uv_y, 0, 1) X(pixel_x, 0, 1) X(pixel_y, 0, 1) \
    X(read_here, 0, 4) X(sample, 2, 4) X(sample_level, 3, 4) X(fetch, 2, 4) X(picture_size, 0, 2) \
    X(derivative_x, 1, 1) X(derivative_y, 1, 1) \
    X(add, 2, 1) X(subtract, 2, 1) X(multiply, 2, 1) X(divide, 2, 1) X(negate, 1, 1) \
    X(absolute, 1, 1) X(sign, 1, 1) X(floor, 1, 1) X(ceil, 1, 1) X(trunc, 1, 1) X(round, 1, 1) X(fract, 1, 1) \
    X(mod, 2, 1) X(min, 2, 1) X(max, 2, 1) X(clamp, 3, 1) X(mix, 3, 1) X(step, 2, 1) X(smoothstep, 3, 1) \
    X(sqrt, 1, 1) X(inversesqrt, 1, 1) X(pow, 2, 1) X(exp, 1, 1) X(exp2, 1, 1) X(log, 1, 1) X(log2, 1, 1) \
    X(sin, 1, 1) X(cos, 1, 1) X(tan, 1, 1) X(asin, 1, 1) X(acos, 1, 1) X(atan, 1, 1) X(atan2, 2, 1) \
    X(sinh, 1, 1) X(cosh, 1, 1) X(tanh, 1, 1) X(asinh, 1, 1) X(acosh, 1, 1) X(atanh, 1, 1) \
    X(less, 2, 1) X(less_equal, 2, 1) X(equal, 2, 1) X(is_nan, 1, 1) X(is_inf, 1, 1) \
    X(add_int, 2, 1) X(subtract_int, 2, 1) X(multiply_int, 2, 1) X(divide_int, 2, 1) X(remainder_int, 2, 1) \
    X(negate_int, 1, 1) X(min_int, 2, 1) X(max_int, 2, 1) X(less_int, 2, 1) X(equal_int, 2, 1) \
    X(divide_uint, 2, 1) X(remainder_uint, 2, 1) X(min_uint, 2, 1) X(max_uint, 2, 1) X(less_uint, 2, 1) \
    X(shift_right_uint, 2, 1) X(to_uint, 1, 1) X(from_uint, 1, 1) \
    X(shift_left, 2, 1) X(shift_right, 2, 1) X(bit_and, 2, 1) X(bit_or, 2, 1) X(bit_xor, 2, 1) X(bit_not, 1, 1) \
    X(multiply_add, 3, 1) X(mix_3, 7, 3) X(copy, 1, 1) \
    X(select, 3, 1) X(to_int, 1, 1) X(from_int, 1, 1) \
    X(hash_1, 1, 1) X(hash_2, 2, 1) X(hash_3, 3, 1) X(hash3, 3, 3) \
    X(value_noise_2, 2, 1) X(value_noise_3, 3, 1) X(gradient_noise_2, 2, 1) X(gradient_noise_3, 3, 1) \
    X(noise_place, 1, 3) X(value_placed_2, 4, 1) X(value_placed_3, 5, 1) \
    X(gradient_placed_2, 4, 1) X(gradient_placed_3, 5, 1) \
    X(cellular_noise_2, 2, 1) X(cellular_noise_3, 3, 1) \
    X(fractal_value_2, 3, 1) X(fractal_value_3, 4, 1) X(fractal_gradient_2, 3, 1) X(fractal_gradient_3, 4, 1) \
    X(fractal_cellular_2, 3, 1) X(fractal_cellular_3, 4, 1) \
    X(cell, 0, 1) X(assign, 2, 0) X(loop_begin, 0, 0) X(loop_exit, 1, 0) X(loop_end, 0, 0) \
    X(skip_begin, 1, 0) X(skip_end, 0, 0)
// clang-format on

enum class Op : std::uint8_t {
#define LACQUER_OP_NAME(name, inputs, outputs) name,
    LACQUER_OPS(LACQUER_OP_NAME)
#undef LACQUER_OP_NAME
        count
};
inline constexpr std::size_t op_count = static_cast<std::size_t>(Op::count);
/// Most inputs that an instruction has.
inline constexpr std::size_t max_inputs = 7;

struct OpInfo {
    std::string_view name;
    int inputs;
    int outputs;
};
inline constexpr std::array<OpInfo, op_count> op_infos = {{
#define LACQUER_OP_INFO(name, inputs, outputs) {#name, inputs, outputs},
    LACQUER_OPS(LACQUER_OP_INFO)
#undef LACQUER_OP_INFO
}};
constexpr const OpInfo& op_info(Op op) { return op_infos[static_cast<std::size_t>(op)]; }

/// True for the instructions that steer others.
constexpr bool is_control(Op op) { return op >= Op::loop_begin; }

/// True for the instructions whose `bits` name a picture.
constexpr bool reads_picture(Op op) { return op >= Op::read_here && op <= Op::picture_size; }

inline constexpr std::array<int, max_inputs> no_inputs{-1, -1, -1, -1, -1, -1, -1};

/// One instruction. It defines the values first_out, first_out + 1, ...; `bits` is a constant's bits, or the slot of a
/// uniform or picture.
struct Instruction {
    Op op = Op::constant;
    Rate rate = Rate::uniform;
    bool timed = false;  ///< depends on a cell: to be run at each turn, though it may be the same along a strip
    std::array<int, max_inputs> in = no_inputs;
    std::uint32_t bits = 0;
    int first_out = 0;
};

/// A uniform slot: one part of a dial, response or known name.
struct UniformSlot {
    std::string name;
    int part = 0;
    friend bool operator==(const UniformSlot&, const UniformSlot&) = default;
};

/// A picture that is read: its name, and whether colours between its pixels count by their opacity though the picture
/// itself does not ask for it.
struct PictureUse {
    std::string name;
    bool weighed = false;
    friend bool operator==(const PictureUse&, const PictureUse&) = default;
};

/// A step's result: its name, and one value for each of its parts.
struct IrOutput {
    std::string name;
    std::vector<int> values;
};

struct Ir {
    std::vector<Instruction> code;
    int value_count = 0;
    std::vector<UniformSlot> uniforms;
    std::vector<PictureUse> pictures;
    std::vector<IrOutput> outputs;
    bool quads = false;  ///< has derivatives: drawn in 2 x 2 blocks
};

/// One line an instruction: "v7 pixel = multiply v3 v5".
std::string to_text(const Ir& ir);

// The passes, each of which leaves every output's bits as they were.

/// Replaces what has only constant inputs by its value, computed by the same kernels.
Ir fold_constants(const Ir& ir);
/// Reads what is read at a pixel's own place as what is there.
Ir read_in_place(const Ir& ir);
/// Computes what stands twice only once.
Ir share_common(const Ir& ir);
/// Drops what no output needs.
Ir drop_unused(const Ir& ir);
/// Moves out of loops what is the same at every turn.
Ir hoist_from_loops(const Ir& ir);
/// Puts a multiplication and the addition that alone uses it together, and three mixes in a row by the same share.
Ir fuse(const Ir& ir);
/// Drops choices that are certain: where a loop or a skip goes by one truth for all pixels, that is true within. To be
/// used on what has its rates.
Ir drop_certain_choices(const Ir& ir);
/// Takes what a noise makes of its first coordinate out of it, where that changes by column only: it is the same in all
/// rows. To be used on what has its rates.
Ir split_noise(const Ir& ir);
/// Finds for each value how often it can change, so that it is computed no oftener.
Ir with_rates(Ir ir);
/// All of the above.
Ir optimised(const Ir& ir);

}  // namespace lacquer
