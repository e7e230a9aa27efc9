// Whole files, read within bounds and written so that nothing is lost.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>

#include "core/base/result.h"

namespace lacquer {

/// Writes a file so that at every moment either the old or the new one is whole: temporary file beside it, fsync,
/// rename. Keeps the rights of a file that it replaces; where `path` is a link, what it points to is replaced. Faults:
/// `file.unwritable`.
Result<Done> write_whole_file(const std::string& path, std::string_view bytes);

/// The whole of a plain file of at most `most` bytes. Faults: `file.missing`, `file.unreadable`, `file.size`.
Result<std::string> read_whole_file(const std::string& path, std::size_t most);

}  // namespace lacquer
