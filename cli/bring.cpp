// lacquer-cli bring FILE: a fragment shader as a finish.
#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <filesystem>

#include "cli/arguments.h"
#include "cli/verbs.h"
#include "core/base/file.h"
#include "core/finish/bring_shader.h"
#include "core/finish/checked.h"
#include "core/finish/file.h"

namespace lacquer::cli {

namespace {

struct BringOptions {
    std::string file;
    std::string output;
};

Result<Outcome> bring(const BringOptions& options) {
    namespace fs = std::filesystem;
    const Result<std::string> text = read_whole_file(options.file, max_shader_file);
    if (!text) return text.fault();
    Result<BroughtShader> brought = bring_shader(*text, fs::path(options.file).stem().string());
    if (!brought) return brought.fault();
    for (const std::string& told : brought->told) fmt::print("{}\n", told);
    const std::string path =
        options.output.empty() ? fs::path(options.file).replace_extension(".lacquer").string() : options.output;
    const CheckedFinish checked = check_finish(std::make_shared<const Finish>(brought->finish));
    if (const Result<Done> saved = save_finish(path, brought->finish); !saved) return saved.fault();
    fmt::print("{}: a step '{}', {} dials, {} grounds\n", path, brought->step, brought->finish.dials.size(),
               brought->finish.grounds.size());
    const CheckedStep* step = find_step(checked, brought->step);
    for (const Fault& note : step->notes) tell(note);
    if (!step->fault) return Outcome::done;
    // It is kept as it is: what could not be understood can be mended there.
    tell(placed_in_step(*step->fault, path, brought->step, brought->finish.coats[0].steps.front().formula));
    return Outcome::with_notices;
}

}  // namespace

Run offer_bring(CLI::App& options) {
    const auto chosen = std::make_shared<BringOptions>();
    options.add_option("FILE", chosen->file, "the shader, GLSL")->required()->type_name("FILE");
    options.add_option("-o,--output", chosen->output, "the finish; else beside the shader, under its name")
        ->type_name("FILE.lacquer");
    return [chosen] { return bring(*chosen); };
}

}  // namespace lacquer::cli
