// lacquer-cli render FILE: the very pixels that the stage shows, or the numbers behind them, as a picture file.
#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cmath>

#include "cli/arguments.h"
#include "cli/verbs.h"
#include "core/base/file.h"
#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/tape_file.h"
#include "core/picture/write_picture.h"
#include "core/render/layer_view.h"
#include "core/render/renderer.h"

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
    std::optional<double> scale;
    double at = 0;
    double frames_a_second = 0;
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
    WriteOptions writing;
};

std::string nearest_of(const std::string& name, const std::vector<std::string>& names) {
    const auto near = nearest_name(name, names);
    return near ? "did you mean " + *near + "?" : "";
}

Result<Done> read_cues(const RenderOptions& options, const Finish& finish, Job& job, Faults& notices) {
    job.seconds = finish.length;
    if (options.tape) {
        if (!options.cues.empty())
            return usage_fault("cli.cue", "--cue and --tape do not go together", "give one of them");
        Result<NamedTape> tape = load_tape(*options.tape, notices);
        if (!tape) return tape.fault();
        job.seconds = tape->length;
        job.request.tape = std::make_shared<const Tape>(std::move(tape->tape));
        return Done{};
    }
    if (options.cues.empty()) return Done{};
    Tape tape;
    std::vector<std::string> known;
    for (const CueKind& kind : finish.cues) known.push_back(kind.name);
    for (const std::string& text : options.cues) {
        Result<Cue> cue = parse_cue(text);
        if (!cue) return cue.fault();
        if (std::find(known.begin(), known.end(), cue->name) == known.end()) {
            return usage_fault("cli.cue", "the finish listens to no cue '" + cue->name + "'",
                               nearest_of(cue->name, known));
        }
        // As its pad has it.
        cue->direction = find_cue(finish, cue->name)->direction;
        add_to_tape(tape, *cue);
    }
    job.request.tape = std::make_shared<const Tape>(std::move(tape));
    return Done{};
}

Result<Done> read_dials(const RenderOptions& options, const Finish& finish, Job& job) {
    std::vector<std::string> names;
    for (const Dial& dial : finish.dials) names.push_back(dial.name);
    for (const std::string& text : options.dials) {
        const std::size_t equals = text.find('=');
        const std::string name = text.substr(0, equals);
        if (find_dial(finish, name) == nullptr) {
            return usage_fault("cli.dial", "there is no dial '" + name + "'", nearest_of(name, names));
        }
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
        job.request.held[name] = value;
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
    if (options.size) {
        const Result<std::pair<int, int>> parsed = parse_size(*options.size);
        if (!parsed) return parsed.fault();
        job.request.frame_width = parsed->first;
        job.request.frame_height = parsed->second;
    }
    job.request.steps = options.steps.empty() ? std::vector<std::string>{""} : options.steps;
    const std::optional<Backend> known = backend_named(options.backend);
    if (!known) return usage_fault("cli.backend", "there is no backend '" + options.backend + "'", "cpu, gpu or auto");
    job.backend = *known;
    if (options.opacity != "straight" && options.opacity != "multiplied")
        return usage_fault("cli.opacity", "'" + options.opacity + "' isn't a way to write opacity",
                           "straight or multiplied");
    job.writing.bits = options.bits;
    job.writing.multiplied = options.opacity == "multiplied";
    // What cannot be written is said before anything is drawn.
    return check_writing(options.output, job.request.steps.size(), job.writing);
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

// A ground's numbers, or a step's, as they are written: numbers and places are data, and so are depth and its like.
bool is_data(const DrawnStep& drawn, const Finish& finish) {
    if (width_of(drawn.type) < 3) return true;
    if (find_step(finish, drawn.name) != nullptr) return false;
    const auto ground = find_ground_picture(finish, drawn.name);
    return ground && (is_data(*ground->ground) || ground->picture.layer != GroundLayer::colour);
}

Result<Done> draw_one(const RenderOptions& options, const Job& job, const std::string& output, Renderer& renderer,
                      Faults& notices) {
    Result<Frame> frame = renderer.render(job.request, Cancel());
    if (!frame) return frame.fault();
    notices.insert(notices.end(), frame->notices.begin(), frame->notices.end());
    if (frame->steps.empty())
        return usage_fault("cli.empty", "there is nothing to draw", "the finish has no step and no ground");
    const Finish& finish = *job.request.checked->finish;
    std::vector<Picture> views(frame->steps.size());
    std::vector<WrittenLayer> layers;
    for (std::size_t i = 0; i < frame->steps.size(); ++i) {
        const DrawnStep& drawn = frame->steps[i];
        WrittenLayer layer{drawn.name, &drawn.picture, options.data || is_data(drawn, finish)};
        // As the stage shows them, unless it is the numbers that are wanted.
        const auto ground =
            find_step(finish, drawn.name) == nullptr ? find_ground_picture(finish, drawn.name) : std::nullopt;
        if (ground && needs_layer_view(ground->picture.layer) && !options.data && !holds_floats(output)) {
            views[i] = layer_view(drawn.picture, ground->picture.layer);
            layer = {drawn.name, &views[i], false};
        }
        layers.push_back(layer);
    }
    if (auto written = write_picture(output, layers, job.writing); !written) return written;
    const DrawnStep& first = frame->steps.front();
    fmt::print("{}: {} x {}, {} in {}, {:.1f} ms by {}\n", output, first.picture.width, first.picture.height,
               frame->steps.size() == 1 ? first.name : counted(frame->steps.size(), "layer"),
               counted(frame->passes, "pass", "passes"), frame->milliseconds, renderer.drawn_by());
    return Done{};
}

// "storm.png" as "storm-0007.png".
std::string numbered(const std::string& output, int number) {
    const std::size_t slash = output.find_last_of('/');
    const std::size_t point = output.find_last_of('.');
    const bool ending = point != std::string::npos && (slash == std::string::npos || point > slash);
    const std::string stem = ending ? output.substr(0, point) : output;
    return fmt::format("{}-{:04}{}", stem, number, ending ? output.substr(point) : ".png");
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

Result<Done> draw_all(const RenderOptions& options, Job& job, Renderer& renderer, Faults& notices) {
    if (options.frames_a_second <= 0) return draw_one(options, job, options.output, renderer, notices);
    const int count = static_cast<int>(std::floor(job.seconds * options.frames_a_second + 1e-9)) + 1;
    for (int i = 0; i < count; ++i) {
        job.request.time = i / options.frames_a_second;
        if (auto drawn = draw_one(options, job, numbered(options.output, i), renderer, notices); !drawn) return drawn;
    }
    return Done{};
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

Result<Outcome> render(const RenderOptions& options) {
    Job job;
    if (auto read = read_options(options, job); !read) return read.fault();
    const Result<std::optional<KernelSet>> kernels = choose_kernels(options);
    if (!kernels) return kernels.fault();
    const auto catalogue = catalogue_of(options.finish);
    Result<OpenedFinish> opened = load_finish(options.finish.file);
    if (!opened) return opened.fault();
    const Result<Finish> chosen = with_variant(std::move(opened->finish), options.finish);
    if (!chosen) return chosen.fault();
    const Finish& finish = *chosen;
    Faults notices = opened->notices;
    if (auto read = read_cues(options, finish, job, notices); !read) return read.fault();
    if (auto read = read_dials(options, finish, job); !read) return read.fault();
    if (auto read = apply_scale(options, finish, job); !read) return read.fault();
    auto checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish), catalogue));
    notices.insert(notices.end(), checked->faults.begin(), checked->faults.end());
    for (const std::string& wanted : job.request.steps) {
        if (auto good = check_step(*checked, wanted, options.finish.file); !good) return good.fault();
    }
    if (options.strict && !notices.empty()) return notices.front();
    job.request.checked = checked;
    job.request.finish_path = options.finish.file;
    WorkerPool pool(options.threads);
    Renderer renderer(pool, *kernels);
    if (const auto notice = renderer.use(job.backend)) notices.push_back(*notice);
    if (auto read = read_checkpoint(options, job, renderer); !read) return read.fault();
    Result<Done> drawn = draw_all(options, job, renderer, notices);
    if (drawn) drawn = write_checkpoint(options, job, renderer);
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
