// Finishes on disk: `name.lacquer`, JSON. docs/format.md describes the keys.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// The format that this version writes. Files of a newer one are refused.
inline constexpr int finish_format = 1;
/// Largest file that is read and written, in bytes: a full tape takes most of it.
inline constexpr std::size_t max_file_size = std::size_t{64} * 1024 * 1024;

/// A finish that was read, and what had to be left out or guessed.
struct OpenedFinish {
    Finish finish;
    Faults notices;
};

/// Reads the text of a finish. Unknown keys are kept; a wrong value becomes its default, with a notice `file.value`.
/// Faults: `file.json`, `file.depth`, `file.format`, `file.size`, `file.shape`.
Result<OpenedFinish> finish_from_text(std::string_view text, const std::string& where);

/// The text of a finish: keys in a fixed order, one step, dial or response a line.
std::string finish_to_text(const Finish& finish);

/// Each thing on a tape as one line of JSON, in order of time: `{"cue": ...}` or `{"set": ...}`.
std::vector<std::string> tape_lines(const Tape& tape);

/// The text of a file of shared dials.
std::string dials_to_text(const std::vector<Dial>& dials);

/// Reads a file, and its shared dials from theirs. Faults: those of `read_whole_file` and `finish_from_text`.
Result<OpenedFinish> load_finish(const std::string& path);

/// Writes a file, as `write_whole_file` does. Faults: `file.unwritable`; `file.size` for one that could not be opened
/// again.
Result<Done> save_finish(const std::string& path, const Finish& finish);

/// The path of a ground's picture, as seen from the finish's own file.
std::string picture_path(const std::string& finish_path, const std::string& ground_path);

/// `picture` as written in a finish at `finish_path`: relative to its folder where it lies in or near it.
std::string stored_picture_path(const std::string& finish_path, const std::string& picture);

}  // namespace lacquer
