#include "core/lang/structural_hash.h"

#include <bit>

#include "core/base/overloaded.h"

namespace lacquer {

namespace {

// The finalizer of MurmurHash3 (A. Appleby, public domain), from memory.
constexpr std::uint64_t mixed(std::uint64_t x) {
    x ^= x >> 33U;
    x *= 0xFF51AFD7ED558CCDULL;
    x ^= x >> 33U;
    x *= 0xC4CEB9FE1A85EC53ULL;
    return x ^ (x >> 33U);
}

template <class Number>
std::uint64_t word(Number number) {
    return static_cast<std::uint64_t>(number);
}

void stir_tree(StructuralHash& hash, const Typed& typed) {
    hash.stir(word(typed.node.index()) | word(typed.type) << 8U);
    std::visit(
        Overloaded{
            [&](const Literal& literal) { hash.stir(std::bit_cast<std::uint64_t>(literal.number)); },
            [&](const NameHere& here) {
                hash.stir(word(here.symbol));
                hash.stir(here.name);
            },
            [&](const VariableHere& variable) {
                hash.stir(word(variable.number));
                hash.stir(variable.name);
            },
            [&](const PartsOf& taken) {
                hash.stir(word(taken.parts[0]) | word(taken.parts[1]) << 8U | word(taken.parts[2]) << 16U |
                          word(taken.parts[3]) << 24U | word(taken.count) << 32U);
            },
            [&](const UnaryOperation& operation) { hash.stir(word(operation.op)); },
            [&](const BinaryOperation& operation) {
                hash.stir(word(operation.op) | word(operation.opacity_of + 1) << 8U);
            },
            [&](const BuiltinCall& call) { hash.stir(word(call.builtin)); },
            [&](const PictureReading& reading) {
                hash.stir(word(reading.builtin) | word(reading.symbol) << 16U | word(reading.weighed) << 24U);
                hash.stir(reading.name);
            },
            [&](const FunctionRun& run) {
                hash.stir(run.name);
                const auto& known = run.function->hash;
                hash.stir(known[0] != 0 || known[1] != 0 ? StructuralHash{known[0], known[1]} : hash_of(*run.function));
            },
            [](const Construction&) {}, [](const Conversion&) {}, [](const ConditionalChoice&) {}},
        typed.node);
    hash.stir(typed.args.size());
    for (const Typed& arg : typed.args) stir_tree(hash, arg);
}

void stir_statements(StructuralHash& hash, const std::vector<TypedStatement>& statements) {
    hash.stir(statements.size());
    for (const TypedStatement& s : statements) {
        hash.stir(word(s.kind) | word(s.part_count) << 8U | word(s.variable) << 32U);
        hash.stir(word(s.parts[0]) | word(s.parts[1]) << 8U | word(s.parts[2]) << 16U | word(s.parts[3]) << 24U |
                  word(s.turns.value_or(-1)) << 32U);
        hash.stir(s.values.size());
        for (const Typed& value : s.values) stir_tree(hash, value);
        stir_statements(hash, s.first);
        stir_statements(hash, s.last);
        stir_statements(hash, s.body);
        stir_statements(hash, s.otherwise);
    }
}

}  // namespace

void StructuralHash::stir(std::uint64_t with) {
    low = mixed(low ^ with) + high;
    high = mixed(high + std::rotl(with, 29)) ^ low;
}

void StructuralHash::stir(std::string_view text) {
    stir(text.size());
    for (std::size_t at = 0; at < text.size(); at += 8) {
        std::uint64_t eight = 0;
        for (std::size_t i = at; i < text.size() && i < at + 8; ++i)
            eight |= std::uint64_t{static_cast<unsigned char>(text[i])} << (8 * (i - at));
        stir(eight);
    }
}

void StructuralHash::stir(const StructuralHash& other) {
    stir(other.low);
    stir(other.high);
}

StructuralHash hash_of(const Typed& typed) {
    StructuralHash hash;
    stir_tree(hash, typed);
    return hash;
}

StructuralHash hash_of(const TypedFunction& function) {
    StructuralHash hash;
    hash.stir(function.name);
    hash.stir(word(function.type) | word(function.parameters) << 32U);
    for (const TypedVariable& variable : function.variables) {
        hash.stir(variable.name);
        hash.stir(word(variable.type));
    }
    stir_statements(hash, function.body);
    return hash;
}

std::size_t node_count(const Typed& typed) {
    std::size_t count = 1;
    for (const Typed& arg : typed.args) count += node_count(arg);
    return count;
}

}  // namespace lacquer
