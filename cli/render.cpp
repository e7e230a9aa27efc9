// lacquer-cli render FILE: the very pixels that the stage shows, or the numbers behind them, as a picture file.
#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cmath>

#include "cli/played.h"
#include "cli/progress.h"
#include "cli/verbs.h"
#include "core/base/file.h"
#include "core/base/text.h"
#include "core/batch/content_key.h"
#include "core/batch/frame_series.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/tape_file.h"
#include "core/render/played_request.h"

namespace lacquer::cli {

namespace {

struct RenderOptions {
    FinishOptions finish;
    std::string output;
    std::vector<std::string> steps;
    std::vector<std::string> cues;
    std::vector<std::string> dials;
    std::optional<std::string> tape;
    std::optional<std::string> size;
    std::optional<std::string> sizes;
    std::optional<double> scale;
    double at = 0;
    double frames_a_second = 0;
    std::optional<std::string> range;
    int step_by = 1;
    bool resume = false;
    int memory = 2048;
    int threads = 0;
    std::optional<std::string> kernels;
    std::string backend = "cpu";
    std::optional<std::string> from_checkpoint;
    std::optional<std::string> to_checkpoint;
    int bits = 0;
    std::string opacity = "multiplied";
    bool data = false;
    bool strict = false;
};

struct Job {
    RenderRequest request;
    double seconds = 0;  ///< how long a row of pictures over the whole tape is
    Backend backend = Backend::cpu;
    FrameWriting writing;
    std::vector<std::pair<int, int>> sizes = {{0, 0}};  ///< of the frame, in pixels
    std::optional<std::pair<int, int>> range;           ///< the first and the last frame of a series
};

std::string nearest_of(const std::string& name, const std::vector<std::string>& names) {
    const auto near = nearest_name(name, names);
    return near ? "did you mean " + *near + "?" : "";
}

Result<Done> read_tape(const RenderOptions& options, PlayedFinish& played, Faults& notices) {
    if (options.tape) {
        if (!options.cues.empty())
            return usage_fault("cli.cue", "--cue and --tape do not go together", "give one of them");
        return use_tape(played, *options.tape, notices);
    }
    if (!options.cues.empty()) played.tape.tape = Tape();
    for (const std::string& text : options.cues) {
        Result<Cue> cue = parse_cue(text);
        if (!cue) return cue.fault();
        // As its pad has it.
        if (const CueKind* pad = find_cue(played.finish(), cue->name)) cue->direction = pad->direction;
        if (auto pressed = press_cue(played, std::move(*cue)); !pressed) return pressed;
    }
    return Done{};
}

Result<Done> read_dials(const RenderOptions& options, PlayedFinish& played) {
    for (const std::string& text : options.dials) {
        const std::size_t equals = text.find('=');
        const std::string name = text.substr(0, equals);
        DialValue value{};
        std::string rest = equals == std::string::npos ? "" : text.substr(equals + 1);
        for (double& part : value) {
            const std::size_t comma = rest.find(',');
            Result<double> number = parse_option_number("--dial " + name, rest.substr(0, comma));
            if (!number) return number.fault();
            part = *number;
            if (comma == std::string::npos) break;
            rest = rest.substr(comma + 1);
        }
        if (auto held = hold_dial(played, name, value); !held) return held;
    }
    return Done{};
}

Result<Done> read_options(const RenderOptions& options, Job& job) {
    job.request.time = options.at;
    if (options.threads < 0 || options.threads > 256) return usage_fault("cli.number", "--threads takes 0 to 256", "");
    if (!(options.frames_a_second >= 0) || options.frames_a_second > 1000)
        return usage_fault("cli.number", "--frames takes up to 1000 a second", "");
    if (options.output.empty())
        return usage_fault("cli.missing-value", "no picture to write is named", "add -o picture.png");
    if (options.size && options.sizes)
        return usage_fault("cli.size", "--size and --sizes do not go together", "give one of them");
    if (const auto& sizes = options.sizes ? options.sizes : options.size) {
        job.sizes.clear();
        for (std::size_t begin = 0; begin <= sizes->size();) {
            const std::size_t end = std::min(sizes->find(',', begin), sizes->size());
            const Result<std::pair<int, int>> parsed = parse_size(sizes->substr(begin, end - begin));
            if (!parsed) return parsed.fault();
            job.sizes.push_back(*parsed);
            begin = end + 1;
        }
    }
    if (options.range) {
        const std::size_t dots = options.range->find("..");
        const Result<double> first = parse_option_number("--range", options.range->substr(0, dots));
        const Result<double> last =
            parse_option_number("--range", dots == std::string::npos ? "" : options.range->substr(dots + 2));
        const bool fits = first && last && *first >= 0 && *last >= *first && *last < 1e8 &&
                          *first == std::floor(*first) && *last == std::floor(*last);
        if (!fits) return usage_fault("cli.number", "--range takes the first and the last frame", "write 100..199");
        job.range = {static_cast<int>(*first), static_cast<int>(*last)};
    }
    if (options.step_by < 1) return usage_fault("cli.number", "--step-by takes 1 or more", "");
    if (options.memory < 16) return usage_fault("cli.number", "--memory takes 16 megabytes at least", "");
    const bool series_only = options.range || options.resume || options.step_by != 1;
    if (series_only && options.frames_a_second <= 0)
        return usage_fault("cli.frames", "--range, --step-by and --resume go with --frames", "say how many a second");
    job.request.steps = options.steps.empty() ? std::vector<std::string>{""} : options.steps;
    const std::optional<Backend> known = backend_named(options.backend);
    if (!known) return usage_fault("cli.backend", "there is no backend '" + options.backend + "'", "cpu, gpu or auto");
    job.backend = *known;
    if (options.opacity != "straight" && options.opacity != "multiplied")
        return usage_fault("cli.opacity", "'" + options.opacity + "' isn't a way to write opacity",
                           "straight or multiplied");
    job.writing.options.bits = options.bits;
    job.writing.options.multiplied = options.opacity == "multiplied";
    // What cannot be written is said before anything is drawn.
    job.writing.data = options.data;
    return check_writing(options.output, job.request.steps.size(), job.writing.options);
}

Result<Done> apply_scale(const RenderOptions& options, const Finish& finish, Job& job) {
    if (!options.scale) return Done{};
    if (!(*options.scale > 0) || *options.scale > 16)
        return usage_fault("cli.number", "--scale takes more than 0, up to 16", "");
    const int width = job.request.frame_width > 0 ? job.request.frame_width : finish.frame_width;
    const int height = job.request.frame_height > 0 ? job.request.frame_height : finish.frame_height;
    job.request.width = std::max(1, static_cast<int>(std::lround(width * *options.scale)));
    job.request.height = std::max(1, static_cast<int>(std::lround(height * *options.scale)));
    return Done{};
}

Result<std::optional<KernelSet>> choose_kernels(const RenderOptions& options) {
    if (!options.kernels) return std::optional<KernelSet>();
    std::vector<std::string> names;
    for (const KernelSet& set : kernel_sets()) {
        if (set.name == *options.kernels) return std::optional<KernelSet>(set);
        names.push_back(set.name);
    }
    return usage_fault("cli.kernels", "this processor has no kernels '" + *options.kernels + "'",
                       nearest_of(*options.kernels, names));
}

void tell_written(const std::string& path, const Frame& frame, const std::string& drawn_by) {
    const DrawnStep& first = frame.steps.front();
    fmt::print("{}: {} x {}, {} in {}, {:.1f} ms by {}\n", path, first.picture.width, first.picture.height,
               frame.steps.size() == 1 ? first.name : counted(frame.steps.size(), "layer"),
               counted(frame.passes, "pass", "passes"), frame.milliseconds, drawn_by);
}

Result<Done> draw_one(const Job& job, const std::string& output, Renderer& renderer, Faults& notices) {
    Result<Frame> frame = renderer.render(job.request, Cancel());
    if (!frame) return frame.fault();
    notices.insert(notices.end(), frame->notices.begin(), frame->notices.end());
    if (auto written = write_frame(output, *frame, *job.request.checked->finish, job.writing); !written) return written;
    tell_written(output, *frame, renderer.drawn_by());
    return Done{};
}

// A step or a picture among the grounds, without a fault.
Result<Done> check_step(const CheckedFinish& checked, const std::string& wanted, const std::string& file) {
    const Finish& finish = *checked.finish;
    const CheckedStep* step = find_step(checked, wanted.empty() ? finished_step(checked) : wanted);
    if (step == nullptr && !wanted.empty() && !find_ground_picture(finish, wanted)) {
        std::vector<std::string> names;
        for (const CheckedStep& known : checked.steps) names.push_back(known.name);
        for (const Ground& ground : finish.grounds) {
            for (const GroundPicture& picture : ground_pictures(ground)) names.push_back(picture.name);
        }
        return usage_fault("cli.step", "there is no step '" + wanted + "'", nearest_of(wanted, names));
    }
    if (step == nullptr || !step->fault) return Done{};
    const Step* own = find_step(finish, step->name);
    return placed_in_step(*step->fault, file, step->name, own != nullptr ? own->formula : std::string());
}

Result<Done> read_checkpoint(const RenderOptions& options, const Job& job, Renderer& renderer) {
    if (!options.from_checkpoint) return Done{};
    const Result<std::string> bytes = read_whole_file(*options.from_checkpoint, max_checkpoint_file);
    if (!bytes) return bytes.fault();
    const Result<Checkpoint> read = checkpoint_from(*bytes, *options.from_checkpoint);
    if (!read) return read.fault();
    return renderer.take_checkpoint(job.request, *read);
}

// As it is at the last picture that was drawn.
Result<Done> write_checkpoint(const RenderOptions& options, const Job& job, Renderer& renderer) {
    if (!options.to_checkpoint) return Done{};
    const Result<Checkpoint> now = renderer.checkpoint(job.request, Cancel());
    if (!now) return now.fault();
    if (auto written = write_output(*options.to_checkpoint, to_bytes(*now)); !written) return written;
    fmt::print("{}: after tick {}\n", *options.to_checkpoint, now->state.tick);
    return Done{};
}

std::vector<SeriesFrame> frames_of(const RenderOptions& options, const Job& job, const std::string& output) {
    const int last = static_cast<int>(std::floor(std::min(job.seconds * options.frames_a_second + 1e-9, 1e8)));
    const int first = job.range ? job.range->first : 0;
    std::vector<SeriesFrame> frames;
    for (int i = first; i <= std::min(last, job.range ? job.range->second : last); i += options.step_by)
        frames.push_back({i, i / options.frames_a_second, numbered_path(output, i)});
    return frames;
}

Result<std::string> key_of(const Job& job) {
    const RenderRequest& request = job.request;
    Result<ContentKey> key = key_of_finish(*request.checked->finish, request.finish_path, *request.checked->catalogue);
    if (!key) return key.fault();
    const Finish& finish = *request.checked->finish;
    key->add(tape_to_text({"", job.seconds, request.tape != nullptr ? *request.tape : finish.tape}));
    for (const auto& [name, value] : request.held) {
        key->add(name);
        for (const double part : value) key->add(part);
    }
    for (const std::string& step : request.steps) key->add(step);
    for (const int side : {request.frame_width, request.frame_height, request.width, request.height}) key->add(side);
    key->add(job.writing.options.bits).add(job.writing.options.multiplied ? 1 : 0).add(job.writing.data ? 1 : 0);
    return key->text();
}

// What is left of a series that was begun earlier: what was written since then is whole, and stays.
Result<Done> leave_out_done(const RenderOptions& options, const Job& job, const std::string& output,
                            std::vector<SeriesFrame>& frames) {
    const std::string record = output + ".begun";
    const Result<std::string> key = key_of(job);
    if (!key) return key.fault();
    const auto begun = stamp_of(record);
    if (!options.resume || !begun) return write_whole_file(record, *key + "\n");
    const Result<std::string> before = read_whole_file(record, 1024);
    if (!before || *before != *key + "\n")
        return usage_fault("cli.resume", "what was begun there was drawn of something else",
                           "leave --resume out to draw all of it");
    std::erase_if(frames, [&](const SeriesFrame& frame) {
        const auto there = stamp_of(frame.path);
        return there && there->changed >= begun->changed;
    });
    return Done{};
}

Result<Done> draw_frames(const RenderOptions& options, const Job& job, const std::string& output,
                         const std::optional<KernelSet>& kernels, Faults& notices) {
    std::vector<SeriesFrame> frames = frames_of(options, job, output);
    if (const Result<Done> left = leave_out_done(options, job, output, frames); !left) return left;
    SeriesOptions series;
    series.writing = job.writing;
    series.backend = job.backend;
    series.kernels = kernels;
    series.threads = options.threads;
    series.memory = static_cast<std::size_t>(options.memory) * 1024 * 1024;
    const CalledOff called_off;
    Progress progress(frames.size());
    const Result<Done> drawn = draw_series(
        job.request, frames, series,
        [&](const SeriesFrame& frame, const Frame& made, const std::string& drawn_by) {
            for (const Fault& notice : made.notices) {
                if (std::find(notices.begin(), notices.end(), notice) == notices.end()) notices.push_back(notice);
            }
            progress.one_more(frame.path);
            tell_written(frame.path, made, drawn_by);
        },
        called_off.cancel());
    progress.end();
    if (drawn) std::remove((output + ".begun").c_str());
    return drawn;
}

Result<Done> draw_with_checkpoints(const RenderOptions& options, Job& job, const std::string& output,
                                   const std::optional<KernelSet>& kernels, Faults& notices) {
    WorkerPool pool(options.threads);
    Renderer renderer(pool, kernels);
    if (const auto notice = renderer.use(job.backend)) notices.push_back(*notice);
    if (auto read = read_checkpoint(options, job, renderer); !read) return read;
    if (options.frames_a_second <= 0) {
        if (auto drawn = draw_one(job, output, renderer, notices); !drawn) return drawn;
    } else {
        for (const SeriesFrame& frame : frames_of(options, job, output)) {
            job.request.time = frame.time;
            if (auto drawn = draw_one(job, frame.path, renderer, notices); !drawn) return drawn;
        }
    }
    return write_checkpoint(options, job, renderer);
}

// One picture or series: a variant, a size.
Result<Done> draw_all(const RenderOptions& options, Job& job, const std::string& output,
                      const std::optional<KernelSet>& kernels, Faults& notices) {
    const bool is_plain = options.from_checkpoint || options.to_checkpoint || options.frames_a_second <= 0;
    return is_plain ? draw_with_checkpoints(options, job, output, kernels, notices)
                    : draw_frames(options, job, output, kernels, notices);
}

// All that is asked for of the finish: each variant in each size, with these in the files' names where there are
// several.
Result<Done> draw_variants(const RenderOptions& options, PlayedFinish& played, Job& job, Faults& notices) {
    const Result<std::optional<KernelSet>> kernels = choose_kernels(options);
    if (!kernels) return kernels.fault();
    const std::vector<std::string> variants = variants_of(played, options.finish);
    for (const std::string& variant : variants) {
        if (auto used = use_variant(played, variant); !used) return used;
        job.request.checked = played.checked;
        notices.insert(notices.end(), job.request.checked->faults.begin(), job.request.checked->faults.end());
        for (const std::string& wanted : job.request.steps) {
            if (auto good = check_step(*job.request.checked, wanted, options.finish.file); !good) return good;
        }
        if (options.strict && !notices.empty()) return notices.front();
        for (const auto& [width, height] : job.sizes) {
            job.request.frame_width = width;
            job.request.frame_height = height;
            if (auto scaled = apply_scale(options, played.finish(), job); !scaled) return scaled;
            std::string output = options.output;
            if (variants.size() > 1 && !variant.empty()) output = labelled_path(output, variant);
            if (job.sizes.size() > 1) output = labelled_path(output, fmt::format("{}x{}", width, height));
            if (auto drawn = draw_all(options, job, output, *kernels, notices); !drawn) return drawn;
        }
    }
    return Done{};
}

Result<Outcome> render(const RenderOptions& options) {
    Job job;
    if (auto read = read_options(options, job); !read) return read.fault();
    if (auto known = choose_kernels(options); !known) return known.fault();
    Faults notices;
    Result<PlayedFinish> played = played_finish(options.finish, notices);
    if (!played) return played.fault();
    if (auto read = read_tape(options, *played, notices); !read) return read.fault();
    if (auto read = read_dials(options, *played); !read) return read.fault();
    const RenderRequest asked = std::move(job.request);
    job.request = request_of(*played, asked.time);
    job.request.steps = asked.steps;
    job.seconds = played->tape.length;
    const Result<Done> drawn = draw_variants(options, *played, job, notices);
    // Of many pictures each would tell the same again.
    Faults told;
    for (const Fault& notice : notices) {
        if (std::find(told.begin(), told.end(), notice) == told.end()) told.push_back(notice);
    }
    for (const Fault& notice : told) tell(notice);
    if (!drawn) return drawn.fault();
    if (told.empty()) return Outcome::done;
    if (options.strict) return told.front();
    return Outcome::with_notices;
}

}  // namespace

Run offer_render(CLI::App& options) {
    const auto chosen = std::make_shared<RenderOptions>();
    add_finish(options, chosen->finish);
    options.add_option("-o", chosen->output, "where the picture goes: .png, .exr, .tif, .webp or .jpg")
        ->type_name("PICTURE");
    options.add_option("--at", chosen->at, "at which moment, seconds")->capture_default_str();
    options.add_option("--cue", chosen->cues, "a cue in place of those that the finish holds; several may be given")
        ->type_name("NAME:STRENGTH@SECONDS")
        ->allow_extra_args(false);
    options.add_option("--tape", chosen->tape, "a tape in place of the finish's own")->type_name("FILE.tape");
    options.add_option("--frames", chosen->frames_a_second,
                       "so many pictures a second over the tape's whole length, numbered PICTURE-0000 and so on");
    options.add_option("--range", chosen->range, "only these frames of the series, by their numbers")
        ->type_name("FIRST..LAST");
    options.add_option("--step-by", chosen->step_by, "every so many frames of the series")->capture_default_str();
    options.add_flag("--resume", chosen->resume, "goes on with a series that was stopped; what is whole stays");
    options.add_option("--memory", chosen->memory, "what frames under way may hold together, megabytes")
        ->capture_default_str();
    options.add_option("--sizes", chosen->sizes, "several sizes of the frame, each with its own files")
        ->type_name("WxH,WxH");
    options.add_option("--size", chosen->size, "another size of the frame, in pixels")->type_name("WxH");
    options.add_option("--scale", chosen->scale, "how finely the frame is drawn, 1 as it is");
    options
        .add_option("--step", chosen->steps,
                    "a step or a picture among the grounds; several become layers of one OpenEXR file")
        ->allow_extra_args(false);
    options.add_option("--dial", chosen->dials, "holds a dial; several may be given")
        ->type_name("NAME=VALUE")
        ->allow_extra_args(false);
    options
        .add_option("--from-checkpoint", chosen->from_checkpoint,
                    "goes on from what ticks had left there, instead of from the beginning")
        ->type_name("FILE");
    options.add_option("--to-checkpoint", chosen->to_checkpoint, "writes what ticks have left at the last picture")
        ->type_name("FILE");
    options.add_option("--bits", chosen->bits,
                       "of each number: 8 or 16 for PNG, 16 or 32 for OpenEXR, 8, 16 or 32 for TIFF");
    options.add_option("--opacity", chosen->opacity, "in OpenEXR and TIFF: straight, or multiplied into the colours")
        ->capture_default_str();
    options.add_flag("--data", chosen->data, "the numbers as they are, without the sRGB curve");
    options.add_flag("--strict", chosen->strict, "what is missing is a fault, and not only told");
    options.add_option("--threads", chosen->threads, "how many draw, 0 for one a processor");
    options.add_option("--kernels", chosen->kernels, "AVX3, AVX2, SSE4 or scalar");
    options.add_option("--backend", chosen->backend, "cpu, gpu or auto")->capture_default_str();
    return [chosen] { return render(*chosen); };
}

}  // namespace lacquer::cli
