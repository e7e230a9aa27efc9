// Folders and files that vanish with the test.
#pragma once

#include <filesystem>
#include <string>
#include <string_view>
#include <vector>

namespace lacquer::test {

class TemporaryFolder {
public:
    TemporaryFolder();
    ~TemporaryFolder();
    TemporaryFolder(const TemporaryFolder&) = delete;
    TemporaryFolder& operator=(const TemporaryFolder&) = delete;
    std::string file(const std::string& name) const { return (path_ / name).string(); }
    const std::filesystem::path& path() const { return path_; }

private:
    std::filesystem::path path_;
};

std::string read_file(const std::string& path);
void write_file(const std::string& path, std::string_view text);

/// The folder of the test program: lacquer-cli lies beside it.
std::string program_folder();

/// Runs a shell command; its output (both streams) and exit code.
struct CommandResult {
    int code = 0;
    std::string output;
};
CommandResult run_command(const std::string& command);
/// Runs lacquer-cli with these words; `environment` holds settings such as NAME=value.
CommandResult run_cli(const std::string& words, const std::string& environment = "");

/// Runs a program, which must end well; the most memory that it held at a time, in megabytes.
double peak_megabytes(const std::string& program, const std::vector<std::string>& arguments);

}  // namespace lacquer::test
