// lacquer-cli render FILE: the very pixels that the stage shows, as a PNG.
#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "cli/arguments.h"
#include "cli/verbs.h"
#include "core/base/text.h"
#include "core/finish/file.h"
#include "core/finish/ground_pictures.h"
#include "core/finish/tape_file.h"
#include "core/picture/files.h"
#include "core/render/layer_view.h"
#include "core/render/renderer.h"
#include "core/render/view.h"

namespace lacquer::cli {

namespace {

struct Job {
    RenderRequest request;
    std::string output;
    std::optional<std::string> tape;
    double frames_a_second = 0;  ///< of a row of pictures over the whole tape; 0 for one picture
    double seconds = 0;          ///< how long that is
    int threads = 0;
    std::optional<std::string> kernels;
    Backend backend = Backend::cpu;
};

std::string nearest_of(const std::string& name, const std::vector<std::string>& names) {
    const auto near = nearest_name(name, names);
    return near ? "did you mean " + *near + "?" : "";
}

Result<Done> read_cues(Arguments& arguments, const Finish& finish, Job& job) {
    Result<std::vector<std::string>> texts = arguments.options("--cue");
    if (!texts) return texts.fault();
    job.seconds = finish.length;
    if (job.tape) {
        if (!texts->empty()) return usage_fault("cli.cue", "--cue and --tape do not go together", "give one of them");
        Faults notices;
        Result<NamedTape> tape = load_tape(*job.tape, notices);
        if (!tape) return tape.fault();
        for (const Fault& notice : notices) fmt::print(stderr, "{}\n", to_text(notice));
        job.seconds = tape->length;
        job.request.tape = std::make_shared<const Tape>(std::move(tape->tape));
        return Done{};
    }
    if (texts->empty()) {
        return Done{};
    }
    Tape tape;
    std::vector<std::string> known;
    for (const CueKind& kind : finish.cues) known.push_back(kind.name);
    for (const std::string& text : *texts) {
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

Result<Done> read_dials(Arguments& arguments, const Finish& finish, Job& job) {
    Result<std::vector<std::string>> texts = arguments.options("--dial");
    if (!texts) return texts.fault();
    std::vector<std::string> names;
    for (const Dial& dial : finish.dials) names.push_back(dial.name);
    for (const std::string& text : *texts) {
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

Result<Done> read_options(Arguments& arguments, Job& job) {
    const auto number = [&](const std::string& option, double otherwise) -> Result<double> {
        Result<std::optional<std::string>> text = arguments.option(option);
        if (!text) return text.fault();
        return *text ? parse_option_number(option, **text) : Result<double>(otherwise);
    };
    Result<double> at = number("--at", 0);
    if (!at) return at.fault();
    job.request.time = *at;
    Result<double> threads = number("--threads", 0);
    if (!threads) return threads.fault();
    if (*threads < 0 || *threads > 256) return usage_fault("cli.number", "--threads takes 0 to 256", "");
    job.threads = static_cast<int>(*threads);
    Result<std::optional<std::string>> size = arguments.option("--size");
    if (!size) return size.fault();
    if (*size) {
        Result<std::pair<int, int>> parsed = parse_size(**size);
        if (!parsed) return parsed.fault();
        job.request.frame_width = parsed->first;
        job.request.frame_height = parsed->second;
    }
    Result<std::optional<std::string>> step = arguments.option("--step");
    if (!step) return step.fault();
    job.request.steps = {step->value_or("")};
    Result<std::optional<std::string>> kernels = arguments.option("--kernels");
    if (!kernels) return kernels.fault();
    job.kernels = *kernels;
    Result<std::optional<std::string>> backend = arguments.option("--backend");
    if (!backend) return backend.fault();
    const std::optional<Backend> known = backend_named(backend->value_or("cpu"));
    if (!known) return usage_fault("cli.backend", "there is no backend '" + **backend + "'", "cpu, gpu or auto");
    job.backend = *known;
    Result<std::optional<std::string>> tape = arguments.option("--tape");
    if (!tape) return tape.fault();
    job.tape = *tape;
    Result<double> frames = number("--frames", 0);
    if (!frames) return frames.fault();
    if (*frames < 0 || *frames > 1000) return usage_fault("cli.number", "--frames takes up to 1000 a second", "");
    job.frames_a_second = *frames;
    Result<std::optional<std::string>> output = arguments.option("-o");
    if (!output) return output.fault();
    if (!*output) return usage_fault("cli.missing-value", "no picture to write is named", "add -o picture.png");
    job.output = **output;
    return Done{};
}

Result<Done> apply_scale(Arguments& arguments, const Finish& finish, Job& job) {
    Result<std::optional<std::string>> text = arguments.option("--scale");
    if (!text) return text.fault();
    if (!*text) return Done{};
    Result<double> scale = parse_option_number("--scale", **text);
    if (!scale) return scale.fault();
    if (!(*scale > 0) || *scale > 16) return usage_fault("cli.number", "--scale takes more than 0, up to 16", "");
    const int width = job.request.frame_width > 0 ? job.request.frame_width : finish.frame_width;
    const int height = job.request.frame_height > 0 ? job.request.frame_height : finish.frame_height;
    job.request.width = std::max(1, static_cast<int>(std::lround(width * *scale)));
    job.request.height = std::max(1, static_cast<int>(std::lround(height * *scale)));
    return Done{};
}

Result<std::optional<KernelSet>> choose_kernels(const Job& job) {
    if (!job.kernels) return std::optional<KernelSet>();
    std::vector<std::string> names;
    for (const KernelSet& set : kernel_sets()) {
        if (set.name == *job.kernels) return std::optional<KernelSet>(set);
        names.push_back(set.name);
    }
    return usage_fault("cli.kernels", "this processor has no kernels '" + *job.kernels + "'",
                       nearest_of(*job.kernels, names));
}

Result<Done> draw_one(const Job& job, const std::string& output, Renderer& renderer, WorkerPool& pool) {
    Result<Frame> frame = renderer.render(job.request, Cancel());
    if (!frame) return frame.fault();
    for (const Fault& notice : frame->notices) fmt::print(stderr, "{}\n", to_text(notice));
    if (frame->steps.empty()) {
        return usage_fault("cli.empty", "there is nothing to draw", "the finish has no step and no ground");
    }
    const DrawnStep& drawn = frame->steps.front();
    const Finish& finish = *job.request.checked->finish;
    const auto ground =
        find_step(finish, drawn.name) == nullptr ? find_ground_picture(finish, drawn.name) : std::nullopt;
    const bool layer = ground && needs_layer_view(ground->picture.layer);
    const Image8 image = layer ? to_image(layer_view(drawn.picture, ground->picture.layer), Type::vec3, pool)
                               : to_image(drawn.picture, drawn.type, pool);
    if (auto written = write_png(output, image); !written) return written;
    fmt::print("{}: {} x {}, {} in {}, {:.1f} ms by {}\n", output, drawn.picture.width, drawn.picture.height,
               drawn.name, counted(frame->passes, "pass", "passes"), frame->milliseconds, renderer.drawn_by());
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

}  // namespace

Result<Done> render(Arguments& arguments) {
    Job job;
    if (auto read = read_options(arguments, job); !read) return read;
    // The file is what is left when all options are taken, so those that need the finish wait in a copy.
    Arguments rest = arguments;
    for (const char* option : {"--cue", "--dial", "--scale"}) {
        if (auto taken = rest.options(option); !taken) return taken.fault();
    }
    const auto catalogue = catalogue_of(arguments);
    if (!catalogue) return catalogue.fault();
    if (auto taken = rest.options("--operations"); !taken) return taken.fault();
    Result<std::string> path = rest.file();
    if (!path) return path.fault();
    Result<OpenedFinish> opened = load_finish(*path);
    if (!opened) return opened.fault();
    const Finish& finish = opened->finish;
    if (auto read = read_cues(arguments, finish, job); !read) return read;
    if (auto read = read_dials(arguments, finish, job); !read) return read;
    if (auto read = apply_scale(arguments, finish, job); !read) return read;
    Result<std::optional<KernelSet>> kernels = choose_kernels(job);
    if (!kernels) return kernels.fault();

    auto checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish), *catalogue));
    for (const Fault& notice : opened->notices) fmt::print(stderr, "{}\n", to_text(notice));
    for (const Fault& fault : checked->faults) fmt::print(stderr, "{}\n", to_text(fault));
    const std::string& wanted = job.request.steps.front();
    const CheckedStep* step = find_step(*checked, wanted.empty() ? finished_step(*checked) : wanted);
    if (step == nullptr && !wanted.empty() && !find_ground_picture(finish, wanted)) {
        std::vector<std::string> names;
        for (const CheckedStep& known : checked->steps) names.push_back(known.name);
        for (const Ground& ground : finish.grounds) {
            for (const GroundPicture& picture : ground_pictures(ground)) names.push_back(picture.name);
        }
        return usage_fault("cli.step", "there is no step '" + wanted + "'", nearest_of(wanted, names));
    }
    if (step != nullptr && step->fault) return *step->fault;
    job.request.checked = checked;
    job.request.finish_path = *path;

    WorkerPool pool(job.threads);
    Renderer renderer(pool, *kernels);
    if (const auto notice = renderer.use(job.backend)) fmt::print(stderr, "{}\n", to_text(*notice));
    if (job.frames_a_second <= 0) return draw_one(job, job.output, renderer, pool);
    const int count = static_cast<int>(std::floor(job.seconds * job.frames_a_second + 1e-9)) + 1;
    for (int i = 0; i < count; ++i) {
        job.request.time = i / job.frames_a_second;
        if (auto drawn = draw_one(job, numbered(job.output, i), renderer, pool); !drawn) return drawn;
    }
    return Done{};
}

}  // namespace lacquer::cli
