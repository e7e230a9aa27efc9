// lacquer-cli doctor: what this machine has, for a report of something that went wrong.
#include <fmt/core.h>
#include <sys/utsname.h>
#include <unistd.h>

#include <CLI/CLI.hpp>
#include <filesystem>
#include <thread>

#include "cli/verbs.h"
#include "core/base/file.h"
#include "core/base/module.h"
#include "core/base/text.h"
#include "core/base/version.h"
#include "core/catalogue/catalogue.h"
#include "core/cpu/kernels.h"
#include "core/finish/json.h"
#include "core/finish/json_line.h"
#include "core/gpu/runner.h"
#include "core/gpu/vulkan_runner.h"
#include "core/picture/files_module.h"
#include "core/picture/movie_module.h"
#include "core/picture/reader.h"
#include "core/picture/svg_process.h"
#include "core/ship/cross_module.h"

namespace lacquer::cli {

namespace {

namespace fs = std::filesystem;

// What is told of a thing, and whether that is as it should be.
struct Finding {
    std::string about;
    std::string words;
    bool is_well = true;
};

Finding system_finding() {
    utsname names{};
    if (uname(&names) != 0) return {"system", "does not tell", false};
    return {"system", fmt::format("{} {} on {}", names.sysname, names.release, names.machine)};
}

Finding memory_finding() {
    const double bytes = static_cast<double>(sysconf(_SC_PHYS_PAGES)) * static_cast<double>(sysconf(_SC_PAGE_SIZE));
    return {"memory", fmt::format("{:.1f} GB", bytes / 1e9)};
}

Finding processor_finding() {
    std::string sets;
    for (const KernelSet& set : kernel_sets()) sets += (sets.empty() ? "" : ", ") + set.name;
    return {"processor", fmt::format("{} threads, kernels {}", std::thread::hardware_concurrency(), sets)};
}

template <class Runner>
Finding driver_finding(const char* about) {
    const auto runner = Runner::open();
    if (!runner) return {about, runner.fault().message, false};
    return {about, (*runner)->name()};
}

Finding part_finding(const char* about, const char* file) {
    const std::string path = part_of_program(file);
    std::error_code code;
    if (!fs::exists(path, code)) return {about, "is missing: " + path, false};
    if (!std::string_view(file).ends_with(".so")) return {about, path};
    const Module module(file);
    return {about, module.error().empty() ? path : module.error(), module.error().empty()};
}

// Whether a picture that breaks its reader can do any harm.
Finding walls_finding() {
    std::string error;
    const Walls walls = reader_walls(error);
    if (!error.empty()) return {"picture reader", error, false};
    const std::string missing = missing_walls(walls);
    return {"picture reader",
            missing.empty() ? "kept from other files, the network and more than 4 GB" : "not walled in" + missing,
            missing.empty()};
}

// A folder that may be made later, by what would be done in it.
Finding folder_finding(const char* about, const fs::path& folder) {
    if (folder.empty()) return {about, "nowhere: HOME is not set", false};
    std::error_code code;
    fs::path there = folder;
    while (!fs::exists(there, code) && there.has_parent_path() && there != there.parent_path())
        there = there.parent_path();
    const bool can_write = access(there.c_str(), W_OK | X_OK) == 0;
    return {about,
            folder.string() + (there == folder ? "" : " (not made yet)") + (can_write ? "" : ", cannot be written"),
            can_write};
}

fs::path home_folder(const char* variable, const char* otherwise) {
    const char* set = std::getenv(variable);
    if (set != nullptr && *set != '\0') return fs::path(set) / "lacquer";
    const char* home = std::getenv("HOME");
    return home == nullptr || *home == '\0' ? fs::path() : fs::path(home) / otherwise / "lacquer";
}

Finding operations_finding() {
    const std::string folder = user_operations_folder();
    const auto catalogue = catalogue_with_folder(folder);
    std::string words = fmt::format("{} known", catalogue->operations.size());
    for (const Fault& fault : catalogue->faults) words += "; " + to_text(fault);
    return {"operations", words, catalogue->faults.empty()};
}

std::vector<Finding> findings() {
    return {{"version", std::string(program_version())},
            system_finding(),
            processor_finding(),
            memory_finding(),
            driver_finding<ShaderRunner>("OpenGL"),
            driver_finding<VulkanRunner>("Vulkan"),
            part_finding("picture files", picture_module_file),
            part_finding("movies", movie_module_file),
            part_finding("shaders for others", cross_module_file),
            part_finding("SVG", svg_program),
            walls_finding(),
            folder_finding("own operations", user_operations_folder()),
            folder_finding("settings", home_folder("XDG_CONFIG_HOME", ".config")),
            folder_finding("kept work", home_folder("XDG_STATE_HOME", ".local/state")),
            operations_finding()};
}

Result<Outcome> doctor(bool as_json) {
    bool all_well = true;
    Json told = Json::array();
    for (const Finding& finding : findings()) {
        all_well = all_well && finding.is_well;
        if (as_json) {
            told.push_back(
                Json::object({{"about", finding.about}, {"words", finding.words}, {"well", finding.is_well}}));
        } else {
            fmt::print("{} {:<20} {}\n", finding.is_well ? ' ' : '!', finding.about, finding.words);
        }
    }
    if (as_json) fmt::print("{}\n", one_line(told));
    return all_well ? Outcome::done : Outcome::with_notices;
}

}  // namespace

Run offer_doctor(CLI::App& options) {
    const auto as_json = std::make_shared<bool>(false);
    options.add_flag("--json", *as_json, "as JSON");
    return [as_json] { return doctor(*as_json); };
}

}  // namespace lacquer::cli
