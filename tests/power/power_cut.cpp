#include "tests/power/power_cut.h"

#include <sstream>

namespace lacquer::test {

namespace {

std::string parent_of(const std::string& path) { return path.substr(0, path.rfind('/')); }

std::string bytes_of(const std::string& hex) {
    std::string bytes;
    for (std::size_t i = 0; i + 1 < hex.size(); i += 2)
        bytes += static_cast<char>(std::stoi(hex.substr(i, 2), nullptr, 16));
    return bytes;
}

}  // namespace

UnsyncedDisk::UnsyncedDisk(std::set<std::string> folders, const DiskContents& files)
    : folders_(std::move(folders)), synced_folders_(folders_) {
    for (const auto& [path, bytes] : files) {
        names_[path] = static_cast<int>(files_.size());
        files_.push_back({bytes, bytes});
    }
    synced_names_ = names_;
}

void UnsyncedDisk::take(const std::string& line) {
    std::istringstream words(line);
    std::string what;
    std::string first;
    std::string second;
    words >> what >> first;
    if (what == "open") {
        int how = 0;
        words >> how >> second;
        const auto known = names_.find(second);
        if (how == 1 || known == names_.end()) {
            names_[second] = static_cast<int>(files_.size());
            files_.emplace_back();
        } else if (how == 2) {
            // To be cut is done at once, as it may be.
            files_[static_cast<std::size_t>(known->second)] = {};
        }
        by_number_[first] = names_[second];
    } else if (what == "write") {
        words >> second;
        files_[static_cast<std::size_t>(by_number_.at(first))].bytes += bytes_of(second);
    } else if (what == "sync") {
        const auto known = by_number_.find(first);
        if (known == by_number_.end()) return;
        File& file = files_[static_cast<std::size_t>(known->second)];
        file.synced = file.bytes;
    } else if (what == "folder") {
        std::erase_if(synced_names_, [&](const auto& name) { return parent_of(name.first) == first; });
        for (const auto& name : names_) {
            if (parent_of(name.first) == first) synced_names_.insert(name);
        }
        for (const std::string& folder : folders_) {
            if (parent_of(folder) == first) synced_folders_.insert(folder);
        }
    } else if (what == "mkdir") {
        folders_.insert(first);
    } else if (what == "rename") {
        words >> second;
        const auto known = names_.find(first);
        if (known == names_.end()) return;
        names_[second] = known->second;
        names_.erase(first);
    } else if (what == "remove") {
        names_.erase(first);
    }
}

DiskContents UnsyncedDisk::after_power_cut(Left left) const {
    DiskContents contents;
    const auto stands = [&](std::string folder) {
        for (; folder.size() > 1; folder = parent_of(folder)) {
            if (folders_.contains(folder) && !synced_folders_.contains(folder)) return false;
        }
        return true;
    };
    for (const auto& [path, file] : left == Left::synced ? synced_names_ : names_) {
        if (left == Left::synced && !stands(parent_of(path))) continue;
        const File& there = files_[static_cast<std::size_t>(file)];
        contents[path] = left == Left::all ? there.bytes : there.synced;
    }
    return contents;
}

}  // namespace lacquer::test
