// A formula that makes sense: every node has a type, every name stands for something, and every change of width is
// written out.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <vector>

#include "core/base/span.h"
#include "core/lang/builtins.h"
#include "core/lang/type.h"

namespace lacquer {

/// What a name can stand for.
enum class SymbolKind {
    known,  ///< uv, pixel, frame_size, pixel_size, aspect, time
    dial,
    response,  ///< a response's value, or `name.presence`
    step,
    ground
};

enum class Operator {
    add,
    subtract,
    multiply,
    divide,
    remainder,
    shift_left,
    shift_right,
    less,
    greater,
    less_equal,
    greater_equal,
    equal,
    not_equal,
    bit_and,
    bit_xor,
    bit_or,
    both,
    either_one,
    either,
    negate,
    invert,
    bit_invert
};

enum class TypedKind {
    literal,    ///< `number`, of any scalar type
    symbol,     ///< `name`, a `symbol`
    parts,      ///< `part_count` of `parts` of args[0]
    construct,  ///< parts of all args in a row as floats; a lone single number fills every part
    convert,    ///< args[0], one part, as another scalar type
    unary,
    binary,
    select,  ///< args[0] ? args[1] : args[2]
    call,    ///< `builtin`(args...)
    read     ///< texture(`name`, args[0])
};

/// How the checker changed a value to make it fit; shown as a quiet mark.
enum class Adaptation { none, filled, opacity_dropped, opacity_added };

struct Typed {
    TypedKind kind = TypedKind::literal;
    Type type = Type::number;
    Span span;
    double number = 0;
    std::string name;
    SymbolKind symbol = SymbolKind::known;
    Builtin builtin = Builtin::count;
    Operator op = Operator::add;
    std::array<std::uint8_t, 4> parts{};
    int part_count = 0;
    /// For a binary node of 3 with 4 numbers: works on the colours and keeps the opacity of args[opacity_of].
    int opacity_of = -1;
    Adaptation adaptation = Adaptation::none;
    std::vector<Typed> args;
};

/// The tree as text, in GLSL spelling with every adaptation written out.
std::string to_text(const Typed& typed);

/// All adaptations in the tree with their spans, in reading order.
struct AdaptationMark {
    Adaptation adaptation;
    Span span;
};
std::vector<AdaptationMark> adaptations(const Typed& typed);

/// GLSL spelling of an operator.
std::string_view operator_mark(Operator op);

}  // namespace lacquer
