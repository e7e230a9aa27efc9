// lacquer-cli scene: a stand-in scene's view at a moment, as a layered OpenEXR file.
#include <fmt/core.h>

#include <CLI/CLI.hpp>

#include "cli/arguments.h"
#include "cli/verbs.h"
#include "core/scene/capture.h"
#include "core/scene/places.h"

namespace lacquer::cli {

namespace {

struct SceneOptions {
    std::string place;
    std::string hour = "storm";
    double seconds = 0;
    std::string size = "1280x720";
    int colour_bits = 32;
    std::string output;
};

Result<Outcome> scene(const SceneOptions& options) {
    const auto hour = hour_named(options.hour);
    if (!hour) return usage_fault("cli.hour", "there is no hour '" + options.hour + "'", "day, dusk or storm");
    const Result<std::pair<int, int>> size = parse_size(options.size);
    if (!size) return size.fault();
    if (options.colour_bits != 32 && options.colour_bits != 16)
        return usage_fault("cli.number", fmt::format("'{}' isn't a number of bits for colours", options.colour_bits),
                           "16 or 32");
    if (options.output.empty())
        return usage_fault("cli.missing-value", "there is no -o", "say where the file goes: -o FILE.exr");
    const ScenePlace* place = find_place(options.place);
    if (place == nullptr)
        return usage_fault("cli.place", "there is no place '" + options.place + "'", "harbour or lamp_room");
    WorkerPool pool;
    const SceneLayers layers = cast_world(place->world(*hour, options.seconds), place->camera, size->first,
                                          size->second, {true, true, true, true, true}, pool, Cancel());
    const CaptureBits bits = options.colour_bits == 16 ? CaptureBits::half_colours : CaptureBits::all;
    if (auto written = write_capture(options.output, layers, bits); !written) return written.fault();
    fmt::print("{}: {} x {}, {} with depth, normals, positions and {} objects\n", options.output, size->first,
               size->second, place->words, place->objects.size());
    return Outcome::done;
}

}  // namespace

Run offer_scene(CLI::App& options) {
    const auto chosen = std::make_shared<SceneOptions>();
    options.add_option("PLACE", chosen->place, "harbour or lamp_room")->required();
    options.add_option("-o", chosen->output, "where it goes")->type_name("FILE.exr");
    options.add_option("--hour", chosen->hour, "day, dusk or storm")->capture_default_str();
    options.add_option("--at", chosen->seconds, "at which moment, seconds")->capture_default_str();
    options.add_option("--size", chosen->size, "in pixels")->type_name("WxH")->capture_default_str();
    options.add_option("--colour-bits", chosen->colour_bits, "of each part of a colour, 16 or 32")
        ->capture_default_str();
    return [chosen] { return scene(*chosen); };
}

}  // namespace lacquer::cli
