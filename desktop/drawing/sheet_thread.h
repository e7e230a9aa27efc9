// Draws sheets of small pictures, and measures, away from the interface and from the thread that draws the stage.
#pragma once

#include <QImage>
#include <array>
#include <condition_variable>
#include <cstdint>
#include <deque>
#include <functional>
#include <memory>
#include <mutex>
#include <optional>
#include <thread>
#include <vector>

#include "core/base/cancel.h"
#include "core/inspect/measure.h"
#include "core/render/renderer.h"
#include "core/render/view.h"

namespace lacquer {

/// Sheets that are drawn beside one another; what stands first is drawn first.
enum class SheetOf { compared, cells, strip };
inline constexpr std::size_t sheet_count = 3;

/// A picture of a sheet. Without a checked finish in the request, `finish` is asked for one on the drawing thread.
struct SheetPicture {
    int place = 0;  ///< on the sheet, as its result is told
    RenderRequest request;
    std::function<Finish()> finish = {};
};

/// The request with its finish, which is worked out for it if need be.
RenderRequest request_of(const SheetPicture& picture);

/// A sheet to be drawn. The number tells its pictures from those of another.
struct SheetJob {
    std::uint64_t number = 0;
    std::vector<SheetPicture> pictures;
    bool coarse_first = false;  ///< all small before any is drawn as large as it is wanted
    ViewStyle style;
};

struct MeasureJob {
    std::uint64_t number = 0;
    RenderRequest request;
    Sweep sweep;
    MeasureOptions options;
};

/// Where results go. They come on the drawing thread.
struct SheetResults {
    /// A picture, or none where there is a fault; `fine` once it is as large as it was wanted.
    std::function<void(SheetOf, std::uint64_t number, int picture, QImage, bool fine)> picture = nullptr;
    /// One measure; and all of them, when the last is done.
    std::function<void(std::uint64_t number, Measured)> measured = nullptr;
    std::function<void(std::uint64_t number, std::vector<Measured>)> all_measured = nullptr;
};

class SheetThread {
public:
    SheetThread(SheetResults results, std::shared_ptr<RenderStores> stores, int threads = 0);
    ~SheetThread();
    SheetThread(const SheetThread&) = delete;
    SheetThread& operator=(const SheetThread&) = delete;

    /// Takes the place of what that sheet still wants drawn.
    void ask(SheetOf sheet, SheetJob job);
    /// Draws this picture of the cells next.
    void ask_first(int picture);
    /// Takes the place of what is being measured; nothing stops that.
    void ask_measures(std::optional<MeasureJob> job);
    /// Files have changed that ticks may have been drawn from.
    void forget_ticks();
    bool idle() const;

private:
    struct Wanted {
        int picture = 0;
        bool fine = true;
    };
    struct Sheet {
        SheetJob job;
        std::deque<Wanted> wanted;
    };
    void serve();
    bool next_job(std::unique_lock<std::mutex>& lock);
    void draw(SheetOf sheet, std::uint64_t number, Wanted wanted, const SheetPicture& picture, const ViewStyle& style,
              const Cancel& cancel);

    SheetResults results_;
    mutable std::mutex mutex_;
    std::condition_variable wake_;
    std::array<Sheet, sheet_count> sheets_;
    std::optional<MeasureJob> measures_;
    bool busy_ = false;
    bool measuring_ = false;
    std::optional<SheetOf> fine_of_;  ///< whose picture is being drawn as large as it is wanted
    bool ticks_are_old_ = false;
    bool stopping_ = false;
    Cancel cancel_;
    WorkerPool pool_;
    Renderer renderer_;
    std::thread thread_;
};

}  // namespace lacquer
