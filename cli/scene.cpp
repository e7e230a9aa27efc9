// lacquer-cli scene: a stand-in scene's view at a moment, as a layered OpenEXR file.
#include <fmt/core.h>

#include "cli/arguments.h"
#include "cli/verbs.h"
#include "core/scene/capture.h"
#include "core/scene/places.h"

namespace lacquer::cli {

namespace {

struct SceneJob {
    const ScenePlace* place = nullptr;
    Hour hour = Hour::storm;
    double seconds = 0;
    int width = 1280;
    int height = 720;
    CaptureBits bits = CaptureBits::all;
    std::string output;
};

Result<std::string> text_of(Arguments& arguments, const char* option, const std::string& otherwise) {
    Result<std::optional<std::string>> given = arguments.option(option);
    if (!given) return given.fault();
    return given->value_or(otherwise);
}

Result<SceneJob> read_job(Arguments& arguments) {
    SceneJob job;
    Result<std::string> hour = text_of(arguments, "--hour", "storm");
    if (!hour) return hour.fault();
    const auto named = hour_named(*hour);
    if (!named) return usage_fault("cli.hour", "there is no hour '" + *hour + "'", "day, dusk or storm");
    job.hour = *named;
    Result<std::string> at = text_of(arguments, "--at", "0");
    if (!at) return at.fault();
    Result<double> seconds = parse_option_number("--at", *at);
    if (!seconds) return seconds.fault();
    job.seconds = *seconds;
    Result<std::string> size = text_of(arguments, "--size", "1280x720");
    if (!size) return size.fault();
    Result<std::pair<int, int>> sides = parse_size(*size);
    if (!sides) return sides.fault();
    std::tie(job.width, job.height) = *sides;
    Result<std::string> bits = text_of(arguments, "--colour-bits", "32");
    if (!bits) return bits.fault();
    if (*bits != "32" && *bits != "16")
        return usage_fault("cli.number", "'" + *bits + "' is no number of bits for colours", "16 or 32");
    if (*bits == "16") job.bits = CaptureBits::half_colours;
    Result<std::string> output = text_of(arguments, "-o", "");
    if (!output) return output.fault();
    if (output->empty())
        return usage_fault("cli.missing-value", "there is no -o", "say where the file goes: -o FILE.exr");
    job.output = *output;
    Result<std::string> place = arguments.file();
    if (!place) return place.fault();
    job.place = find_place(*place);
    if (job.place == nullptr)
        return usage_fault("cli.place", "there is no place '" + *place + "'", "harbour or lamp_room");
    return job;
}

}  // namespace

Result<Done> scene(Arguments& arguments) {
    Result<SceneJob> job = read_job(arguments);
    if (!job) return job.fault();
    if (!is_drawable_size(job->width, job->height))
        return usage_fault("cli.size", "a scene of this size cannot be drawn", "use at most 64 million pixels");
    WorkerPool pool;
    const SceneLayers layers = cast_world(job->place->world(job->hour, job->seconds), job->place->camera, job->width,
                                          job->height, {true, true, true, true, true}, pool, Cancel());
    if (auto written = write_capture(job->output, layers, job->bits); !written) return written;
    fmt::print("{}: {} x {}, {} with depth, normals, positions and {} objects\n", job->output, job->width, job->height,
               job->place->words, job->place->objects.size());
    return Done{};
}

}  // namespace lacquer::cli
