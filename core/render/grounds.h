// The pictures of grounds at a moment.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <string>

#include "core/base/cancel.h"
#include "core/base/result.h"
#include "core/base/worker_pool.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/play.h"
#include "core/picture/sprite.h"
#include "core/render/drop_pictures.h"
#include "core/render/picture_store.h"
#include "core/render/scene_casts.h"

namespace lacquer {

/// For what a ground's picture is wanted.
struct GroundUse {
    const Finish* finish = nullptr;
    std::string finish_path;  ///< where it lies; may be empty
    double time = 0;
    int width = 0;  ///< drawn size, pixels
    int height = 0;
    bool small = false;                ///< files averaged down to the drawn size first, for small views
    SceneLayerSet wanted;              ///< what else of a scene will be asked for: all is cast in one go
    std::shared_ptr<const Play> play;  ///< what droplets hear of; null if there are none
    std::map<std::string, DropLayers, std::less<>> of_drops;  ///< the same of grounds of droplets, by their names
};

/// The pictures of a finish's grounds, from the store that all share and from scenes that are cast. To be used from one
/// thread at a time.
class GroundStore {
public:
    GroundStore(WorkerPool& pool, std::shared_ptr<PictureStore> pictures)
        : pool_(pool), pictures_(std::move(pictures)), casts_(pool), drops_(pool) {}

    /// Is told of files that are read, and how far that has come; false stops the reading. The file then counts as
    /// unreadable here until it changes.
    using Watch = std::function<bool(const std::string& path, double share)>;
    void watch_reading(Watch watch) { watch_ = std::move(watch); }

    /// A picture of one of the finish's grounds. Faults as those of `read_picture` and `read_layer`;
    /// `ground.no-layer` where a capture does not hold it, `ground.no-scene` for marks of nothing, `render.cancelled`.
    Result<PicturePtr> picture(const NamedPicture& named, const GroundUse& use, const Cancel& cancel);

    /// What was noticed of droplets since this was last asked; see `DropDrawings`.
    Faults take_notices() { return drops_.take_notices(); }

    /// The picture at `path`. Faults as those of `read_picture`.
    Result<PicturePtr> file(const std::string& path, PictureMeaning meaning, int frame = 0);

private:
    ReadWatch told_of(const std::string& path) const;
    Result<PicturePtr> told(Result<PicturePtr> read, const std::string& path);
    bool was_stopped(const std::string& path) const;
    Result<PicturePtr> layer_of(const std::string& path, const std::string& name, PictureMeaning meaning);
    PicturePtr fitted(const PicturePtr& whole, GroundLayer layer, const GroundUse& use);

    struct Asked {
        const std::string& ground;
        GroundLayer layer;
        const GroundUse& use;
        const Cancel& cancel;
        PictureMeaning meaning;
    };
    Result<PicturePtr> drawn(const PictureGround& ground, const Asked& asked);
    Result<PicturePtr> drawn(const GradientGround& ground, const Asked& asked);
    Result<PicturePtr> drawn(const CurveGround& ground, const Asked& asked);
    Result<PicturePtr> drawn(const SceneGround& ground, const Asked& asked);
    Result<PicturePtr> drawn(const CaptureGround& ground, const Asked& asked);
    Result<PicturePtr> drawn(const MarksGround& ground, const Asked& asked);
    Result<PicturePtr> drawn(const SpriteGround& ground, const Asked& asked);
    Result<PicturePtr> drawn(const TableGround& ground, const Asked& asked);
    Result<PicturePtr> drawn(const DropletsGround& ground, const Asked& asked);
    Result<LaidPart> part_of(const SpritePart& part, const Asked& asked);

    WorkerPool& pool_;
    std::shared_ptr<PictureStore> pictures_;
    SceneCasts casts_;
    DropDrawings drops_;
    Watch watch_;
    std::map<std::string, std::string> stopped_;  // by path, the state in which reading it was stopped
};

}  // namespace lacquer
