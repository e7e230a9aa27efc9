#include "desktop/session/recovery.h"

#include <unistd.h>

#include <algorithm>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <functional>
#include <system_error>
#include <utility>

namespace lacquer {

namespace {

namespace fs = std::filesystem;

fs::path store() {
    const char* state = std::getenv("XDG_STATE_HOME");
    if (state != nullptr && *state != '\0') return fs::path(state) / "lacquer" / "unsaved";
    const char* home = std::getenv("HOME");
    return fs::path(home != nullptr ? home : "/tmp") / ".local/state/lacquer/unsaved";
}

// The file of one finish in one running Lacquer: "<process>-<hash of path>.lacquer".
fs::path kept_file(const std::string& path) {
    return store() / (std::to_string(getpid()) + "-" + std::to_string(std::hash<std::string>{}(path)) + ".lacquer");
}

constexpr const char* origin_key = "unsaved_copy_of";

// A process's program and state as Linux tells them, such as "lacquer" and 'S'; empty and 'X' if it is gone.
std::pair<std::string, char> told_of(const std::string& process) {
    std::ifstream file("/proc/" + process + "/stat");
    std::string line;
    std::getline(file, line);
    const std::size_t open = line.find('(');
    const std::size_t close = line.rfind(')');
    if (open == std::string::npos || close == std::string::npos || close + 2 >= line.size()) return {{}, 'X'};
    return {line.substr(open + 1, close - open - 1), line[close + 2]};
}

// Whether the Lacquer that keeps this file still runs. Its number may have gone to another program since, and one that
// has ended may still be listed until its parent looks ('Z').
bool is_running(const std::string& file) {
    const auto [program, state] = told_of(file.substr(0, file.find('-')));
    return program == told_of("self").first && state != 'Z' && state != 'X';
}

}  // namespace

void keep_for_recovery(const std::string& path, const Finish& finish) {
    std::error_code code;
    fs::create_directories(store(), code);
    Finish kept = finish;
    kept.extra[origin_key] = path;
    (void)save_finish(kept_file(path).string(), kept);
}

void drop_recovery(const std::string& path) {
    std::error_code code;
    fs::remove(kept_file(path), code);
}

std::optional<OpenedFinish> read_kept(const KeptWork& kept) {
    Result<OpenedFinish> opened = load_finish(kept.file);
    if (!opened) return std::nullopt;
    opened->finish.extra.erase(origin_key);
    return std::move(*opened);
}

std::vector<KeptWork> kept_work() {
    std::error_code code;
    std::vector<std::pair<fs::file_time_type, KeptWork>> found;
    for (const fs::directory_entry& entry : fs::directory_iterator(store(), code)) {
        if (entry.path().extension() != ".lacquer" || is_running(entry.path().filename().string())) continue;
        const Result<OpenedFinish> opened = load_finish(entry.path().string());
        if (!opened) continue;
        const Extra& extra = opened->finish.extra;
        const bool has_origin = extra.contains(origin_key) && extra[origin_key].is_string();
        found.emplace_back(entry.last_write_time(code),
                           KeptWork{entry.path().string(), opened->finish.name,
                                    has_origin ? extra[origin_key].get<std::string>() : std::string()});
    }
    std::sort(found.begin(), found.end(), [](const auto& a, const auto& b) { return a.first > b.first; });
    std::vector<KeptWork> kept;
    for (auto& [time, work] : found) kept.push_back(std::move(work));
    return kept;
}

void drop_kept(const KeptWork& kept) {
    std::error_code code;
    fs::remove(kept.file, code);
}

}  // namespace lacquer
