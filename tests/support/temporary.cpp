#include "tests/support/temporary.h"

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

CommandResult run_cli(const std::string& words, const std::string& environment) {
    return run_command(environment + " '" + program_folder() + "/lacquer-cli' " + words);
}

double peak_megabytes(const std::string& program, const std::vector<std::string>& arguments) {
    // Asked for from here, the answer would hold the size of this very program, from before the other took its place.
    std::string command =
        "python3 -c \"import resource, subprocess, sys; "
        "subprocess.run(sys.argv[1:], stdout=subprocess.DEVNULL, check=True); "
        "print(resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss)\" " +
        program;
    for (const std::string& argument : arguments) command += " '" + argument + "'";
    const CommandResult result = run_command(command);
    INFO(result.output);
    REQUIRE(result.code == 0);
    return std::stod(result.output) * 1024 / 1e6;
}

}  // namespace lacquer::test
