// Draws away from the interface thread. Of what is asked for, the latest wins.
#pragma once

#include <QImage>
#include <QString>
#include <condition_variable>
#include <functional>
#include <map>
#include <mutex>
#include <optional>
#include <string>
#include <thread>

#include "core/base/cancel.h"
#include "core/render/renderer.h"
#include "core/render/view.h"

namespace lacquer {

/// A step as the stage shows it.
struct StagePicture {
    std::string step;
    QImage image;
    Type type = Type::number;
    ValueRange range;
    std::size_t passes = 0;
    double milliseconds = 0;
    Faults notices;
    bool reduced = false;  ///< drawn at half size to keep up with a drag
    bool empty = false;    ///< there is nothing to draw
};

/// A step as the ladder shows it.
struct Thumbnail {
    QImage image;
    Type type = Type::number;
    ValueRange range;
};
using Thumbnails = std::map<std::string, Thumbnail, std::less<>>;

/// Owns the thread, the workers and the renderer. Results come on the render thread.
class RenderThread {
public:
    RenderThread(std::function<void(StagePicture)> stage_done, std::function<void(Thumbnails)> thumbnails_done);
    ~RenderThread();
    RenderThread(const RenderThread&) = delete;
    RenderThread& operator=(const RenderThread&) = delete;

    /// Asks for the stage's picture, in place of any that was not begun. `may_reduce` draws at half size if frames of
    /// late would have come too late.
    void ask_stage(RenderRequest request, bool may_reduce);
    /// Asks for small pictures of the request's steps.
    void ask_thumbnails(RenderRequest request);
    /// Chooses what draws the stage from the next picture on.
    void use_backend(Backend backend);
    /// True when nothing is asked for or under way.
    bool idle() const;

private:
    struct StageJob {
        RenderRequest request;
        bool may_reduce = false;
    };
    void serve();
    void draw_stage(const StageJob& job, const Cancel& cancel);
    void draw_thumbnails(const RenderRequest& request, const Cancel& cancel);

    std::function<void(StagePicture)> stage_done_;
    std::function<void(Thumbnails)> thumbnails_done_;
    mutable std::mutex mutex_;
    std::condition_variable wake_;
    std::optional<StageJob> stage_;
    std::optional<RenderRequest> thumbnails_;
    std::optional<Backend> backend_;       // chosen, not yet taken up
    std::optional<Fault> backend_notice_;  // why another draws; of the render thread
    bool busy_ = false;
    bool may_interrupt_ = false;  // the work at hand can be thrown away for a newer request
    bool stopping_ = false;
    double last_full_frame_ms_ = 0;
    Cancel cancel_;
    WorkerPool pool_;
    Renderer renderer_;
    std::thread thread_;
};

/// The image for Qt.
QImage to_qimage(const Image8& image);

}  // namespace lacquer
