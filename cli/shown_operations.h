// Operations drawn on the samples: one picture each, and all of them on a sheet.
#pragma once

#include <map>
#include <string>

#include "core/base/worker_pool.h"
#include "core/catalogue/catalogue.h"
#include "core/picture/picture.h"

namespace lacquer::cli {

/// Every operation that says how it is shown, drawn at 240 x 135, by name. Faults: those of the formulas that they are
/// shown by, with the operation's file.
Result<std::map<std::string, Image8>> shown_operations(const std::shared_ptr<const Catalogue>& catalogue,
                                                       WorkerPool& pool);

/// All of them by group in one picture, each with its title under it.
Result<Image8> sheet_of(const Catalogue& catalogue, const std::map<std::string, Image8>& pictures);

/// What the operation costs a pixel as it is shown, without the sample that it is shown on.
std::string cost_as_shown(const std::shared_ptr<const Catalogue>& catalogue, const Operation& operation);

}  // namespace lacquer::cli
