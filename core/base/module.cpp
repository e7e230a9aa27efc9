#include "core/base/module.h"

#include <dlfcn.h>

#include <filesystem>
#include <system_error>

namespace lacquer {

namespace fs = std::filesystem;

Module::Module(const char* file) {
    std::error_code code;
    const fs::path folder = fs::read_symlink("/proc/self/exe", code).parent_path();
    for (const fs::path& place : {folder, folder / "../lib/lacquer"}) {
        handle_ = dlopen((place / file).c_str(), RTLD_NOW | RTLD_LOCAL);
        if (handle_ != nullptr) {
            error_.clear();
            return;
        }
        const char* why = dlerror();
        if (error_.empty() && why != nullptr) error_ = why;
    }
}

void* Module::address(const char* name) {
    if (handle_ == nullptr) return nullptr;
    void* found = dlsym(handle_, name);
    if (found == nullptr) error_ = "it is of another version";
    return found;
}

}  // namespace lacquer
