#include "desktop/drawing/drawing_marks.h"

#include <filesystem>
#include <system_error>

#include "core/base/file.h"
#include "desktop/document/state_files.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

constexpr const char* ending = ".drawing";
constexpr std::size_t longest_path = 65536;

fs::path mark_of(const std::string& path) { return state_folder("drawing") / own_file_name(path, ending); }

}  // namespace

void mark_drawing(const std::string& path) {
    std::error_code code;
    const fs::path mark = mark_of(path);
    fs::create_directories(mark.parent_path(), code);
    (void)write_whole_file(mark.string(), path);
}

void unmark_drawing(const std::string& path) {
    std::error_code code;
    fs::remove(mark_of(path), code);
}

bool ended_while_drawing(const std::string& path) {
    std::error_code code;
    const std::optional<FileStamp> finish = stamp_of(path);
    for (auto entry = fs::directory_iterator(state_folder("drawing"), code); !code && entry != fs::directory_iterator();
         entry.increment(code)) {
        const std::string name = entry->path().filename().string();
        if (entry->path().extension() != ending || is_running(name)) continue;
        const Result<std::string> of = read_whole_file(entry->path().string(), longest_path);
        if (!of || *of != path) continue;
        const std::optional<FileStamp> mark = stamp_of(entry->path().string());
        if (finish && mark && finish->changed <= mark->changed) return true;
        fs::remove(entry->path(), code);
        code.clear();
    }
    return false;
}

}  // namespace lacquer
