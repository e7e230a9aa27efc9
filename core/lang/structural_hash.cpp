#include "core/lang/structural_hash.h"

#include <bit>

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
    hash.stir(word(typed.kind) | word(typed.type) << 8U | word(typed.symbol) << 16U | word(typed.builtin) << 24U |
              word(typed.op) << 40U | word(typed.weighed) << 48U |
              word(typed.kind == TypedKind::parts ? typed.part_count : 0) << 52U | word(typed.opacity_of + 1) << 56U);
    hash.stir(std::bit_cast<std::uint64_t>(typed.number));
    hash.stir(word(typed.variable) << 32U | word(typed.parts[0]) | word(typed.parts[1]) << 8U |
              word(typed.parts[2]) << 16U | word(typed.parts[3]) << 24U);
    hash.stir(typed.name);
    if (typed.function != nullptr)
        hash.stir(typed.function->hash[0] != 0 || typed.function->hash[1] != 0
                      ? StructuralHash{typed.function->hash[0], typed.function->hash[1]}
                      : hash_of(*typed.function));
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
