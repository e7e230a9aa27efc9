// What several kinds of ground write about a picture: how it is read between its pixels, and what its opacity means.
#pragma once

#include "core/picture/files_module.h"
#include "core/picture/sample.h"

namespace lacquer {

class Fields;
class Json;

/// `wrap` and `filter`; what stands there wrongly is told and taken as usual.
Sampling read_sampling(Fields& fields);
/// Writes what is not as usual.
void write_sampling(Json& object, const Sampling& sampling);

/// `multiplied` or `straight`, as marked if neither is there.
FileOpacity read_opacity(Fields& fields);
/// Writes what is not as usual.
void write_opacity(Json& object, FileOpacity opacity);

}  // namespace lacquer
