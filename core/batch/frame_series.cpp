#include "core/batch/frame_series.h"

#include <fmt/core.h>

#include <algorithm>
#include <atomic>
#include <condition_variable>
#include <deque>
#include <mutex>
#include <thread>
#include <utility>

#include "core/base/guarded.h"

namespace lacquer {

namespace {

// What ticks has to be drawn in order.
bool goes_on_from_ticks(const CheckedFinish& checked) { return !plan_ticks(checked).passes.empty(); }

// What one frame may hold while it is drawn and written: values, and what steps have stored on the way.
std::size_t bytes_of_frame(const RenderRequest& request) {
    const Finish& finish = *request.checked->finish;
    const auto side = [](int drawn, int frame, int own) {
        return static_cast<std::size_t>(drawn > 0 ? drawn : frame > 0 ? frame : own);
    };
    const std::size_t pixels = side(request.width, request.frame_width, finish.frame_width) *
                               side(request.height, request.frame_height, finish.frame_height);
    const std::size_t stored = plan_for(*request.checked, request.steps).passes.size() + 2 * request.steps.size();
    return pixels * 4 * sizeof(float) * std::max<std::size_t>(stored, 2);
}

// What all threads of a series share.
class Series {
public:
    Series(const RenderRequest& request, const std::vector<SeriesFrame>& frames, const SeriesOptions& options,
           const SeriesWatch& watch, const Cancel& cancel)
        : request_(request),
          frames_(frames),
          options_(options),
          watch_(watch),
          cancel_(cancel),
          stores_(options.stores != nullptr ? options.stores : std::make_shared<RenderStores>()) {}

    Result<Done> run() {
        const int asked =
            options_.threads > 0 ? options_.threads : static_cast<int>(std::thread::hardware_concurrency());
        const std::size_t fit = std::max<std::size_t>(1, options_.memory / bytes_of_frame(request_));
        threads_ = static_cast<int>(
            std::min({static_cast<std::size_t>(std::max(1, asked)), fit, std::max<std::size_t>(1, frames_.size())}));
        most_waiting_ = std::max<std::size_t>(1, std::min<std::size_t>(fit, 2 * static_cast<std::size_t>(threads_)));
        if (options_.backend != Backend::cpu || goes_on_from_ticks(*request_.checked)) {
            in_order(std::max(1, asked));
        } else {
            at_once();
        }
        if (fault_) return *fault_;
        if (cancel_.requested()) return cancelled_fault();
        return Done{};
    }

private:
    bool is_over() const { return stopping_ || cancel_.requested(); }

    // The first frame's fault of those that came counts.
    void fail(const Fault& fault, std::size_t nth) {
        const std::lock_guard lock(mutex_);
        if (!fault_ || nth < failed_) {
            fault_ = fault;
            failed_ = nth;
        }
        stopping_ = true;
        wake_.notify_all();
    }

    RenderRequest request_at(std::size_t nth) const {
        RenderRequest request = request_;
        request.time = frames_[nth].time;
        return request;
    }

    void draw(Renderer& renderer, std::size_t nth, const std::function<void(Frame)>& take) {
        Result<Frame> frame = renderer.render(request_at(nth), cancel_);
        if (frame) return take(std::move(*frame));
        if (!cancel_.requested()) fail(frame.fault(), nth);
    }

    void write(std::size_t nth, const Frame& frame, const std::string& drawn_by) {
        if (options_.before_writing) options_.before_writing(frames_[nth]);
        const Result<Done> written =
            guarded([&] { return write_frame(frames_[nth].path, frame, *request_.checked->finish, options_.writing); });
        if (!written) return fail(written.fault(), nth);
        if (options_.after_writing) options_.after_writing(frames_[nth]);
        const std::lock_guard lock(mutex_);
        if (watch_) watch_(frames_[nth], frame, drawn_by);
    }

    // Each thread draws a frame and writes it, and takes the next.
    void at_once() {
        std::vector<std::thread> threads;
        const auto work = [this] {
            WorkerPool alone(1);
            Renderer renderer(alone, options_.kernels, stores_);
            for (std::size_t nth = next_++; nth < frames_.size() && !is_over(); nth = next_++)
                draw(renderer, nth, [&](const Frame& frame) { write(nth, frame, renderer.drawn_by()); });
        };
        threads.reserve(static_cast<std::size_t>(threads_));
        for (int i = 1; i < threads_; ++i) threads.emplace_back(work);
        work();
        for (std::thread& thread : threads) thread.join();
    }

    // This thread draws with all the others' help; some write meanwhile.
    void in_order(int asked) {
        std::vector<std::thread> writers;
        WorkerPool pool(asked);
        Renderer renderer(pool, options_.kernels, stores_);
        if (const auto notice = renderer.use(options_.backend)) notice_ = notice;
        const std::string drawn_by = renderer.drawn_by();
        writers.reserve(static_cast<std::size_t>(threads_));
        for (int i = 0; i < threads_; ++i) writers.emplace_back([this, &drawn_by] { serve(drawn_by); });
        if (options_.before_first && !frames_.empty()) options_.before_first(renderer, request_at(0));
        for (std::size_t nth = 0; nth < frames_.size() && !is_over(); ++nth) {
            draw(renderer, nth, [&](Frame frame) {
                if (notice_) frame.notices.push_back(*notice_);
                std::unique_lock lock(mutex_);
                wake_.wait(lock, [this] { return waiting_.size() < most_waiting_ || is_over(); });
                waiting_.emplace_back(nth, std::move(frame));
                wake_.notify_all();
            });
        }
        if (options_.after_last && !frames_.empty() && !is_over())
            options_.after_last(renderer, request_at(frames_.size() - 1));
        {
            const std::lock_guard lock(mutex_);
            all_drawn_ = true;
            wake_.notify_all();
        }
        for (std::thread& thread : writers) thread.join();
    }

    void serve(const std::string& drawn_by) {
        while (true) {
            std::unique_lock lock(mutex_);
            wake_.wait(lock, [this] { return !waiting_.empty() || all_drawn_; });
            if (waiting_.empty()) return;
            const auto [nth, frame] = std::move(waiting_.front());
            waiting_.pop_front();
            wake_.notify_all();
            lock.unlock();
            if (!is_over()) write(nth, frame, drawn_by);
        }
    }

    const RenderRequest& request_;
    const std::vector<SeriesFrame>& frames_;
    const SeriesOptions& options_;
    const SeriesWatch& watch_;
    Cancel cancel_;
    std::shared_ptr<RenderStores> stores_;
    int threads_ = 1;
    std::size_t most_waiting_ = 1;
    std::optional<Fault> notice_;
    std::atomic<std::size_t> next_ = 0;
    std::atomic<bool> stopping_ = false;
    std::mutex mutex_;
    std::condition_variable wake_;
    std::deque<std::pair<std::size_t, Frame>> waiting_;  ///< drawn, and to be written
    bool all_drawn_ = false;
    std::optional<Fault> fault_;
    std::size_t failed_ = 0;
};

// Where a file's name ends and its ending begins.
std::size_t ending_of(const std::string& path) {
    const std::size_t slash = path.find_last_of('/');
    const std::size_t point = path.find_last_of('.');
    const bool is_ending = point != std::string::npos && (slash == std::string::npos || point > slash);
    return is_ending ? point : path.size();
}

}  // namespace

Result<Done> draw_series(const RenderRequest& request, const std::vector<SeriesFrame>& frames,
                         const SeriesOptions& options, const SeriesWatch& watch, const Cancel& cancel) {
    return guarded([&] { return Series(request, frames, options, watch, cancel).run(); });
}

std::string labelled_path(const std::string& path, const std::string& label) {
    const std::size_t end = ending_of(path);
    return path.substr(0, end) + "-" + label + (end < path.size() ? path.substr(end) : ".png");
}

std::string numbered_path(const std::string& path, int number) {
    return labelled_path(path, fmt::format("{:04}", number));
}

}  // namespace lacquer
