// Scenes kept in layered OpenEXR files: colours, depth, normals, positions, object ids.
#pragma once

#include <string>
#include <vector>

#include "core/picture/files.h"
#include "core/scene/cast.h"

namespace lacquer {

/// Which layer of a file holds what, by their names in the file; "-" for none, since the colours' own name may be
/// empty.
struct CaptureLayers {
    std::string colour;
    std::string depth;
    std::string normal;
    std::string position;
    std::string id;
    friend bool operator==(const CaptureLayers&, const CaptureLayers&) = default;
};

/// What stands for a layer that is not there.
inline constexpr const char* no_layer = "-";

/// Finds each layer by the names that files usually give them (`Z` for depth, `N` or `normal`, `P` or `position`, `id`
/// and the like; the OpenEXR convention for layers is `name.channel`). What `chosen` names is taken as it says.
CaptureLayers found_layers(const std::vector<PictureLayer>& layers, const CaptureLayers& chosen);

/// How many bits colours and normals have in a file. Depth, positions and ids always have 32: half a metre at a
/// kilometre would be lost, and every id above 2048.
enum class CaptureBits { all, half_colours };

/// Writes all layers that are there: `R G B A`, `Z`, `N.X N.Y N.Z`, `P.X P.Y P.Z`, `id`. Faults as those of
/// `write_exr`.
Result<Done> write_capture(const std::string& path, const SceneLayers& layers, CaptureBits bits = CaptureBits::all);

}  // namespace lacquer
