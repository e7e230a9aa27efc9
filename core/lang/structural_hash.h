// What a tree means, in 128 bits: trees with the same hash compute the same.
#pragma once

#include <compare>
#include <cstdint>
#include <string_view>

#include "core/lang/typed.h"

namespace lacquer {

/// Grows by what is stirred in, in order.
struct StructuralHash {
    std::uint64_t low = 0x9AE16A3B2F90404FULL;
    std::uint64_t high = 0xC949D7C7509E6557ULL;

    void stir(std::uint64_t word);
    void stir(std::string_view text);
    void stir(const StructuralHash& other);
    friend bool operator==(const StructuralHash&, const StructuralHash&) = default;
    friend auto operator<=>(const StructuralHash&, const StructuralHash&) = default;
};

/// Of a tree with the functions that it calls; spans and marks of adaptations do not count. Takes time in proportion to
/// the tree's own nodes.
StructuralHash hash_of(const Typed& typed);

/// Of a function's type, variables and statements, with the functions that it calls.
StructuralHash hash_of(const TypedFunction& function);

/// How many nodes the tree has, without those of the functions that it calls.
std::size_t node_count(const Typed& typed);

}  // namespace lacquer
