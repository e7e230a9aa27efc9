#include "desktop/drawing/sheet_thread.h"

#include <algorithm>
#include <utility>

#include "core/base/guarded.h"
#include "desktop/drawing/render_thread.h"

namespace lacquer {

namespace {

/// Of the sides of a picture that is drawn coarsely first.
constexpr int coarse_part = 4;

}  // namespace

RenderRequest request_of(const SheetPicture& picture) {
    RenderRequest request = picture.request;
    if (!picture.finish) return request;
    const CheckedFinish& before = *picture.request.checked;
    request.checked = std::make_shared<const CheckedFinish>(
        check_finish(std::make_shared<const Finish>(picture.finish()), before.catalogue, &before));
    return request;
}

SheetThread::SheetThread(SheetResults results, std::shared_ptr<RenderStores> stores, int threads)
    : results_(std::move(results)),
      pool_(threads),
      renderer_(pool_, std::nullopt, std::move(stores)),
      thread_([this] { serve(); }) {}

SheetThread::~SheetThread() {
    {
        const std::lock_guard lock(mutex_);
        stopping_ = true;
        cancel_.request();
    }
    wake_.notify_all();
    thread_.join();
}

void SheetThread::ask(SheetOf sheet, SheetJob job) {
    const std::lock_guard lock(mutex_);
    Sheet& own = sheets_[static_cast<std::size_t>(sheet)];
    own.job = std::move(job);
    own.wanted.clear();
    const int count = static_cast<int>(own.job.pictures.size());
    for (const bool fine : {false, true}) {
        if (!fine && !own.job.coarse_first) continue;
        for (int i = 0; i < count; ++i) own.wanted.push_back({i, fine});
    }
    // A coarse one is finished, or in a drag none would ever be seen.
    if (measuring_ || fine_of_ == sheet) cancel_.request();
    wake_.notify_all();
}

void SheetThread::ask_first(int picture) {
    const std::lock_guard lock(mutex_);
    auto& wanted = sheets_[static_cast<std::size_t>(SheetOf::cells)].wanted;
    const auto& pictures = sheets_[static_cast<std::size_t>(SheetOf::cells)].job.pictures;
    std::stable_partition(wanted.begin(), wanted.end(), [&](const Wanted& one) {
        return pictures[static_cast<std::size_t>(one.picture)].place == picture;
    });
}

void SheetThread::ask_measures(std::optional<MeasureJob> job) {
    const std::lock_guard lock(mutex_);
    measures_ = std::move(job);
    if (measuring_) cancel_.request();
    wake_.notify_all();
}

void SheetThread::forget_ticks() {
    const std::lock_guard lock(mutex_);
    ticks_are_old_ = true;
}

bool SheetThread::idle() const {
    const std::lock_guard lock(mutex_);
    const auto is_done = [](const Sheet& sheet) { return sheet.wanted.empty(); };
    return !busy_ && !measures_ && std::all_of(sheets_.begin(), sheets_.end(), is_done);
}

void SheetThread::serve() {
    std::unique_lock lock(mutex_);
    for (bool goes_on = true; goes_on;) {
        const Result<Done> done = guarded([&]() -> Result<Done> {
            goes_on = next_job(lock);
            return Done{};
        });
        if (done) continue;
        if (!lock.owns_lock()) lock.lock();
        busy_ = measuring_ = false;
        fine_of_.reset();
    }
}

// Waits for a picture or a measure and does it, with the lock released meanwhile. False at the end of the thread.
bool SheetThread::next_job(std::unique_lock<std::mutex>& lock) {
    const auto has_work = [](const Sheet& sheet) { return !sheet.wanted.empty(); };
    wake_.wait(lock, [&] { return stopping_ || measures_ || std::any_of(sheets_.begin(), sheets_.end(), has_work); });
    if (stopping_) return false;
    busy_ = true;
    cancel_ = Cancel();
    if (std::exchange(ticks_are_old_, false)) renderer_.forget_ticks();
    const auto sheet = std::find_if(sheets_.begin(), sheets_.end(), has_work);
    if (sheet != sheets_.end()) {
        const Wanted wanted = sheet->wanted.front();
        sheet->wanted.pop_front();
        const SheetPicture picture = sheet->job.pictures[static_cast<std::size_t>(wanted.picture)];
        const std::uint64_t number = sheet->job.number;
        const ViewStyle style = sheet->job.style;
        const auto which = static_cast<SheetOf>(sheet - sheets_.begin());
        const Cancel cancel = cancel_;
        if (wanted.fine) fine_of_ = which;
        lock.unlock();
        draw(which, number, wanted, picture, style, cancel);
        lock.lock();
        fine_of_.reset();
    } else {
        MeasureJob job = *std::exchange(measures_, std::nullopt);
        const Cancel cancel = cancel_;
        measuring_ = true;
        lock.unlock();
        job.options.told = [&](const Measured& one) {
            if (results_.measured) results_.measured(job.number, one);
        };
        std::vector<Measured> all = measure(job.request, renderer_, cancel, job.sweep, job.options);
        if (!cancel.requested() && results_.all_measured) results_.all_measured(job.number, std::move(all));
        lock.lock();
        measuring_ = false;
        // Called off by a picture, it is begun again.
        if (cancel.requested() && !measures_ && !stopping_) {
            job.options.told = nullptr;
            measures_ = std::move(job);
        }
    }
    busy_ = false;
    return true;
}

void SheetThread::draw(SheetOf sheet, std::uint64_t number, Wanted wanted, const SheetPicture& picture,
                       const ViewStyle& style, const Cancel& cancel) {
    RenderRequest request = request_of(picture);
    if (!wanted.fine) {
        request.width = std::max(1, request.width / coarse_part);
        request.height = std::max(1, request.height / coarse_part);
    }
    request.seen = style;
    const Result<Frame> frame = renderer_.render(request, cancel);
    if (cancel.requested()) return;
    QImage image;
    if (frame && !frame->steps.empty()) image = to_qimage(frame->steps.front().image);
    if (results_.picture) results_.picture(sheet, number, picture.place, std::move(image), wanted.fine);
}

}  // namespace lacquer
