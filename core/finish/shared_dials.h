// Dials that several finishes read, in a file of their own: changed in one place, they change everywhere.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"
#include "core/finish/finish.h"

namespace lacquer {

/// Whether a path has the ending of such files; nothing else is read or written as one.
bool is_shared_dials_file(std::string_view path);

/// The dials of such a file (`name.dials`, JSON). Faults: those of `read_whole_file` and of reading JSON, `file.shape`,
/// `file.format`.
Result<std::vector<Dial>> load_shared_dials(const std::string& path);

/// Writes them, as `write_whole_file` does. Faults: `file.unwritable`; `file.shape` for a path that does not end as
/// such files do.
Result<Done> save_shared_dials(const std::string& path, const std::vector<Dial>& dials);

/// The finish with its shared dials as the file has them: those that are not there any more stay as they are and are
/// its own again; those that are new to it are left out. `notices` tells of them.
Finish with_shared_dials(Finish finish, const std::vector<Dial>& shared, Faults& notices);

/// Of the file's dials as they are `now`: those that another program changed since they were `known`. The others stand
/// as the finish has them, which may have been changed meanwhile and not saved yet.
std::vector<Dial> changed_elsewhere(const Finish& finish, const std::vector<Dial>& known, std::vector<Dial> now);

/// The shared dials of a finish, put among those that the file holds already.
std::vector<Dial> shared_dials_of(const Finish& finish, std::vector<Dial> in_file);

/// Takes a shared dial of the file into the finish. Faults: `edit.name`, `edit.unknown`.
Result<Finish> take_shared_dial(Finish finish, const std::vector<Dial>& shared, const std::string& name);

}  // namespace lacquer
