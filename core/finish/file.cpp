#include "core/finish/file.h"

#include <algorithm>
#include <filesystem>
#include <system_error>

#include "core/base/file.h"
#include "core/base/guarded.h"
#include "core/finish/shared_dials.h"

namespace lacquer {

namespace fs = std::filesystem;

Result<Done> save_finish(const std::string& path, const Finish& finish) {
    const std::string text = finish_to_text(finish);
    if (text.size() > max_file_size) {
        return Fault{"file.size", "the finish is larger than " + std::to_string(max_file_size / 1024 / 1024) + " MB",
                     "save its tape as a file of its own, and clear it here", Place{path, {}, 0, 0}, Severity::fault};
    }
    return write_whole_file(path, text);
}

namespace {

Result<OpenedFinish> loaded(const std::string& path) {
    Result<std::string> text = read_whole_file(path, max_file_size);
    if (!text) return text.fault();
    Result<OpenedFinish> opened = finish_from_text(*text, path);
    if (!opened || opened->finish.shared_dials.empty()) return opened;
    const Result<std::vector<Dial>> shared = load_shared_dials(picture_path(path, opened->finish.shared_dials));
    if (shared) {
        opened->finish = with_shared_dials(std::move(opened->finish), *shared, opened->notices);
    } else {
        // They stay as they were when the finish was saved.
        opened->notices.push_back(shared.fault());
    }
    return opened;
}

}  // namespace

Result<OpenedFinish> load_finish(const std::string& path) {
    return guarded([&] { return loaded(path); });
}

std::string picture_path(const std::string& finish_path, const std::string& ground_path) {
    const fs::path picture(ground_path);
    if (picture.is_absolute() || finish_path.empty()) return ground_path;
    return (fs::path(finish_path).parent_path() / picture).lexically_normal().string();
}

std::string stored_picture_path(const std::string& finish_path, const std::string& picture) {
    if (finish_path.empty()) return picture;
    std::error_code code;
    const fs::path folder = fs::absolute(fs::path(finish_path), code).parent_path().lexically_normal();
    const fs::path full = fs::absolute(fs::path(picture), code).lexically_normal();
    const fs::path relative = full.lexically_relative(folder);
    // Far away, a path from the root says more than a row of "..".
    const auto ups = std::count(relative.begin(), relative.end(), fs::path(".."));
    return relative.empty() || ups > 3 ? full.string() : relative.string();
}

}  // namespace lacquer
