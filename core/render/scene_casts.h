// Pictures of stand-in scenes, the last few kept.
#pragma once

#include <list>
#include <map>
#include <memory>

#include "core/base/cancel.h"
#include "core/base/result.h"
#include "core/base/worker_pool.h"
#include "core/finish/ground_pictures.h"
#include "core/picture/picture.h"
#include "core/scene/cast.h"

namespace lacquer {

/// When and how large a scene is cast, and what of it will be asked for: all is cast in one go.
struct SceneMoment {
    double time = 0;
    int width = 0;  ///< pixels
    int height = 0;
    SceneLayerSet wanted;
};

/// Keeps the views that were cast last. To be used from one thread at a time.
class SceneCasts {
public:
    explicit SceneCasts(WorkerPool& pool) : pool_(pool) {}

    /// A layer of a view. Faults: `ground.no-scene`, `render.cancelled`.
    Result<PicturePtr> cast(const SceneView& view, GroundLayer layer, const SceneMoment& at, const Cancel& cancel);

private:
    struct Cast {
        SceneView view;
        double time = 0;
        int width = 0;
        int height = 0;
        std::map<GroundLayer, std::shared_ptr<Picture>> pictures;
    };
    void drop_oldest_cast();

    WorkerPool& pool_;
    std::list<Cast> casts_;  // last used first
    SceneLayers old_cast_;   // pictures of the one that was dropped last, to be written over
};

/// The layers of a scene that a picture is.
void add_layer(SceneLayerSet& set, GroundLayer layer);

}  // namespace lacquer
