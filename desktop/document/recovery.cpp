#include "desktop/document/recovery.h"

#include <algorithm>
#include <filesystem>
#include <system_error>
#include <utility>

#include "core/base/file.h"
#include "core/finish/kept_text.h"
#include "desktop/document/state_files.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

fs::path recovery_folder() { return state_folder("unsaved"); }

fs::path kept_file(const std::string& path) { return recovery_folder() / own_file_name(path, ".lacquer"); }

constexpr const char* origin_key = "unsaved_copy_of";

}  // namespace

Result<Done> keep_for_recovery(const std::string& path, const Finish& finish) {
    if (Result<Done> made = make_folder(recovery_folder().string()); !made) return made.fault();
    Finish kept = finish;
    keep_text(kept.extra, origin_key, path);
    return save_finish(kept_file(path).string(), kept);
}

void drop_recovery(const std::string& path) {
    std::error_code code;
    fs::remove(kept_file(path), code);
}

std::optional<OpenedFinish> read_kept(const KeptWork& kept) {
    Result<OpenedFinish> opened = load_finish(kept.file);
    if (!opened) return std::nullopt;
    forget_key(opened->finish.extra, origin_key);
    return std::move(*opened);
}

std::vector<KeptWork> kept_work() {
    std::error_code code;
    std::vector<std::pair<fs::file_time_type, KeptWork>> found;
    for (auto entry = fs::directory_iterator(recovery_folder(), code); !code && entry != fs::directory_iterator();
         entry.increment(code)) {
        const fs::path& path = entry->path();
        if (path.extension() != ".lacquer" || is_running(path.filename().string())) continue;
        const Result<OpenedFinish> opened = load_finish(path.string());
        if (!opened) continue;
        std::error_code gone;
        found.emplace_back(fs::last_write_time(path, gone),
                           KeptWork{path.string(), opened->finish.name,
                                    kept_text(opened->finish.extra, origin_key).value_or(std::string())});
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
