#include "desktop/document/state_files.h"

#include <pwd.h>
#include <unistd.h>

#include <cstdlib>
#include <fstream>
#include <functional>
#include <utility>

namespace lacquer {

namespace {

namespace fs = std::filesystem;

// A process's program and state as Linux tells them, such as "lacquer" and 'S'; empty and 'X' if it is gone.
std::pair<std::string, char> told_of(const std::string& process) {
    std::ifstream file("/proc/" + process + "/stat");
    std::string line;
    std::getline(file, line);
    const std::size_t open = line.find('(');
    const std::size_t close = line.rfind(')');
    if (open == std::string::npos || close == std::string::npos || close + 2 >= line.size()) return {{}, 'X'};
    return {line.substr(open + 1, close - open - 1), line[close + 2]};
}

fs::path home() {
    if (const char* set = std::getenv("HOME"); set != nullptr && *set != '\0') return set;
    const passwd* user = getpwuid(getuid());
    return user != nullptr && user->pw_dir != nullptr ? user->pw_dir : "";
}

}  // namespace

fs::path state_folder(const char* name) {
    const char* state = std::getenv("XDG_STATE_HOME");
    if (state != nullptr && *state != '\0') return fs::path(state) / "lacquer" / name;
    const fs::path own = home();
    return own.empty() ? fs::path() : own / ".local/state/lacquer" / name;
}

std::string own_file_name(const std::string& path, const char* ending) {
    return std::to_string(getpid()) + "-" + std::to_string(std::hash<std::string>{}(path)) + ending;
}

bool is_running(const std::string& file_name) {
    const auto [program, state] = told_of(file_name.substr(0, file_name.find('-')));
    return program == told_of("self").first && state != 'Z' && state != 'X';
}

}  // namespace lacquer
