#include "core/base/module.h"

#include <dlfcn.h>

#include <filesystem>
#include <system_error>
#include <vector>

namespace lacquer {

namespace fs = std::filesystem;

std::string part_of_program(const std::string& file) {
    std::error_code code;
    const fs::path program = fs::read_symlink("/proc/self/exe", code).parent_path();
    std::vector<fs::path> places = {program, program / "../lib/lacquer"};
    Dl_info here{};
    if (dladdr(reinterpret_cast<const void*>(&part_of_program), &here) != 0 && here.dli_fname != nullptr) {
        const fs::path library = fs::path(here.dli_fname).parent_path();
        places.insert(places.end(), {library, library / "lacquer"});
    }
    for (const fs::path& place : places) {
        if (fs::exists(place / file, code)) return (place / file).string();
    }
    return (program / file).string();
}

Module::Module(const char* file) {
    handle_ = dlopen(part_of_program(file).c_str(), RTLD_NOW | RTLD_LOCAL);
    const char* why = handle_ == nullptr ? dlerror() : nullptr;
    if (why != nullptr) error_ = why;
}

void* Module::address(const char* name) {
    if (handle_ == nullptr) return nullptr;
    void* found = dlsym(handle_, name);
    if (found == nullptr) error_ = "it is of another version";
    return found;
}

}  // namespace lacquer
