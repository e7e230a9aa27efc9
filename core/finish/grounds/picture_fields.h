// What several kinds of ground write about a picture: how it is read between its pixels, and what its opacity means.
#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/picture/files_module.h"
#include "core/picture/sample.h"

namespace lacquer {

class Fields;

/// `wrap` and `filter`; what stands there wrongly is told and taken as usual.
Sampling read_sampling(Fields& fields);
/// Writes what is not as usual.
void write_sampling(nlohmann::ordered_json& object, const Sampling& sampling);

/// `multiplied` or `straight`, as marked if neither is there.
FileOpacity read_opacity(Fields& fields);
/// Writes what is not as usual.
void write_opacity(nlohmann::ordered_json& object, FileOpacity opacity);

}  // namespace lacquer
