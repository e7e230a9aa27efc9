#include "core/finish/find_pictures.h"

#include <algorithm>
#include <filesystem>
#include <map>
#include <system_error>

#include "core/finish/file.h"
#include "core/finish/file_paths.h"
#include "core/finish/ground_pictures.h"

namespace lacquer {

namespace {

namespace fs = std::filesystem;

constexpr int deepest = 4;                 // folders within the one that is looked through
constexpr std::size_t most_files = 20000;  // whoever chooses a whole disk should not wait for it

bool is_there(const std::string& path) {
    std::error_code code;
    return fs::is_regular_file(path, code);
}

// All files within, by their names; links to folders are not followed.
std::multimap<std::string, fs::path> files_within(const std::string& folder) {
    std::multimap<std::string, fs::path> files;
    std::error_code code;
    fs::recursive_directory_iterator at(folder, fs::directory_options::skip_permission_denied, code);
    for (; !code && at != fs::recursive_directory_iterator() && files.size() < most_files; at.increment(code)) {
        if (at.depth() >= deepest) at.disable_recursion_pending();
        std::error_code own;
        if (at->is_regular_file(own)) files.emplace(at->path().filename().string(), at->path());
    }
    return files;
}

// How many of the last folders two paths share.
int agreement(const fs::path& a, const fs::path& b) {
    int shared = 0;
    for (fs::path x = a.parent_path(), y = b.parent_path();
         !x.empty() && !y.empty() && x.filename() == y.filename() && x != x.parent_path();
         x = x.parent_path(), y = y.parent_path())
        ++shared;
    return shared;
}

}  // namespace

std::string folder_of(const std::string& finish_path) { return fs::path(finish_path).parent_path().string(); }

std::vector<std::string> missing_files(const Finish& finish, const std::string& finish_path) {
    std::vector<std::string> missing;
    for (const std::string& path : all_paths(finish)) {
        if (path != finish.shared_dials && !is_there(picture_path(finish_path, path))) missing.push_back(path);
    }
    return missing;
}

FoundFiles find_by_name(Finish finish, const std::string& finish_path, const std::string& folder) {
    FoundFiles found;
    const std::vector<std::string> missing = missing_files(finish, finish_path);
    if (!missing.empty() && !folder.empty()) {
        const auto files = files_within(folder);
        for (const std::string& path : missing) {
            const auto [first, last] = files.equal_range(fs::path(path).filename().string());
            const auto best = std::max_element(first, last, [&](const auto& a, const auto& b) {
                return agreement(a.second, path) < agreement(b.second, path);
            });
            if (best != last) found.moved.emplace_back(path, stored_picture_path(finish_path, best->second.string()));
        }
    }
    found.finish = with_paths(std::move(finish), [&](const std::string& path) {
        const auto moved =
            std::find_if(found.moved.begin(), found.moved.end(), [&](const auto& one) { return one.first == path; });
        return moved == found.moved.end() ? path : moved->second;
    });
    return found;
}

}  // namespace lacquer
