// The pictures that finishes read, kept between frames.
#pragma once

#include <filesystem>
#include <functional>
#include <list>
#include <map>
#include <string>
#include <tuple>
#include <utility>
#include <vector>

#include "core/base/cancel.h"
#include "core/base/result.h"
#include "core/base/worker_pool.h"
#include "core/finish/ground_pictures.h"
#include "core/picture/files.h"
#include "core/picture/reading.h"
#include "core/scene/cast.h"

namespace lacquer {

/// For what a ground's picture is wanted.
struct GroundUse {
    const Finish* finish = nullptr;
    std::string finish_path;  ///< where it lies; may be empty
    double time = 0;
    int width = 0;  ///< drawn size, pixels
    int height = 0;
    bool small = false;    ///< files averaged down to the drawn size first, for small views
    SceneLayerSet wanted;  ///< what else of a scene will be asked for: all is cast in one go
};

/// Reads each file once, and again when it changes; keeps the views of stand-in scenes that were cast last. Not to be
/// shared between threads.
class GroundStore {
public:
    explicit GroundStore(WorkerPool& pool) : pool_(pool) {}

    /// Is told of files that are read, and how far that has come; false stops the reading. The file then counts as
    /// unreadable until it changes.
    using Watch = std::function<bool(const std::string& path, double share)>;
    void watch_reading(Watch watch) { watch_ = std::move(watch); }

    /// A picture of one of the finish's grounds. Faults as those of `read_picture` and `read_layer`;
    /// `ground.no-layer` where a capture does not hold it, `ground.no-scene` for marks of nothing, `render.cancelled`.
    Result<PicturePtr> picture(const NamedPicture& named, const GroundUse& use, const Cancel& cancel);

    /// The picture at `path`. Faults as those of `read_picture`.
    Result<PicturePtr> file(const std::string& path, PictureMeaning meaning, int frame = 0);
    /// The same, averaged down to at most `width` x `height`.
    Result<PicturePtr> small_file(const std::string& path, PictureMeaning meaning, int width, int height,
                                  int frame = 0);

private:
    struct Entry {
        std::filesystem::file_time_type changed;
        Result<PicturePtr> picture = PicturePtr();
        PicturePtr small;
        std::pair<int, int> small_size;
    };
    struct CapturedFile {
        std::filesystem::file_time_type changed;
        Result<std::vector<PictureLayer>> layers = std::vector<PictureLayer>();
        std::map<std::string, Entry> read;  ///< by the layer's name
    };
    struct Cast {
        SceneView view;
        double time = 0;
        int width = 0;
        int height = 0;
        std::map<GroundLayer, std::shared_ptr<Picture>> pictures;
    };
    struct Laid {
        Sprite sprite;
        bool multiplied = false;
        std::vector<std::filesystem::file_time_type> changed;
        std::map<GroundLayer, Entry> pictures;
    };
    struct Marked {
        PicturePtr ids;
        std::vector<int> chosen;
        PicturePtr mask;
    };

    Entry& entry(const std::string& path, PictureMeaning meaning, int frame = 0);
    ReadWatch told_of(const std::string& path) const;
    int frame_of(const std::string& path, double time);
    void drop_oldest_cast();
    static PicturePtr small_of(Entry& entry, GroundLayer layer, int width, int height);
    Result<PicturePtr> cast(const SceneView& view, GroundLayer layer, const GroundUse& use, const Cancel& cancel);
    Result<PicturePtr> captured(const Ground& ground, GroundLayer layer, const GroundUse& use);
    Result<PicturePtr> laid(const Ground& ground, GroundLayer layer, const GroundUse& use);
    Result<PicturePtr> table(const std::string& path);
    Result<PicturePtr> cell(const Ground& ground, const GroundUse& use);
    Result<PicturePtr> marked(const Ground& ground, const GroundUse& use, const Cancel& cancel);

    WorkerPool& pool_;
    Watch watch_;
    std::map<std::tuple<std::string, PictureMeaning, int>, Entry> entries_;
    std::map<std::string, std::pair<std::filesystem::file_time_type, PictureFrames>> frames_;
    std::map<std::string, CapturedFile> captures_;
    std::map<std::string, Entry> tables_;
    std::list<Cast> casts_;  ///< last used first
    SceneLayers old_cast_;   ///< pictures of the one that was dropped last, to be written over
    std::list<Marked> marked_;
    std::list<Laid> laid_;
    std::map<std::string, std::pair<PicturePtr, PicturePtr>> cells_;  ///< the sheet and the cell cut last
};

/// The layers of a scene that a picture is.
void add_layer(SceneLayerSet& set, GroundLayer layer);

}  // namespace lacquer
