#include "desktop/document/open_mark.h"

#include <filesystem>
#include <fstream>
#include <system_error>

#include "desktop/document/state_files.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

constexpr const char* mark_ending = ".open";

// The same file by another name, a link, has the same mark.
std::string mark_of(const std::string& path) {
    std::error_code code;
    const fs::path real = fs::weakly_canonical(path, code);
    return own_file_name(code ? path : real.string(), mark_ending);
}

// What stands behind the number of the process.
std::string without_process(const std::string& name) { return name.substr(std::min(name.find('-'), name.size())); }

}  // namespace

bool mark_open(const std::string& path) {
    const fs::path folder = state_folder("open");
    if (path.empty() || folder.empty()) return false;
    std::error_code code;
    fs::create_directories(folder, code);
    const std::string own = mark_of(path);
    std::ofstream(folder / own).flush();
    bool elsewhere = false;
    for (auto entry = fs::directory_iterator(folder, code); !code && entry != fs::directory_iterator();
         entry.increment(code)) {
        const std::string name = entry->path().filename().string();
        if (name == own || !name.ends_with(mark_ending)) continue;
        std::error_code gone;
        if (!is_running(name)) {
            fs::remove(entry->path(), gone);
        } else if (without_process(name) == without_process(own)) {
            elsewhere = true;
        }
    }
    return elsewhere;
}

void unmark_open(const std::string& path) {
    const fs::path folder = state_folder("open");
    if (path.empty() || folder.empty()) return;
    std::error_code code;
    fs::remove(folder / mark_of(path), code);
}

}  // namespace lacquer
