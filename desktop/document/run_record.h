// What this program is at, in a small file that outlives it: whatever ends the program, the file tells what it did.
#pragma once

#include <filesystem>
#include <memory>
#include <optional>
#include <string>
#include <string_view>

namespace lacquer {

/// A page of memory that is also a file. It is written by plain stores, so that a frame costs nothing, and the system
/// keeps it even if the program is killed; ended as it should, the program takes the file away. Safe from any thread.
class RunRecord {
public:
    /// Without a file where the folder cannot be written.
    explicit RunRecord(const std::filesystem::path& folder);
    ~RunRecord();
    RunRecord(const RunRecord&) = delete;
    RunRecord& operator=(const RunRecord&) = delete;

    /// Says what is being done, until what it gives is let go of.
    [[nodiscard]] std::shared_ptr<void> doing(std::string_view words);
    /// Says what was done last.
    void did(std::string_view words);

private:
    class Page;
    std::shared_ptr<Page> page_;
};

/// What a Lacquer has left that ended without being asked to: the newest; the files of all of them go. From any thread.
std::optional<std::string> take_ended_run(const std::filesystem::path& folder);

/// What it was doing, in one line: the lines after "doing:".
std::string was_doing(std::string_view record);

}  // namespace lacquer
