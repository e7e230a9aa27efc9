// A set: what ship wrote for one finish.
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/base/cancel.h"
#include "core/ship/output.h"

namespace lacquer {

/// Is told how far it has come, 0..1, and with what it is busy.
using ShipProgress = std::function<void(double share, const std::string& what)>;

/// All files of a set with these outputs, the manifest last; those that the finish cannot be shipped as are left out.
/// Faults: those of the outputs, `ship.stopped`.
Result<ShippedFiles> set_files(const ShipMaterial& material, const std::vector<const ShipOutput*>& outputs,
                               const Cancel& cancel = {}, const ShipProgress& progress = {});

/// Puts a set's files into `folder`, which they then fill: it is made, or replaced as a whole if a set lies in it
/// already; at every moment either the old or the new one is whole. A folder that holds anything else is left alone.
/// Faults: `ship.folder` for one that is no set's, `ship.path` for a file that would lie elsewhere, `file.unwritable`.
Result<Done> write_set(const std::string& folder, const ShippedFiles& files);

/// Name of the file by which a folder is known to hold a set.
inline constexpr const char* manifest_file = "manifest.json";

}  // namespace lacquer
