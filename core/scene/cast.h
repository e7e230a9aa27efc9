// Casting of rays into a world: what each pixel of a camera's picture meets.
#pragma once

#include "core/base/cancel.h"
#include "core/base/worker_pool.h"
#include "core/picture/picture.h"
#include "core/scene/camera.h"
#include "core/scene/world.h"

namespace lacquer {

/// Depth, in metres, where there is nothing but sky.
inline constexpr float sky_depth = 1000;

/// Which pictures are wanted of a view.
struct SceneLayerSet {
    bool colour = false;
    bool depth = false;
    bool normal = false;
    bool position = false;
    bool id = false;
};

/// Pictures of one view, each of 4 channels; those that were not asked for are empty. Colour is linear, with opacity 1.
/// Depth is in the first channel, in metres along the view, `sky_depth` for sky. Normals, of length 1 or 0 for sky, and
/// positions, in metres, are of the world. Ids are whole numbers in the first channel, 0 for sky.
struct SceneLayers {
    Picture colour;
    Picture depth;
    Picture normal;
    Picture position;
    Picture id;
};

/// Looks at a world. Edges between objects are smoothed in the colours only; all else is what the ray through the
/// pixel's middle meets. The same bits on every processor and for any number of threads. If called off, what is there
/// so far is not to be used. Pictures in `again`, which nobody needs any more, are written over where their size fits:
/// fresh memory costs as much as the casting.
SceneLayers cast_world(const SceneWorld& world, const Camera& camera, int width, int height, SceneLayerSet wanted,
                       WorkerPool& pool, const Cancel& cancel, SceneLayers again = {});

}  // namespace lacquer
