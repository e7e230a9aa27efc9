// What a power cut leaves: a disk that holds only what was synced, or also some of what was not.
#pragma once

#include <cstdint>
#include <functional>
#include <map>
#include <set>
#include <string>
#include <vector>

namespace lacquer::test {

/// Files by their paths.
using DiskContents = std::map<std::string, std::string>;

/// What may be there after the power went: names and bytes that were synced; all names, but of bytes only those that
/// were synced; everything.
enum class Left { synced, names, all };

/// A disk as the list of tests/power/unsynced.c tells of it, event by event.
class UnsyncedDisk {
public:
    /// What lay there before, folders among it, which all is synced.
    UnsyncedDisk(std::set<std::string> folders, const DiskContents& files);

    void take(const std::string& line);
    DiskContents after_power_cut(Left left) const;

private:
    struct File {
        std::string bytes;
        std::string synced;
    };
    using Names = std::map<std::string, int>;

    std::vector<File> files_;
    std::map<std::string, int> by_number_;  ///< as the system knows them
    Names names_;
    Names synced_names_;
    std::set<std::string> folders_;
    std::set<std::string> synced_folders_;
};

}  // namespace lacquer::test
