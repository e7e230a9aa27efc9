// Small pictures and masks on which operations are shown.
#pragma once

#include <vector>

#include "core/catalogue/catalogue.h"

namespace lacquer {

/// The samples, each the text of a step: `harbour` and `chart` are pictures, `crab` a sprite, `blotch`, `hill` and
/// `stones` masks.
const std::vector<OperationFile>& sample_files();

}  // namespace lacquer
