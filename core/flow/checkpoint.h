// A state that ticks have left, as a file: a long take can be shared out over several machines.
#pragma once

#include <cstdint>
#include <string>

#include "core/base/result.h"
#include "core/flow/simulation.h"

namespace lacquer {

/// A state, and what it is one of: only a finish, tape and size with the same stamp may go on from it.
struct Checkpoint {
    std::uint64_t stamp[2] = {0, 0};
    FlowState state;
};

/// Largest file of a checkpoint, in bytes.
inline constexpr std::size_t max_checkpoint_file = std::size_t{4} * 1024 * 1024 * 1024;

/// The bytes of its file: a line that says what it is, then little-endian numbers; floats are kept bit by bit.
std::string to_bytes(const Checkpoint& checkpoint);

/// Reads what `to_bytes` writes. Fault `flow.checkpoint` for anything else, with `where` as its place.
Result<Checkpoint> checkpoint_from(std::string_view bytes, const std::string& where);

}  // namespace lacquer
