#include "desktop/session/render_thread.h"

#include <cstring>
#include <utility>

#include "core/picture/files.h"

namespace lacquer {

namespace {

/// A frame that takes longer than this feels late in a drag.
constexpr double frame_budget_ms = 33;

}  // namespace

QImage to_qimage(const Image8& image) {
    QImage made(image.width, image.height, QImage::Format_RGBA8888);
    const std::size_t row = static_cast<std::size_t>(image.width) * 4;
    for (int y = 0; y < image.height; ++y) {
        std::memcpy(made.scanLine(y), image.data.data() + static_cast<std::size_t>(y) * row, row);
    }
    return made;
}

RenderThread::RenderThread(std::function<void(StagePicture)> stage_done,
                           std::function<void(Thumbnails)> thumbnails_done)
    : stage_done_(std::move(stage_done)),
      thumbnails_done_(std::move(thumbnails_done)),
      renderer_(pool_),
      thread_([this] { serve(); }) {}

RenderThread::~RenderThread() {
    {
        const std::lock_guard lock(mutex_);
        stopping_ = true;
        cancel_.request();
    }
    wake_.notify_all();
    thread_.join();
}

void RenderThread::ask_stage(RenderRequest request, bool may_reduce) {
    const std::lock_guard lock(mutex_);
    stage_ = StageJob{std::move(request), may_reduce};
    if (busy_ && may_interrupt_) cancel_.request();
    wake_.notify_all();
}

void RenderThread::ask_thumbnails(RenderRequest request) {
    const std::lock_guard lock(mutex_);
    thumbnails_ = std::move(request);
    wake_.notify_all();
}

void RenderThread::use_backend(Backend backend) {
    const std::lock_guard lock(mutex_);
    backend_ = backend;
}

bool RenderThread::idle() const {
    const std::lock_guard lock(mutex_);
    return !busy_ && !stage_ && !thumbnails_;
}

void RenderThread::serve() {
    // While the window is still being built; the first picture would only wait for it.
    prepare_picture_files();
    std::unique_lock lock(mutex_);
    for (;;) {
        wake_.wait(lock, [this] { return stopping_ || stage_ || thumbnails_; });
        if (stopping_) return;
        busy_ = true;
        cancel_ = Cancel();
        const Cancel cancel = cancel_;
        if (backend_) backend_notice_ = renderer_.use(*std::exchange(backend_, std::nullopt));
        if (stage_) {
            const StageJob job = *std::exchange(stage_, std::nullopt);
            // A slow frame at rest gives way to a newer one; in a drag each is finished, or none would ever be seen.
            may_interrupt_ = !job.may_reduce && last_full_frame_ms_ > frame_budget_ms;
            lock.unlock();
            draw_stage(job, cancel);
        } else {
            const RenderRequest request = *std::exchange(thumbnails_, std::nullopt);
            may_interrupt_ = false;  // small: waiting for it is cheaper than doing it twice
            lock.unlock();
            draw_thumbnails(request, cancel);
        }
        lock.lock();
        busy_ = false;
    }
}

void RenderThread::draw_stage(const StageJob& job, const Cancel& cancel) {
    RenderRequest request = job.request;
    const Finish& finish = *request.checked->finish;
    StagePicture done;
    done.step = request.steps.front();
    if (job.may_reduce && last_full_frame_ms_ > frame_budget_ms) {
        request.width = std::max(1, finish.frame_width / 2);
        request.height = std::max(1, finish.frame_height / 2);
        done.reduced = true;
    }
    Result<Frame> frame = renderer_.render(request, cancel);
    if (!frame) return;
    if (!done.reduced) last_full_frame_ms_ = frame->milliseconds;
    done.milliseconds = frame->milliseconds;
    done.passes = frame->passes;
    done.notices = frame->notices;
    if (backend_notice_) done.notices.push_back(*backend_notice_);
    done.empty = frame->steps.empty();
    if (!done.empty) {
        const DrawnStep& drawn = frame->steps.front();
        done.type = drawn.type;
        done.image = to_qimage(to_image(drawn.picture, drawn.type, pool_));
        if (!done.reduced) done.range = value_range(drawn.picture);
    }
    stage_done_(std::move(done));
}

void RenderThread::draw_thumbnails(const RenderRequest& request, const Cancel& cancel) {
    Result<Frame> frame = renderer_.render(request, cancel);
    if (!frame) return;
    Thumbnails made;
    for (const DrawnStep& drawn : frame->steps) {
        made[drawn.name] = {to_qimage(halved(to_image(drawn.picture, drawn.type, pool_))), drawn.type,
                            value_range(drawn.picture)};
    }
    thumbnails_done_(std::move(made));
}

}  // namespace lacquer
