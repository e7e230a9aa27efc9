#include "core/batch/batch_job.h"

#include <fmt/core.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <filesystem>
#include <set>
#include <utility>

#include "core/base/text.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/json_fields.h"
#include "core/finish/json_tree.h"
#include "core/finish/variants.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

Fault job_fault(const char* id, const std::string& where, std::string message, std::string mend) {
    return {id, std::move(message), std::move(mend), {where, {}, 0, 0}, Severity::fault};
}

// A list of texts, or one text, or nothing.
void take_texts(Fields& job, const char* key, std::vector<std::string>& texts) {
    Json value;
    if (!job.take(key, value)) return;
    if (value.is_string()) {
        texts = {value.text()};
        return;
    }
    texts.clear();
    for (const Json& each : value.list()) {
        if (!each.is_string()) return job.complain(key, "names");
        texts.push_back(each.text());
    }
    if (texts.empty()) job.complain(key, "one name at least");
}

std::optional<int> whole_of(std::string_view text) {
    int number = 0;
    const auto [end, problem] = std::from_chars(text.data(), text.data() + text.size(), number);
    if (problem != std::errc() || end != text.data() + text.size()) return std::nullopt;
    return number;
}

std::optional<std::pair<int, int>> size_from(std::string_view text) {
    const std::size_t cross = text.find('x');
    if (cross == std::string_view::npos) return std::nullopt;
    const auto width = whole_of(text.substr(0, cross));
    const auto height = whole_of(text.substr(cross + 1));
    if (!width || !height || !is_drawable_size(*width, *height)) return std::nullopt;
    return std::pair(*width, *height);
}

void take_sizes(Fields& job, BatchJob& made) {
    std::vector<std::string> texts;
    take_texts(job, "sizes", texts);
    if (texts.empty()) return;
    made.sizes.clear();
    for (const std::string& text : texts) {
        const auto size = size_from(text);
        if (!size) return job.complain("sizes", "sizes such as 1920x1080");
        made.sizes.push_back(*size);
    }
}

void take_dials(Fields& job, BatchJob& made) {
    Json dials;
    if (!job.take("dials", dials)) return;
    for (const auto& [name, value] : dials.members()) {
        DialValue held{};
        const auto parts = value.is_array() ? value.list() : std::vector<Json>{value};
        const bool fits = !parts.empty() && parts.size() <= held.size() &&
                          std::all_of(parts.begin(), parts.end(), [](const Json& p) { return Fields::is_number(p); });
        if (!fits) return job.complain("dials", "a number, or up to three in a list");
        for (std::size_t k = 0; k < parts.size(); ++k) held[k] = parts[k].number();
        made.dials[name] = held;
    }
}

BatchJob read_job(Fields& job) {
    BatchJob made;
    made.finish = job.text("finish");
    made.name = job.text("name", fs::path(made.finish).stem().string());
    if (made.finish.empty()) job.complain("finish", "the path of a finish");
    std::vector<std::string> variants = made.variants;
    take_texts(job, "variants", variants);
    made.all_variants = variants == std::vector<std::string>{"all"};
    if (!made.all_variants) made.variants = variants;
    take_texts(job, "tapes", made.tapes);
    take_sizes(job, made);
    made.frames_a_second = job.number("frames", 0);
    if (made.frames_a_second < 0 || made.frames_a_second > 1000) job.complain("frames", "0 to 1000 a second");
    made.at = job.number("at", 0);
    if (made.at < 0) job.complain("at", "seconds from 0 on");
    std::vector<double> range;
    if (job.has("range")) {
        const bool good = job.numbers("range", 2, range) && range[0] >= 0 && range[1] >= range[0] && range[1] < 1e9;
        if (good) {
            made.range = {static_cast<int>(range[0]), static_cast<int>(range[1])};
        } else {
            job.complain("range", "the first and the last frame, from 0");
        }
    }
    const double step_by = job.number("step_by", 1);
    if (step_by < 1 || step_by > 1e6) job.complain("step_by", "1 or more");
    made.step_by = static_cast<int>(std::clamp(step_by, 1.0, 1e6));
    take_texts(job, "steps", made.steps);
    take_dials(job, made);
    made.output = job.text("output");
    if (made.output.empty()) job.complain("output", "the path of a picture");
    made.writing.options.bits = static_cast<int>(job.number("bits", 0));
    const std::string opacity = job.text("opacity", "multiplied");
    if (opacity != "multiplied" && opacity != "straight") job.complain("opacity", "multiplied or straight");
    made.writing.options.multiplied = opacity == "multiplied";
    made.writing.data = job.flag("data", false);
    made.inspect = job.flag("inspect", false);
    for (const auto& [key, value] : job.kept()) job.complain(key, "a key that jobs have");
    return made;
}

// Finishes and tapes, each read once.
class Library {
public:
    Library(std::string folder, std::shared_ptr<const Catalogue> catalogue, Faults& notices)
        : folder_(std::move(folder)), catalogue_(std::move(catalogue)), notices_(notices) {}

    std::string path_of(const std::string& path) const {
        return (fs::path(folder_) / path).lexically_normal().string();
    }

    Result<const Finish*> finish(const std::string& path) {
        const auto [found, is_new] = finishes_.try_emplace(path);
        if (is_new) {
            Result<OpenedFinish> opened = load_finish(path_of(path));
            if (!opened) return opened.fault();
            notices_.insert(notices_.end(), opened->notices.begin(), opened->notices.end());
            found->second = std::move(opened->finish);
        }
        return &found->second;
    }

    Result<NamedTape> tape(const std::string& path, const Finish& finish) {
        if (path.empty()) return NamedTape{finish.name, finish.length, finish.tape};
        const auto found = tapes_.find(path);
        if (found != tapes_.end()) return found->second;
        Result<NamedTape> read = load_tape(path_of(path), notices_);
        if (read) tapes_[path] = *read;
        return read;
    }

    const std::shared_ptr<const Catalogue>& catalogue() const { return catalogue_; }
    Faults& notices() { return notices_; }

private:
    std::string folder_;
    std::shared_ptr<const Catalogue> catalogue_;
    Faults& notices_;
    std::map<std::string, Finish> finishes_;
    std::map<std::string, NamedTape> tapes_;
};

Result<std::shared_ptr<const CheckedFinish>> checked_variant(const BatchJob& job, const Finish& finish,
                                                             const std::string& variant, Library& library) {
    const auto is_it = [&](const Variant& v) { return v.name == variant; };
    if (!variant.empty() && std::none_of(finish.variants.begin(), finish.variants.end(), is_it))
        return job_fault("jobs.variant", job.name, "there is no variant '" + variant + "'", "look at the finish's own");
    auto checked = std::make_shared<const CheckedFinish>(
        check_finish(std::make_shared<const Finish>(switch_variant(finish, variant)), library.catalogue()));
    for (const std::string& name : job.steps) {
        const std::string shown = name.empty() ? finished_step(*checked) : name;
        const CheckedStep* step = find_step(*checked, shown);
        if (step == nullptr && !name.empty())
            return job_fault("jobs.step", job.name, "there is no step '" + name + "'", "look at the finish's own");
        if (step != nullptr && step->fault) {
            Fault fault = *step->fault;
            fault.place.where = job.name + ": " + shown;
            return fault;
        }
    }
    return checked;
}

std::vector<SeriesFrame> frames_of(const BatchJob& job, const NamedTape& tape, const std::string& output) {
    if (job.frames_a_second <= 0) return {{0, job.at, output}};
    int last = static_cast<int>(std::floor(std::min(tape.length * job.frames_a_second + 1e-9, 1e9)));
    int first = 0;
    if (job.range) {
        first = job.range->first;
        last = std::min(last, job.range->second);
    }
    std::vector<SeriesFrame> frames;
    for (int number = first; number <= last && frames.size() <= most_batch_frames; number += job.step_by)
        frames.push_back({number, number / job.frames_a_second, numbered_path(output, number)});
    return frames;
}

Result<std::string> key_of(const BatchTask& task, Library& library) {
    Result<ContentKey> key =
        key_of_finish(*task.request.checked->finish, task.request.finish_path, *library.catalogue());
    if (!key) return key.fault();
    key->add(tape_to_text(task.tape));
    for (const auto& [name, value] : task.request.held) {
        key->add(name);
        for (const double part : value) key->add(part);
    }
    for (const std::string& step : task.request.steps) key->add(step);
    key->add(task.request.frame_width).add(task.request.frame_height);
    key->add(task.writing.options.bits).add(task.writing.options.multiplied ? 1 : 0).add(task.writing.data ? 1 : 0);
    return key->text();
}

// All of a job's tasks; false words in it are told with its name.
Result<Done> add_tasks(const BatchJob& job, Library& library, std::vector<BatchTask>& tasks) {
    const Result<const Finish*> read = library.finish(job.finish);
    if (!read) return read.fault();
    const Finish& finish = **read;
    for (const auto& [name, value] : job.dials) {
        if (find_dial(finish, name) == nullptr)
            return job_fault("jobs.value", job.name, "there is no dial '" + name + "'", "look at the finish's own");
    }
    const std::string output = library.path_of(job.output);
    if (const Result<Done> fits = check_writing(output, job.steps.size(), job.writing.options); !fits)
        return fits.fault();
    std::vector<std::string> variants = job.variants;
    if (job.all_variants) {
        for (const Variant& variant : finish.variants) variants.push_back(variant.name);
    }
    for (const std::string& variant : variants) {
        const auto checked = checked_variant(job, finish, variant, library);
        if (!checked) return checked.fault();
        library.notices().insert(library.notices().end(), (*checked)->faults.begin(), (*checked)->faults.end());
        for (const std::string& tape_path : job.tapes) {
            const Result<NamedTape> tape = library.tape(tape_path, *(*checked)->finish);
            if (!tape) return tape.fault();
            for (const auto& [width, height] : job.sizes) {
                std::string label;
                const auto add = [&](bool several, const std::string& words) {
                    if (several && !words.empty()) label += (label.empty() ? "" : "-") + words;
                };
                add(variants.size() > 1, variant);
                add(job.tapes.size() > 1, fs::path(tape_path).stem().string());
                add(job.sizes.size() > 1, fmt::format("{}x{}", width, height));
                BatchTask task;
                task.name = label.empty() ? job.name : job.name + "-" + label;
                task.request.checked = *checked;
                task.request.finish_path = library.path_of(job.finish);
                task.request.tape = std::make_shared<const Tape>(tape->tape);
                task.request.held = job.dials;
                task.request.frame_width = width;
                task.request.frame_height = height;
                task.request.steps = job.steps;
                task.tape = *tape;
                task.frames = frames_of(job, *tape, label.empty() ? output : labelled_path(output, label));
                task.writing = job.writing;
                task.inspect = job.inspect;
                task.ticks = !plan_ticks(**checked).passes.empty();
                Result<std::string> key = key_of(task, library);
                if (!key) return key.fault();
                task.key = std::move(*key);
                tasks.push_back(std::move(task));
            }
        }
    }
    return Done{};
}

}  // namespace

Result<std::vector<BatchJob>> jobs_from_text(std::string_view text, const std::string& where) {
    Result<Json> json = json_from_text(text, where);
    if (!json) return json.fault();
    Faults notices;
    Fields fields(*json, "", where, notices);
    const double format = fields.number("format", 0);
    if (format != jobs_format || !json->contains("jobs"))
        return job_fault("jobs.format", where, "the file does not say that it holds jobs of format 1",
                         "begin it with \"format\": 1, \"jobs\": [...]");
    std::vector<BatchJob> jobs;
    fields.each("jobs", [&](Fields& job) { jobs.push_back(read_job(job)); });
    for (const auto& [key, value] : fields.kept()) fields.complain(key, "format and jobs");
    if (!notices.empty()) {
        Fault fault = notices.front();
        fault.id = "jobs.value";
        fault.severity = Severity::fault;
        fault.mend = "docs/studio.md tells what a job holds";
        return fault;
    }
    std::set<std::string> names;
    for (const BatchJob& job : jobs) {
        if (!names.insert(job.name).second)
            return job_fault("jobs.name", where, "two jobs are called '" + job.name + "'", "give one another name");
    }
    return jobs;
}

Result<std::vector<BatchTask>> batch_tasks(const std::vector<BatchJob>& jobs, const std::string& folder,
                                           const std::shared_ptr<const Catalogue>& catalogue, Faults& notices) {
    Library library(folder, catalogue, notices);
    std::vector<BatchTask> tasks;
    std::set<std::string_view> paths;
    std::size_t all = 0;
    for (const BatchJob& job : jobs) {
        if (const Result<Done> added = add_tasks(job, library, tasks); !added) return added.fault();
    }
    for (const BatchTask& task : tasks) {
        all += task.frames.size();
        if (all > most_batch_frames)
            return job_fault("jobs.frames", task.name, "all jobs together ask for too many frames",
                             "split the file, or ask for fewer a second");
        for (const SeriesFrame& frame : task.frames) {
            if (!paths.insert(frame.path).second)
                return job_fault("jobs.output", task.name, "two frames would be written to " + frame.path,
                                 "give each job an output of its own");
        }
    }
    return tasks;
}

Result<BatchShare> share_from(std::string_view text) {
    const std::size_t slash = text.find('/');
    const auto nth = whole_of(text.substr(0, slash));
    const auto count = slash == std::string_view::npos ? std::nullopt : whole_of(text.substr(slash + 1));
    if (nth && count && *nth >= 1 && *nth <= *count && *count <= 1'000'000) return BatchShare{*nth, *count};
    return Fault{"jobs.share",
                 "'" + std::string(text) + "' isn't a share",
                 "write 3/20 for the third of twenty",
                 {},
                 Severity::fault};
}

std::vector<BatchTask> share_of(std::vector<BatchTask> tasks, const BatchShare& share) {
    std::size_t all = 0;
    for (const BatchTask& task : tasks) all += task.frames.size();
    const auto count = static_cast<std::size_t>(share.count);
    const std::size_t first = all * (static_cast<std::size_t>(share.nth) - 1) / count;
    const std::size_t last = all * static_cast<std::size_t>(share.nth) / count;
    std::vector<BatchTask> made;
    std::size_t before = 0;
    for (BatchTask& task : tasks) {
        const std::size_t size = task.frames.size();
        const std::size_t begin = std::clamp(first, before, before + size) - before;
        const std::size_t end = std::clamp(last, before, before + size) - before;
        before += size;
        if (begin >= end) continue;
        const auto at = [&](std::size_t nth) { return task.frames.begin() + static_cast<std::ptrdiff_t>(nth); };
        task.frames = std::vector<SeriesFrame>(at(begin), at(end));
        made.push_back(std::move(task));
    }
    return made;
}

}  // namespace lacquer
