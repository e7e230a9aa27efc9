#include "desktop/session/recovery.h"

#include <signal.h>
#include <unistd.h>

#include <cstdlib>
#include <filesystem>
#include <functional>
#include <system_error>

#include "core/base/text.h"

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

bool is_running(const std::string& file) {
    const auto process = parse_number(file.substr(0, file.find('-')));
    if (!process || *process < 1 || *process > 1e9) return false;
    return kill(static_cast<pid_t>(*process), 0) == 0;
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

std::optional<Recovered> take_recovered() {
    std::error_code code;
    for (const fs::directory_entry& entry : fs::directory_iterator(store(), code)) {
        const std::string file = entry.path().filename().string();
        if (entry.path().extension() != ".lacquer" || is_running(file)) continue;
        Result<OpenedFinish> opened = load_finish(entry.path().string());
        if (!opened) continue;
        Recovered recovered{std::move(*opened), {}};
        Extra& extra = recovered.opened.finish.extra;
        if (extra.contains(origin_key) && extra[origin_key].is_string()) {
            recovered.path = extra[origin_key].get<std::string>();
        }
        extra.erase(origin_key);
        fs::remove(entry.path(), code);
        return recovered;
    }
    return std::nullopt;
}

}  // namespace lacquer
