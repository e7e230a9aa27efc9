// All operations that steps may call: those that come along, and the user's own.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/catalogue/operation.h"
#include "core/lang/checker.h"

namespace lacquer {

/// Operations by name, ready to be called. What could not be read is in `faults`, and `broken` says why under its name.
struct Catalogue {
    std::map<std::string, Operation, std::less<>> operations;
    std::map<std::string, Callable, std::less<>> plain;  ///< those that may stand anywhere in a formula
    std::map<std::string, Fault, std::less<>> broken;
    /// What cannot stand within a formula, and what to say of it there: `finish.whole-step` or `finish.operation`.
    std::map<std::string, Fault, std::less<>> not_called;
    Faults faults;
};

/// A file with its name without ending, its text and where it lies.
struct OperationFile {
    std::string name;
    std::string text;
    std::string path;
    std::optional<Fault> fault = {};  ///< why it could not be read
};

/// The operations that come along.
const std::vector<OperationFile>& built_in_operation_files();

/// Reads and checks all of these; later ones replace earlier ones of the same name. They may call each other where a
/// formula could, but not in a circle.
std::shared_ptr<const Catalogue> make_catalogue(const std::vector<OperationFile>& files);

/// The operations that come along and nothing else; read once.
const std::shared_ptr<const Catalogue>& built_in_catalogue();

/// The .glsl files of a folder, in order of their names; none if there is no such folder. What is no plain file, or
/// cannot be read, comes with its fault.
std::vector<OperationFile> operation_files_in(const std::string& folder);

/// How the operation reads that a file of the folder would hold with the text of `typed`, beside all others. Nothing
/// for a text that is only there to be used by others. Faults: those with which it would stand in the catalogue,
/// `file.name` for a name that no step could write.
Result<std::optional<Operation>> operation_as_typed(const std::string& folder, const OperationFile& typed);

/// What a new operation's file says: a head and a function of this name, which change nothing yet.
std::string operation_template(const std::string& name);

/// Where the user's own operations lie: $XDG_DATA_HOME/lacquer/operations, else ~/.local/share/lacquer/operations.
std::string user_operations_folder();

/// The operations that come along and those of a folder, which may be missing or have no name.
std::shared_ptr<const Catalogue> catalogue_with_folder(const std::string& folder);

}  // namespace lacquer
