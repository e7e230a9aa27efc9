// Tapes on disk: `name.tape`, JSON Lines. docs/format.md describes them.
#pragma once

#include <string>
#include <string_view>

#include "core/base/result.h"
#include "core/drive/tape.h"

namespace lacquer {

/// A tape and how long it plays, in seconds.
struct NamedTape {
    std::string name = "Tape";
    double length = 6;
    Tape tape;
};

/// The text of a tape: a line about it, then one line for each thing that happened.
std::string tape_to_text(const NamedTape& tape);

/// Reads such a text. Lines that cannot be used are left out, and so is what is more than a tape holds; `notices` tells
/// of the first of them and how many there are. Faults: `file.shape`, `file.format`, those of reading JSON.
Result<NamedTape> tape_from_text(std::string_view text, const std::string& where, Faults& notices);

/// Reads or writes a file. Faults: those above and of reading or writing whole files.
Result<NamedTape> load_tape(const std::string& path, Faults& notices);
Result<Done> save_tape(const std::string& path, const NamedTape& tape);

}  // namespace lacquer
