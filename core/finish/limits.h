// What a finish may hold at the most, so that whatever is saved can be opened again.
#pragma once

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// Most members of any list but the tape.
inline constexpr std::size_t max_members = 4096;
/// Most measures that a dial promises to pass.
inline constexpr std::size_t max_promises = 32;
/// Largest number, without its sign.
inline constexpr double largest_number = 1e12;
/// Fewest and most ticks a second.
inline constexpr double least_tick_rate = 24;
inline constexpr double most_tick_rate = 240;
/// Longest length, in seconds.
inline constexpr double max_length = 3600;

/// Whether reading would take all that the finish holds. Faults: `edit.limit`.
Result<Done> within_limits(const Finish& finish);

/// How many more cues and changes a tape takes.
std::size_t room_on(const Tape& tape);

}  // namespace lacquer
