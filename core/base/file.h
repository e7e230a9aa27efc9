// Whole files, read within bounds and written so that nothing is lost.
#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

#include "core/base/result.h"

namespace lacquer {

/// Writes a file so that at every moment either the old or the new one is whole: temporary file beside it, fsync,
/// rename. Keeps the rights, and where it can the owner, of a file that it replaces; where `path` is a link, what it
/// points to is replaced or made. Only plain files are replaced. Faults: `file.unwritable`.
Result<Done> write_whole_file(const std::string& path, std::string_view bytes);

/// The same for what is handed on: a device or pipe is written to, and a pipe waited for until somebody reads it.
/// Faults: `file.unwritable`.
Result<Done> write_output(const std::string& path, std::string_view bytes);

/// The whole of a plain file of at most `most` bytes; it never waits for what is none. Faults: `file.missing`,
/// `file.unreadable`, `file.size`.
Result<std::string> read_whole_file(const std::string& path, std::size_t most);

/// Makes a folder and those that it lies in, so that a power cut takes none of them away again. Faults:
/// `file.unwritable`.
Result<Done> make_folder(const std::string& path);

/// Waits until a file, or the names in a folder, have reached the disk. False if they have not.
bool sync_path(const std::string& path);

/// What tells one state of a file from another: which file it is, how large, when it was last changed.
struct FileStamp {
    std::uint64_t device = 0;
    std::uint64_t file = 0;
    std::int64_t size = 0;
    std::int64_t changed = 0;  ///< nanoseconds
    friend bool operator==(const FileStamp&, const FileStamp&) = default;
};

/// The stamp of what is at `path`, links followed; nothing where there is nothing.
std::optional<FileStamp> stamp_of(const std::string& path);

}  // namespace lacquer
