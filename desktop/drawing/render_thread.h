// Draws away from the interface thread. Of what is asked for, the latest wins; what is looked at goes first.
#pragma once

#include <QImage>
#include <QSize>
#include <QString>
#include <atomic>
#include <chrono>
#include <condition_variable>
#include <functional>
#include <map>
#include <memory>
#include <mutex>
#include <optional>
#include <string>
#include <thread>

#include "core/base/cancel.h"
#include "core/inspect/frame_rates.h"
#include "core/inspect/inspection.h"
#include "core/render/renderer.h"
#include "core/render/view.h"

namespace lacquer {

/// A step as the stage shows it.
struct StagePicture {
    std::string step;
    QImage image;
    QImage fitted;  ///< the same made smaller to fit the view, where that was asked for
    /// What the image shows, before any of the looking aids; null in a drag and in play unless they were asked for.
    std::shared_ptr<const Picture> values;
    RenderRequest request;  ///< what would draw it once more, whole
    Type type = Type::number;
    ValueRange range;
    std::size_t passes = 0;
    double milliseconds = 0;
    std::map<std::string, double, std::less<>> step_milliseconds;  ///< about how long each step takes
    Faults notices;
    bool reduced = false;     ///< drawn smaller, to keep up with a drag or to be seen before the whole is there
    bool more_comes = false;  ///< the whole one follows by itself
    bool in_a_drag = false;   ///< nothing was done with it but drawing
    std::int64_t ticks = 0;   ///< that were drawn for it, and the milliseconds that they took
    double tick_milliseconds = 0;
    bool rough = false;                ///< ticks went on from before what is dragged was changed
    bool empty = false;                ///< there is nothing to draw
    std::vector<StagePicture> beside;  ///< other steps that were asked for with it
};

/// A step as the ladder shows it.
struct Thumbnail {
    QImage image;
    Type type = Type::number;
    ValueRange range;
};
using Thumbnails = std::map<std::string, Thumbnail, std::less<>>;

/// The values of steps at some pixels.
struct Probe {
    std::vector<PixelPoint> points;
    std::vector<DrawnStep> steps;  ///< each a row with a pixel for each point

    /// The row of a step, or null.
    const DrawnStep* find(std::string_view step) const;
};

/// What to draw on the stage.
struct StageRequest {
    RenderRequest request;  ///< its first step is the one that is shown
    ViewStyle style;
    QSize view{};             ///< screen pixels that the whole picture is fitted into; empty if it is not
    bool may_reduce = false;  ///< smaller if frames of late would have come too late
    bool in_a_drag = false;   ///< more will follow soon, so that small pictures wait in between
    bool values = false;      ///< even then its numbers are wanted, not only what is seen of them
};

/// Where results go. They come on the render thread.
struct RenderResults {
    std::function<void(StagePicture)> stage = nullptr;
    std::function<void(Thumbnails)> thumbnails = nullptr;
    std::function<void(Probe)> probe = nullptr;
    std::function<void(Thumbnails)> candidates = nullptr;  ///< a few at a time, in order
    std::function<void(Warnings)> warnings = nullptr;
    std::function<void(RateReport)> rates = nullptr;
    std::function<void(QString, double)> reading =
        nullptr;                                    ///< a file that takes long, and its share so far; 1 at the end
    std::function<void(double)> ticking = nullptr;  ///< ticks that take long, and their share so far; 1 at the end
};

/// Owns the thread, the workers and the renderer.
class RenderThread {
public:
    /// With `stores`, those that others have, too. `threads` draw, the own one among them; 0 is one for each processor.
    explicit RenderThread(RenderResults results, std::shared_ptr<RenderStores> stores = nullptr, int threads = 0);
    ~RenderThread();
    RenderThread(const RenderThread&) = delete;
    RenderThread& operator=(const RenderThread&) = delete;

    // Each takes the place of any of its kind that was not begun.
    void ask_stage(StageRequest request);
    void ask_probe(RenderRequest request);
    /// Small pictures of the request's steps, all at once.
    void ask_thumbnails(RenderRequest request);
    /// Small pictures of the request's steps, as many at a time as come quickly.
    void ask_candidates(RenderRequest request);
    void ask_warnings(RenderRequest request);
    /// The tape at several frame rates.
    void ask_rates(std::optional<RenderRequest> request);
    /// Chooses what draws the stage from the next picture on.
    void use_backend(Backend backend);
    /// Files have changed that ticks may have been drawn from: they begin anew.
    void forget_ticks();
    /// Stops the reading of a file that is under way.
    void stop_reading() { stop_reading_ = true; }
    /// True when no picture or value is asked for or under way; inspections may be.
    bool idle() const;
    /// True when inspections are done, too.
    bool inspected() const;

private:
    void serve();
    bool next_job(std::unique_lock<std::mutex>& lock);
    bool watch_reading(const std::string& path, double share);
    void watch_ticks(double share);
    template <class Work, class Results>
    void look_into(std::unique_lock<std::mutex>& lock, const Cancel& cancel, std::optional<RenderRequest>& asked,
                   const bool& wanted, Work work, const Results& results);
    void tell_failed(const Fault& why);
    double ticks_ms(const RenderRequest& request) const;
    bool ticks_take_long(const RenderRequest& request) const;
    QSize first_size(const StageRequest& job, bool has_long_ticks);
    void draw_stage(const StageRequest& job, const Cancel& cancel);
    /// Draws all of its pixels, as many as a drag has time for, or a few before all of them come.
    enum class Pixels { all, as_there_is_time, few };
    void draw_stage_of(const StageRequest& job, const Cancel& cancel, Pixels pixels, QSize few = {});
    void draw_small(const RenderRequest& request, const Cancel& cancel, const std::function<void(Thumbnails)>& done);

    RenderResults results_;
    mutable std::mutex mutex_;
    std::condition_variable wake_;
    std::optional<StageRequest> stage_;
    std::optional<RenderRequest> probe_;
    std::optional<RenderRequest> thumbnails_;
    std::optional<RenderRequest> candidates_;
    std::optional<RenderRequest> warnings_;
    std::optional<RenderRequest> rates_;
    bool rates_wanted_ = false;            ///< nobody has called the check off
    std::optional<Backend> backend_;       // chosen, not yet taken up
    std::optional<Fault> backend_notice_;  // why another draws; of the render thread
    bool ticks_are_old_ = false;
    bool busy_ = false;
    bool inspecting_ = false;
    bool may_interrupt_ = false;  // the work at hand can be thrown away for a newer request
    bool stopping_ = false;
    std::atomic<bool> stop_reading_ = false;
    std::chrono::steady_clock::time_point reading_since_;  // of the render thread
    std::chrono::steady_clock::time_point reading_told_;
    bool in_a_drag_ = false;
    bool has_drawn_ = false;                               ///< a picture of the stage
    bool has_prepared_ = false;                            ///< what reads rarer kinds of pictures
    std::chrono::steady_clock::time_point ticking_since_;  // of the render thread
    double last_stage_time_ = 0;                           ///< seconds
    double last_full_frame_ms_ = 0;
    double tick_ms_ = 0;                                            ///< of the last ticks at the frame's size, each
    int drag_divisor_ = 2;                                          ///< of both sides, of frames that would be late
    std::map<std::string, double, std::less<>> step_milliseconds_;  // of the last full frame
    Cancel cancel_;
    WorkerPool pool_;
    Renderer renderer_;
    std::thread thread_;
};

/// The image for Qt.
QImage to_qimage(const Image8& image);

}  // namespace lacquer
