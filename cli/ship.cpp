// lacquer-cli ship FILE: writes a finish out for use elsewhere.
#include <fmt/core.h>

#include <CLI/CLI.hpp>

#include "cli/arguments.h"
#include "cli/played.h"
#include "cli/verbs.h"
#include "core/ship/checklist.h"
#include "core/ship/set.h"
#include "core/ship/verify.h"

namespace lacquer::cli {

namespace {

struct ShipOptions {
    PlayedOptions played;
    std::string folder;
    std::vector<std::string> outputs;
    std::string reading = "exact";
    std::optional<double> at;
    double frame_rate = 12;
    bool verifies = false;
    bool checklist = false;
};

// The ids of all targets, or of those that are written only where they are asked for.
std::string ids(bool unusual_only) {
    std::string all;
    for (const ShipOutput& output : ship_outputs()) {
        if (!unusual_only || !output.is_usual) all += (all.empty() ? "" : ", ") + std::string(output.id);
    }
    return all;
}

Result<std::vector<const ShipOutput*>> chosen_outputs(const ShipOptions& options) {
    std::vector<const ShipOutput*> chosen;
    for (const std::string& id : options.outputs) {
        const ShipOutput* output = find_ship_output(id);
        if (output == nullptr) return usage_fault("cli.target", "there is no target '" + id + "'", ids(false));
        chosen.push_back(output);
    }
    if (!chosen.empty()) return chosen;
    for (const ShipOutput& output : ship_outputs()) {
        if (output.is_usual) chosen.push_back(&output);
    }
    return chosen;
}

std::string verified_words(const Verified& verified, bool native) {
    if (!verified.was_run) return "not run: " + verified.drawn_by;
    return fmt::format("{}  largest difference {:.1e}, {:.3f} % over an edge, {:.1f} ms a frame, at {} moments by {}",
                       verified.holds() ? "verified"
                       : native         ? "native  "
                                        : "DIFFERS ",
                       verified.largest, 100 * verified.turned_over, verified.milliseconds, verified.moments.size(),
                       verified.drawn_by);
}

// Draws what each target wrote, and tells how far it is off.
Result<Outcome> verify(const ShipMaterial& material, const std::vector<const ShipOutput*>& outputs,
                       const ShippedFiles& files) {
    WorkerPool pool;
    const VerifyRequest request = usual_verification(material);
    // Samplers round as they like: how far that goes is told, and is no fault.
    const bool native = material.request.access == PictureAccess::native;
    bool differs = false;
    for (const ShipOutput* output : outputs) {
        if (output->ending.empty()) continue;
        Verified verified;
        const Result<ShippedDrawer> drawer = drawer_of(material, *output, files);
        if (drawer) {
            Result<Verified> found = verify_by(material, *drawer, request, pool, Cancel());
            if (!found) return found.fault();
            verified = std::move(*found);
        } else {
            verified.drawn_by = drawer.fault().message;
        }
        fmt::print("{:<8} {}\n", output->id, verified_words(verified, native));
        differs = differs || (verified.was_run && !native && !verified.holds());
    }
    if (differs) return usage_fault("cli.verify", "a target does not draw what the application draws", "see above");
    return Outcome::done;
}

Result<Outcome> ship(const ShipOptions& options) {
    if (options.folder.empty() && !options.checklist)
        return usage_fault("cli.missing-value", "no folder is named to ship to", "add -o FOLDER");
    if (options.reading != "exact" && options.reading != "native")
        return usage_fault("cli.reading", "there is no reading '" + options.reading + "'", "exact or native");
    const Result<std::vector<const ShipOutput*>> outputs = chosen_outputs(options);
    if (!outputs) return outputs.fault();
    Result<PlayedFinish> played = played_finish(options.played);
    if (!played) return played.fault();
    if (options.played.tape) {
        Finish other = *played->checked->finish;
        other.tape = played->tape.tape;
        played->checked = std::make_shared<const CheckedFinish>(
            check_finish(std::make_shared<const Finish>(std::move(other)), played->checked->catalogue));
    }
    if (!(options.frame_rate > 0) || options.frame_rate > 120)
        return usage_fault("cli.number", "--frames takes more than 0, up to 120 a second", "");
    const Result<ShipMaterial> material = ship_material(
        {played->checked, played->path, options.reading == "exact" ? PictureAccess::exact : PictureAccess::native,
         options.at, options.frame_rate});
    if (!material) return material.fault();
    if (options.checklist) {
        fmt::print("{}", host_checklist(*material));
        return Outcome::done;
    }
    const Result<ShippedFiles> files = set_files(*material, *outputs);
    if (!files) return files.fault();
    if (const Result<Done> written = write_set(options.folder, *files); !written) return written.fault();
    std::size_t bytes = 0;
    for (const ShippedFile& file : *files) bytes += file.bytes.size();
    fmt::print("{}: {} files, {:.1f} kB\n", options.folder, files->size(), static_cast<double>(bytes) / 1000);
    for (const ShipOutput* output : *outputs) {
        const std::string why = output->unless != nullptr ? output->unless(*material) : std::string();
        if (!why.empty()) fmt::print("{} left out: {}\n", output->id, why);
    }
    for (const ShipLimit& limit : material->limits) tell(limit.fault);
    if (!options.verifies) return Outcome::done;
    return verify(*material, *outputs, *files);
}

}  // namespace

Run offer_ship(CLI::App& options) {
    const auto chosen = std::make_shared<ShipOptions>();
    add_played(options, chosen->played);
    options.add_option("-o,--output", chosen->folder, "the folder of the set; a set that lies there is replaced whole")
        ->type_name("FOLDER");
    options
        .add_option("--to", chosen->outputs,
                    "only this target; several may be given. " + ids(false) +
                        "; without it all but those that take long: " + ids(true))
        ->allow_extra_args(false)
        ->type_name("TARGET");
    options
        .add_option("--reading", chosen->reading,
                    "how pictures are read: exact, as in the application, or native, by the sampler's filtering")
        ->capture_default_str();
    options.add_option("--at", chosen->at, "the moment of a still, seconds; else where most of the effect is seen");
    options.add_option("--frames", chosen->frame_rate, "frames a second of sheets and moving pictures")
        ->capture_default_str();
    options.add_flag("--verify", chosen->verifies,
                     "draws what was written at several moments of the tape, and compares it with the application");
    options.add_flag("--checklist", chosen->checklist, "prints what the host has to supply, and writes nothing");
    return [chosen] { return ship(*chosen); };
}

}  // namespace lacquer::cli
