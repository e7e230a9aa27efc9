#include "tests/support/temporary.h"

#include <spawn.h>
#include <sys/resource.h>
#include <sys/wait.h>
#include <unistd.h>

#include <array>
#include <catch2/catch.hpp>
#include <cstdio>
#include <cstdlib>
#include <fstream>
#include <sstream>

namespace lacquer::test {

namespace fs = std::filesystem;

TemporaryFolder::TemporaryFolder() {
    std::string pattern = (fs::temp_directory_path() / "lacquer-test-XXXXXX").string();
    path_ = mkdtemp(pattern.data());
}

TemporaryFolder::~TemporaryFolder() {
    std::error_code code;
    fs::permissions(path_, fs::perms::owner_all, code);
    fs::remove_all(path_, code);
}

std::string read_file(const std::string& path) {
    std::ifstream stream(path, std::ios::binary);
    std::ostringstream text;
    text << stream.rdbuf();
    return text.str();
}

void write_file(const std::string& path, std::string_view text) {
    std::ofstream stream(path, std::ios::binary);
    stream.write(text.data(), static_cast<std::streamsize>(text.size()));
}

std::string program_folder() { return fs::read_symlink("/proc/self/exe").parent_path().string(); }

CommandResult run_command(const std::string& command) {
    CommandResult result;
    FILE* pipe = popen((command + " 2>&1").c_str(), "r");
    std::array<char, 4096> block{};
    while (const std::size_t count = std::fread(block.data(), 1, block.size(), pipe))
        result.output.append(block.data(), count);
    const int status = pclose(pipe);
    result.code = WIFEXITED(status) ? WEXITSTATUS(status) : -1;
    return result;
}

double peak_megabytes(const std::string& program, const std::vector<std::string>& arguments) {
    std::vector<char*> words = {const_cast<char*>(program.c_str())};
    for (const std::string& argument : arguments) words.push_back(const_cast<char*>(argument.c_str()));
    words.push_back(nullptr);
    pid_t child = 0;
    REQUIRE(posix_spawn(&child, program.c_str(), nullptr, nullptr, words.data(), environ) == 0);
    int status = 0;
    rusage used{};
    REQUIRE(wait4(child, &status, 0, &used) == child);
    REQUIRE(status == 0);
    return static_cast<double>(used.ru_maxrss) * 1024 / 1e6;
}

}  // namespace lacquer::test
