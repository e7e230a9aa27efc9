// A finish that is open, and what is played on it: what the command line and the library have in common.
#pragma once

#include <memory>
#include <string>

#include "core/catalogue/catalogue.h"
#include "core/finish/checked.h"
#include "core/finish/play.h"
#include "core/finish/tape_file.h"

namespace lacquer {

struct PlayedFinish {
    std::string path;  ///< where it lies, for its pictures; may be empty
    std::shared_ptr<const Catalogue> catalogue;
    std::shared_ptr<const CheckedFinish> checked;
    NamedTape tape;  ///< its own, until another one is taken
    HeldDials held = {};

    const Finish& finish() const { return *checked->finish; }
};

/// A finish ready to be played, checked, with its own tape.
PlayedFinish play_finish(Finish finish, std::string path, std::shared_ptr<const Catalogue> catalogue);

// Faults of all below: `play.unknown` for a name that there is not, `play.value` for what is no number or lies before
// 0 s, `play.full` for more than a tape holds; those of reading tapes. What fails changes nothing.

/// Switches a variant on; "" for none. The tape and what is held stay.
Result<Done> use_variant(PlayedFinish& played, const std::string& name);
/// A file of a tape in place of the one that is played.
Result<Done> use_tape(PlayedFinish& played, const std::string& path, Faults& notices);
/// Holds a dial against what drives it, and lets go of it again.
Result<Done> hold_dial(PlayedFinish& played, const std::string& name, const DialValue& value);
Result<Done> let_go_of_dial(PlayedFinish& played, const std::string& name);
/// Puts a cue on the tape. Its strength is held to 0 to 1.
Result<Done> press_cue(PlayedFinish& played, Cue cue);
/// Puts a change of a signal or dial on the tape.
Result<Done> change_at(PlayedFinish& played, Change change);

}  // namespace lacquer
