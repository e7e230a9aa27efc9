// Parts of a finish that have to do with play, read from a file: nothing is trusted, what has the wrong shape is named.
#pragma once

#include "core/finish/finish.h"
#include "core/finish/json_fields.h"

namespace lacquer {

/// Each takes one object of a file apart; the keys are those of docs/format.md. Wrong values become usual ones, with a
/// notice `file.value`.
CueKind read_cue_kind(Fields& fields);
Signal read_signal(Fields& fields);
Response read_response(Fields& fields);
Dial read_dial(Fields& fields);

/// One thing that happened: a cue, or a signal or dial that was set.
void read_event(Fields& fields, Tape& tape);

}  // namespace lacquer
