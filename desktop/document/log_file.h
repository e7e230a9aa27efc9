// What happened, line by line, in a file that cannot grow beyond a bound: for a report of something that went wrong.
#pragma once

#include <QString>
#include <filesystem>
#include <memory>

namespace lacquer {

class Disk;

class LogFile {
public:
    /// Of one file; when it is full it becomes the old one, and the old one before it goes.
    static constexpr std::size_t most_bytes = std::size_t{512} * 1024;

    /// Written through `disk`. Where the folder cannot be written, nothing is.
    LogFile(const std::filesystem::path& folder, Disk& disk);

    /// Adds a line, with the time of now.
    void line(const QString& words);

private:
    class Sink;
    std::shared_ptr<Sink> sink_;
    Disk& disk_;
};

}  // namespace lacquer
