#include "core/batch/batch_run.h"

#include <fmt/core.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <mutex>
#include <utility>

#include "core/base/file.h"
#include "core/finish/json.h"
#include "core/finish/json_line.h"
#include "core/finish/json_tree.h"
#include "core/inspect/report.h"
#include "core/picture/files.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

constexpr std::size_t max_record_file = std::size_t{64} * 1024 * 1024;

// A name as it may stand in a file's name, alike for no two names.
std::string file_name_of(const std::string& name) {
    std::string made;
    for (const char c : name) {
        const bool is_plain = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-';
        made += is_plain ? std::string(1, c) : fmt::format("_{:02x}", static_cast<unsigned char>(c));
    }
    // Longer ones than a file's name may be are told apart by their hash.
    constexpr std::size_t longest = 120;
    return made.size() <= longest ? made : made.substr(0, 60) + ContentKey().add(name).text();
}

Json json_of(const TaskRecord& record) {
    Json frames = Json::array();
    for (const auto& [number, frame] : record.frames) {
        Json one = Json::object({{"frame", number}});
        if (frame.difference) one["difference"] = *frame.difference;
        frames.push_back(std::move(one));
    }
    Json made = Json::object({{"key", record.key}, {"frames", std::move(frames)}});
    if (record.inspected) {
        Json words = Json::array();
        for (const std::string& each : record.inspected->words) words.push_back(each);
        made["inspected"] = Json::object({{"falls_short", record.inspected->falls_short}, {"words", std::move(words)}});
    }
    return made;
}

// A record file that cannot be read says nothing: its frames are drawn again.
void add_record(const std::string& path, const std::string& key, TaskRecord& record) {
    const Result<std::string> text = read_whole_file(path, max_record_file);
    if (!text) return;
    const Result<Json> json = json_from_text(*text, path);
    if (!json) return;
    const Json* of = json->find("key");
    const Json* frames = json->find("frames");
    if (of == nullptr || of->text() != key || frames == nullptr) return;
    for (const Json& one : frames->list()) {
        const Json* number = one.find("frame");
        if (number == nullptr || !number->is_number()) continue;
        FrameRecord& frame = record.frames[static_cast<int>(std::clamp(number->number(), 0.0, 1e9))];
        if (const Json* difference = one.find("difference"))
            frame.difference = static_cast<int>(std::clamp(difference->number(), 0.0, 255.0));
    }
    if (const Json* inspected = json->find("inspected")) {
        InspectRecord made;
        if (const Json* falls_short = inspected->find("falls_short")) made.falls_short = falls_short->flag();
        if (const Json* words = inspected->find("words")) {
            for (const Json& each : words->list()) made.words.push_back(each.text());
        }
        record.inspected = std::move(made);
    }
}

std::optional<Picture> read_if_there(const std::string& path) {
    std::error_code code;
    if (!fs::exists(path, code)) return std::nullopt;
    Result<Picture> picture = read_picture(path, PictureMeaning::colour);
    if (!picture) return std::nullopt;
    return std::move(*picture);
}

// In steps of 8 bits of what is shown.
std::optional<int> difference_of(const Picture& before, const Picture& now) {
    if (before.width != now.width || before.height != now.height || before.channels != now.channels)
        return std::nullopt;
    const auto shown = [](float value) { return std::pow(std::clamp(static_cast<double>(value), 0.0, 1.0), 1 / 2.2); };
    double largest = 0;
    for (std::size_t i = 0; i < now.data.size(); ++i) {
        if (before.data[i] != now.data[i])
            largest = std::max(largest, std::abs(shown(before.data[i]) - shown(now.data[i])));
    }
    // What differs at all is no less than one step.
    return largest > 0 ? std::max(1, static_cast<int>(std::lround(largest * 255))) : 0;
}

// A task of a share while it is drawn: its record file, and what stood in its files before.
class TaskRun {
public:
    TaskRun(const BatchTask& task, const BatchOptions& options)
        : task_(task),
          options_(options),
          stem_((fs::path(options.work) / file_name_of(task.name)).string()),
          known_(record_of(task, options.work)) {
        // What this share wrote earlier under this key stays in its file.
        add_record(record_path(), task.key, own_);
        own_.key = task.key;
    }

    const TaskRecord& known() const { return known_; }

    void inspect(const Cancel& cancel) {
        if (!task_.inspect || known_.inspected) return;
        WorkerPool pool(options_.threads);
        Renderer renderer(pool);
        RenderRequest request = task_.request;
        request.time = liveliest_moment(*request.checked, *request.tape);
        const InspectReport report = report_of(request, renderer, cancel);
        if (cancel.requested()) return;
        InspectRecord made;
        made.falls_short = report.falls_short();
        for (const DialReport& dial : report.dials) {
            for (const Measured& one : dial.measured) {
                if (dial.is_promised(one.id) && one.verdict != Verdict::passes)
                    made.words.push_back(dial.dial + ", " + one.title + ": " + one.words);
            }
        }
        for (const std::string& unknown : report.unknown_promises)
            made.words.push_back(unknown + ": there is no such measure");
        for (const Fault& fault : report.faults) made.words.push_back(to_text(fault));
        own_.inspected = std::move(made);
        (void)save();
    }

    void keep_old(const SeriesFrame& frame) {
        std::optional<Picture> old = read_if_there(frame.path);
        if (!old) return;
        const std::lock_guard lock(mutex_);
        old_[frame.number] = std::move(*old);
    }

    void compare(const SeriesFrame& frame) {
        std::optional<Picture> old;
        {
            const std::lock_guard lock(mutex_);
            if (auto found = old_.extract(frame.number)) old = std::move(found.mapped());
        }
        FrameRecord record;
        if (old) {
            if (const std::optional<Picture> now = read_if_there(frame.path))
                record.difference = difference_of(*old, *now);
        }
        const std::lock_guard lock(mutex_);
        own_.frames[frame.number] = record;
        const auto now = std::chrono::steady_clock::now();
        if (now - saved_ < std::chrono::seconds(2)) return;
        saved_ = now;
        (void)save();
    }

    Result<Done> save() { return write_whole_file(record_path(), one_line(json_of(own_)) + "\n"); }

    // The state behind the last frame that another share drew before this one's first.
    void begin_from_checkpoint(Renderer& renderer, const RenderRequest& first, int number) const {
        int best = -1;
        std::error_code code;
        const std::string begin = fs::path(stem_).filename().string() + ".";
        for (const auto& entry : fs::directory_iterator(options_.work, code)) {
            const std::string name = entry.path().filename().string();
            if (!name.starts_with(begin) || !name.ends_with(".ticks")) continue;
            const int after = std::atoi(name.c_str() + begin.size());
            if (after < number) best = std::max(best, after);
        }
        if (best < 0) return;
        const std::string path = checkpoint_path(best);
        const Result<std::string> bytes = read_whole_file(path, max_checkpoint_file);
        if (!bytes) return;
        // One of another finish or size is refused, and the ticks are drawn from the beginning.
        if (const Result<Checkpoint> read = checkpoint_from(*bytes, path)) (void)renderer.take_checkpoint(first, *read);
    }

    void keep_checkpoint(Renderer& renderer, const RenderRequest& last, int number) const {
        const Result<Checkpoint> now = renderer.checkpoint(last, Cancel());
        if (now) (void)write_whole_file(checkpoint_path(number), to_bytes(*now));
    }

private:
    std::string record_path() const {
        return fmt::format("{}.{}of{}.json", stem_, options_.share.nth, options_.share.count);
    }
    std::string checkpoint_path(int number) const { return fmt::format("{}.{}.ticks", stem_, number); }

    const BatchTask& task_;
    const BatchOptions& options_;
    std::string stem_;
    TaskRecord known_;
    TaskRecord own_;
    std::mutex mutex_;
    std::map<int, Picture> old_;
    std::chrono::steady_clock::time_point saved_;
};

Result<Done> run_task(const BatchTask& task, const BatchOptions& options, const std::shared_ptr<RenderStores>& stores,
                      const BatchWatch& watch, const Cancel& cancel) {
    TaskRun run(task, options);
    run.inspect(cancel);
    const std::vector<SeriesFrame> frames = options.again ? task.frames : frames_to_do(task, run.known());
    if (frames.empty()) return Done{};
    std::error_code code;
    fs::create_directories(fs::path(frames.front().path).parent_path(), code);
    SeriesOptions series;
    series.writing = task.writing;
    series.threads = options.threads;
    series.memory = options.memory;
    series.stores = stores;
    series.before_writing = [&](const SeriesFrame& frame) { run.keep_old(frame); };
    series.after_writing = [&](const SeriesFrame& frame) { run.compare(frame); };
    series.before_first = [&](Renderer& renderer, const RenderRequest& first) {
        if (task.ticks) run.begin_from_checkpoint(renderer, first, frames.front().number);
    };
    series.after_last = [&](Renderer& renderer, const RenderRequest& last) {
        if (task.ticks) run.keep_checkpoint(renderer, last, frames.back().number);
    };
    Result<Done> drawn = draw_series(
        task.request, frames, series,
        [&](const SeriesFrame& frame, const Frame&, const std::string&) {
            if (watch) watch(task, frame);
        },
        cancel);
    Result<Done> saved = run.save();
    return drawn ? saved : drawn;
}

}  // namespace

TaskRecord record_of(const BatchTask& task, const std::string& work) {
    TaskRecord record;
    record.key = task.key;
    const std::string begin = file_name_of(task.name) + ".";
    std::error_code code;
    for (const auto& entry : fs::directory_iterator(work, code)) {
        const std::string name = entry.path().filename().string();
        if (name.starts_with(begin) && name.ends_with(".json")) add_record(entry.path().string(), task.key, record);
    }
    return record;
}

std::vector<SeriesFrame> frames_to_do(const BatchTask& task, const TaskRecord& record) {
    std::vector<SeriesFrame> left;
    std::error_code code;
    for (const SeriesFrame& frame : task.frames) {
        if (!record.frames.contains(frame.number) || !fs::exists(frame.path, code)) left.push_back(frame);
    }
    return left;
}

Result<Done> run_batch(const std::vector<BatchTask>& tasks, const BatchOptions& options, const BatchWatch& watch,
                       const Cancel& cancel) {
    std::error_code code;
    fs::create_directories(options.work, code);
    if (code)
        return Fault{"file.unwritable",
                     "the folder of records cannot be made: " + code.message(),
                     "choose another with --work",
                     {options.work, {}, 0, 0},
                     Severity::fault};
    const auto stores = std::make_shared<RenderStores>();
    for (const BatchTask& task : share_of(tasks, options.share)) {
        if (const Result<Done> drawn = run_task(task, options, stores, watch, cancel); !drawn) return drawn;
    }
    return Done{};
}

}  // namespace lacquer
