#include "desktop/drawing/render_thread.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <utility>

#include "core/base/guarded.h"
#include "core/finish/ground_pictures.h"
#include "core/picture/files.h"
#include "core/picture/reader.h"
#include "core/render/layer_view.h"

namespace lacquer {

namespace {

/// A frame at rest that takes longer than this gives way to a newer one.
constexpr double frame_budget_ms = 33;
/// What drawing may take of a frame in a drag; the window needs the rest.
constexpr double drag_budget_ms = 7;
// Beyond that the view's own pixels come first, and the whole frame after them.
constexpr double long_frame_ms = 100;
constexpr double rough_budget_ms = 200;  // all ticks up to a moment, where they are drawn coarsely first
constexpr int coarsest = 16;
/// A moment that is further away than this may have many ticks on the way.
constexpr double far_away_seconds = 0.5;
/// Thumbnails that are drawn in a drag before the stage has its turn again.
constexpr std::size_t thumbnails_at_once = 1;
/// Candidates that are drawn before a newer request is looked at.
constexpr std::size_t candidates_at_once = 6;

// The milliseconds of each pass, shared out among its steps by how much each has to compute.
std::map<std::string, double, std::less<>> shared_out(const Plan& plan, const Frame& frame) {
    std::map<std::string, double, std::less<>> times;
    for (std::size_t i = 0; i < std::min(plan.passes.size(), frame.pass_milliseconds.size()); ++i) {
        std::size_t total = 0;
        const auto weight = [](const PassStep& step) { return node_count(*step.typed); };
        for (const PassStep& step : plan.passes[i].steps) total += weight(step);
        for (const PassStep& step : plan.passes[i].steps) {
            // What an operation stores belongs to its step, whose name stands before the point.
            times[step.name.substr(0, step.name.find('.'))] +=
                frame.pass_milliseconds[i] * static_cast<double>(weight(step)) / static_cast<double>(total);
        }
    }
    return times;
}

// Layers of scenes, whose numbers say little as they stand, are shown in colours.
Image8 shown_image(const Finish& finish, DrawnStep& drawn, WorkerPool& pool, const ViewStyle& style) {
    if (!drawn.image.data.empty()) return std::move(drawn.image);
    const std::optional<GroundLayer> layer = layer_to_view(finish, drawn.name);
    return layer ? to_image(layer_view(drawn.picture, *layer), Type::vec3, pool)
                 : to_image(drawn.picture, drawn.type, pool, style);
}

}  // namespace

const DrawnStep* Probe::find(std::string_view step) const {
    const auto found = std::find_if(steps.begin(), steps.end(), [&](const DrawnStep& s) { return s.name == step; });
    return found == steps.end() ? nullptr : &*found;
}

QImage to_qimage(const Image8& image) {
    QImage made(image.width, image.height, QImage::Format_RGBA8888);
    const std::size_t row = static_cast<std::size_t>(image.width) * 4;
    for (int y = 0; y < image.height; ++y) {
        std::memcpy(made.scanLine(y), image.data.data() + static_cast<std::size_t>(y) * row, row);
    }
    return made;
}

RenderThread::RenderThread(RenderResults results, std::shared_ptr<RenderStores> stores, int threads)
    : results_(std::move(results)),
      pool_(threads),
      renderer_(pool_, std::nullopt, std::move(stores)),
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

void RenderThread::ask_stage(StageRequest request) {
    const std::lock_guard lock(mutex_);
    stage_ = std::move(request);
    if (busy_ && may_interrupt_) cancel_.request();
    wake_.notify_all();
}

void RenderThread::ask_probe(RenderRequest request) {
    const std::lock_guard lock(mutex_);
    probe_ = std::move(request);
    if (inspecting_) cancel_.request();
    wake_.notify_all();
}

void RenderThread::ask_thumbnails(RenderRequest request) {
    const std::lock_guard lock(mutex_);
    thumbnails_ = std::move(request);
    if (inspecting_) cancel_.request();
    wake_.notify_all();
}

void RenderThread::ask_candidates(RenderRequest request) {
    const std::lock_guard lock(mutex_);
    candidates_ = std::move(request);
    if (inspecting_) cancel_.request();
    wake_.notify_all();
}

void RenderThread::ask_warnings(RenderRequest request) {
    const std::lock_guard lock(mutex_);
    warnings_ = std::move(request);
    if (inspecting_) cancel_.request();
    wake_.notify_all();
}

void RenderThread::ask_rates(std::optional<RenderRequest> request) {
    const std::lock_guard lock(mutex_);
    rates_wanted_ = request.has_value();
    rates_ = std::move(request);
    if (inspecting_) cancel_.request();
    wake_.notify_all();
}

void RenderThread::use_backend(Backend backend) {
    const std::lock_guard lock(mutex_);
    backend_ = backend;
}

bool RenderThread::idle() const {
    const std::lock_guard lock(mutex_);
    return (!busy_ || inspecting_) && !stage_ && !probe_ && !thumbnails_ && !candidates_;
}

bool RenderThread::inspected() const {
    const std::lock_guard lock(mutex_);
    return !inspecting_ && !warnings_ && !rates_;
}

// Whoever waits longer than a moment is told how far it has come.
bool RenderThread::watch_reading(const std::string& path, double share) {
    using namespace std::chrono_literals;
    const auto now = std::chrono::steady_clock::now();
    if (share <= 0) {
        reading_since_ = reading_told_ = now;
        stop_reading_ = false;
    }
    if (now - reading_since_ > 300ms && now - reading_told_ > 100ms) {
        reading_told_ = now;
        if (results_.reading) results_.reading(QString::fromStdString(path), share);
    }
    const std::lock_guard lock(mutex_);
    return !stop_reading_ && !stopping_;
}

// Whoever waits longer than a moment is told how far they have come.
void RenderThread::watch_ticks(double share) {
    using namespace std::chrono_literals;
    const auto now = std::chrono::steady_clock::now();
    if (!results_.ticking || (now - ticking_since_ < 300ms && share < 1)) return;
    ticking_since_ = now;
    results_.ticking(share);
}

void RenderThread::serve() {
    renderer_.watch_ticks([this](double share) { watch_ticks(share); });
    renderer_.watch_reading([this](const std::string& path, double share) { return watch_reading(path, share); });
    // While the window is still being built.
    start_reader();
    std::unique_lock lock(mutex_);
    for (bool goes_on = true; goes_on;) {
        const Result<Done> done = guarded([&]() -> Result<Done> {
            goes_on = next_job(lock);
            return Done{};
        });
        if (done) continue;
        // What was asked for comes to nothing; the window and all else goes on.
        if (!lock.owns_lock()) lock.lock();
        busy_ = inspecting_ = false;
        tell_failed(done.fault());
    }
}

void RenderThread::tell_failed(const Fault& why) {
    StagePicture failed;
    failed.empty = true;
    failed.notices = {why};
    if (results_.stage) results_.stage(std::move(failed));
}

// Work that gives way to all else; called off by something more urgent, it is done once more afterwards.
template <class Work, class Results>
void RenderThread::look_into(std::unique_lock<std::mutex>& lock, const Cancel& cancel,
                             std::optional<RenderRequest>& asked, const bool& wanted, Work work,
                             const Results& results) {
    const RenderRequest job = *std::exchange(asked, std::nullopt);
    inspecting_ = true;
    may_interrupt_ = true;
    lock.unlock();
    auto found = work(job, renderer_, cancel);
    lock.lock();
    inspecting_ = false;
    if (!cancel.requested() && results) {
        lock.unlock();
        results(std::move(found));
        lock.lock();
    } else if (!asked && !stopping_ && wanted) {
        asked = job;
    }
}

// Waits for a job and does it, with the lock released meanwhile. False at the end of the thread.
void RenderThread::forget_ticks() {
    const std::lock_guard lock(mutex_);
    ticks_are_old_ = true;
}

bool RenderThread::next_job(std::unique_lock<std::mutex>& lock) {
    const auto has_work = [this] {
        return stopping_ || stage_ || probe_ || thumbnails_ || candidates_ || rates_ || warnings_;
    };
    // What reads rarer kinds of pictures takes half a second to load: not before there is something to see.
    if (has_drawn_ && !has_work() && !std::exchange(has_prepared_, true)) prepare_picture_files();
    wake_.wait(lock, has_work);
    if (stopping_) return false;
    busy_ = true;
    cancel_ = Cancel();
    const Cancel cancel = cancel_;
    may_interrupt_ = false;
    const auto unlocked = [&](const auto& work) {
        lock.unlock();
        work();
        lock.lock();
    };
    if (backend_) {
        const Backend backend = *std::exchange(backend_, std::nullopt);
        // Starting a driver may take a while, and whoever asks for a picture must not wait for it.
        unlocked([&] { backend_notice_ = renderer_.use(backend); });
    }
    if (std::exchange(ticks_are_old_, false)) unlocked([&] { renderer_.forget_ticks(); });
    if (stage_) {
        const StageRequest job = *std::exchange(stage_, std::nullopt);
        // A slow frame at rest gives way to a newer one; in a drag each is finished, or none would ever be seen.
        const double from_last = std::fabs(job.request.time - last_stage_time_);
        const bool many_ticks = !job.request.checked->ticked.empty() && from_last > far_away_seconds;
        may_interrupt_ = many_ticks || (!job.in_a_drag && ticks_take_long(job.request)) ||
                         (!job.may_reduce && last_full_frame_ms_ > frame_budget_ms);
        last_stage_time_ = job.request.time;
        in_a_drag_ = job.in_a_drag;
        unlocked([&] { draw_stage(job, cancel); });
        has_drawn_ = has_drawn_ || !job.request.checked->steps.empty();
    } else if (probe_) {
        const RenderRequest job = *std::exchange(probe_, std::nullopt);
        unlocked([&] {
            Result<Frame> frame = renderer_.render(job, cancel);
            if (frame && results_.probe) results_.probe({job.points, std::move(frame->steps)});
        });
    } else if (thumbnails_) {
        RenderRequest job = *std::exchange(thumbnails_, std::nullopt);
        if (in_a_drag_ && job.steps.size() > thumbnails_at_once) {
            thumbnails_ = job;
            thumbnails_->steps.erase(thumbnails_->steps.begin(), thumbnails_->steps.begin() + thumbnails_at_once);
            job.steps.resize(thumbnails_at_once);
        }
        job.rough_ticks = job.in_a_drag;
        unlocked([&] { draw_small(job, cancel, results_.thumbnails); });
    } else if (candidates_) {
        RenderRequest job = *candidates_;
        const std::size_t count = std::min(candidates_at_once, job.steps.size());
        job.steps.resize(count);
        candidates_->steps.erase(candidates_->steps.begin(),
                                 candidates_->steps.begin() + static_cast<std::ptrdiff_t>(count));
        if (candidates_->steps.empty()) candidates_.reset();
        unlocked([&] { draw_small(job, cancel, results_.candidates); });
    } else if (rates_) {
        look_into(lock, cancel, rates_, rates_wanted_, check_frame_rates, results_.rates);
    } else if (warnings_) {
        look_into(lock, cancel, warnings_, true, inspect, results_.warnings);
    }
    busy_ = false;
    return true;
}

// As if all ticks so far had to be drawn.
double RenderThread::ticks_ms(const RenderRequest& request) const {
    const CheckedFinish& checked = *request.checked;
    return checked.ticked.empty() ? 0 : tick_ms_ * request.time * checked.finish->ticks.rate;
}

bool RenderThread::ticks_take_long(const RenderRequest& request) const { return ticks_ms(request) > long_frame_ms; }

// What is drawn first of a frame at rest that takes long; empty where that would hardly be less.
QSize RenderThread::first_size(const StageRequest& job, bool has_long_ticks) {
    const FrameSize whole = frame_size(job.request);
    const bool is_large = !job.view.isEmpty() && job.view.width() * 2 <= whole.frame_width;
    const bool has_new_ticks = has_long_ticks && renderer_.would_be_rough(job.request);
    // The time goes with the pixels.
    const double share = static_cast<double>(job.view.width()) / whole.frame_width;
    if (is_large && (!has_new_ticks || ticks_ms(job.request) * share * share < 2 * rough_budget_ms)) return job.view;
    if (!has_new_ticks) return {};
    int divisor = 2;
    while (divisor < coarsest && ticks_ms(job.request) > divisor * divisor * rough_budget_ms) divisor *= 2;
    return {std::max(1, whole.frame_width / divisor), std::max(1, whole.frame_height / divisor)};
}

void RenderThread::draw_stage(const StageRequest& job, const Cancel& cancel) {
    ticking_since_ = std::chrono::steady_clock::now();
    const bool has_long_ticks = !job.in_a_drag && ticks_take_long(job.request);
    const bool is_at_rest = (!job.may_reduce || has_long_ticks) && !job.in_a_drag && !job.values;
    if (is_at_rest && (last_full_frame_ms_ > long_frame_ms || has_long_ticks)) {
        if (const QSize first = first_size(job, has_long_ticks); !first.isEmpty()) {
            draw_stage_of(job, cancel, Pixels::few, first);
            if (cancel.requested()) return;
            return draw_stage_of(job, cancel, Pixels::all);
        }
    }
    const bool late = job.may_reduce && last_full_frame_ms_ > drag_budget_ms;
    draw_stage_of(job, cancel, late ? Pixels::as_there_is_time : Pixels::all);
}

void RenderThread::draw_stage_of(const StageRequest& job, const Cancel& cancel, Pixels pixels, QSize few) {
    RenderRequest request = job.request;
    const Finish& finish = *request.checked->finish;
    StagePicture done;
    done.step = request.steps.front();
    done.request = job.request;
    done.request.steps = {done.step};
    done.request.in_a_drag = false;
    done.reduced = pixels != Pixels::all;
    done.more_comes = pixels == Pixels::few;
    if (pixels == Pixels::as_there_is_time) {
        const FrameSize whole = frame_size(request);
        request.width = std::max(1, whole.frame_width / drag_divisor_);
        request.height = std::max(1, whole.frame_height / drag_divisor_);
    } else if (pixels == Pixels::few) {
        request.width = few.width();
        request.height = few.height();
    }
    // While time runs, each tick goes on from the one before it, whatever the size of the picture.
    request.rough_ticks = pixels == Pixels::few || (pixels != Pixels::all && request.in_a_drag);
    // What is no number would look like black, and be taken for it.
    ViewStyle style = job.style;
    style.mark_broken = true;
    if ((job.in_a_drag || done.more_comes) && !job.values) request.seen = style;
    Result<Frame> frame = renderer_.render(request, cancel);
    if (!frame) {
        if (!cancel.requested()) tell_failed(frame.fault());
        return;
    }
    if (pixels == Pixels::as_there_is_time) {
        // Coarser where it is late, finer where there is room for four times the pixels.
        if (frame->milliseconds > drag_budget_ms && drag_divisor_ < coarsest) drag_divisor_ *= 2;
        if (frame->milliseconds * 5 < drag_budget_ms && drag_divisor_ > 2) drag_divisor_ /= 2;
    } else if (pixels == Pixels::all) {
        // The time goes with the pixels.
        last_full_frame_ms_ = frame->milliseconds;
        drag_divisor_ = 2;
        while (drag_divisor_ < coarsest && last_full_frame_ms_ > drag_divisor_ * drag_divisor_ * drag_budget_ms)
            drag_divisor_ *= 2;
    }
    if (frame->ticks > 0 && !frame->ticks_are_rough)
        tick_ms_ = frame->tick_milliseconds / static_cast<double>(frame->ticks);
    done.milliseconds = frame->milliseconds;
    done.passes = frame->passes;
    done.rough = frame->ticks_are_rough;
    done.ticks = frame->ticks;
    done.tick_milliseconds = frame->tick_milliseconds;
    // Of a small frame it would mean little, and a drag has no time for it.
    if (!done.reduced) step_milliseconds_ = shared_out(plan_for(*request.checked, request.steps), *frame);
    done.step_milliseconds = step_milliseconds_;
    done.notices = frame->notices;
    if (backend_notice_) done.notices.push_back(*backend_notice_);
    done.empty = true;
    const std::string first = request.steps.front().empty() ? finished_step(*request.checked) : request.steps.front();
    for (DrawnStep& drawn : frame->steps) {
        const bool main = drawn.name == first || (first.empty() && frame->steps.size() == 1);
        StagePicture other;
        StagePicture& to = main ? done : other;
        to.empty = false;
        to.type = drawn.type;
        to.image = to_qimage(shown_image(finish, drawn, pool_, style));
        // Here it costs the interface no time.
        to.in_a_drag = job.in_a_drag;
        if (!job.in_a_drag && !job.view.isEmpty() && job.view.width() < to.image.width())
            to.fitted = to.image.scaled(job.view, Qt::IgnoreAspectRatio, Qt::SmoothTransformation);
        if (!done.reduced && !job.in_a_drag) to.range = value_range(drawn.picture);
        if (!request.seen) to.values = std::make_shared<const Picture>(std::move(drawn.picture));
        if (main) continue;
        other.step = drawn.name;
        done.beside.push_back(std::move(other));
    }
    if (results_.stage) results_.stage(std::move(done));
}

void RenderThread::draw_small(const RenderRequest& request, const Cancel& cancel,
                              const std::function<void(Thumbnails)>& done) {
    Result<Frame> frame = renderer_.render(request, cancel);
    if (!frame || !done) return;
    Thumbnails made;
    for (DrawnStep& drawn : frame->steps) {
        const ValueRange range = value_range(drawn.picture);
        made[drawn.name] = {to_qimage(halved(shown_image(*request.checked->finish, drawn, pool_, {}))), drawn.type,
                            range};
    }
    done(std::move(made));
}

}  // namespace lacquer
