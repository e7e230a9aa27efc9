#include "core/ship/cross.h"

#include <dlfcn.h>

#include <filesystem>
#include <system_error>

namespace lacquer {

namespace {

namespace fs = std::filesystem;

struct CrossModule {
    CrossShaderFunction cross = nullptr;
    SpirvFromHlslFunction from_hlsl = nullptr;
    std::string error;
    bool whole() const { return cross != nullptr && from_hlsl != nullptr; }
};

CrossModule load_cross_module() {
    std::error_code code;
    const fs::path folder = fs::read_symlink("/proc/self/exe", code).parent_path();
    CrossModule module;
    for (const fs::path& place : {folder, folder / "../lib/lacquer"}) {
        void* handle = dlopen((place / cross_module_file).c_str(), RTLD_NOW | RTLD_LOCAL);
        if (handle == nullptr) {
            const char* why = dlerror();
            if (module.error.empty() && why != nullptr) module.error = why;
            continue;
        }
        module.cross = reinterpret_cast<CrossShaderFunction>(dlsym(handle, "lacquer_cross_shader"));
        module.from_hlsl = reinterpret_cast<SpirvFromHlslFunction>(dlsym(handle, "lacquer_spirv_from_hlsl"));
        if (module.whole()) return module;
        module = CrossModule{.error = "it is of another version"};
    }
    return module;
}

const CrossModule& cross_module() {
    static const CrossModule module = load_cross_module();
    return module;
}

Fault no_module() {
    return {"ship.module",
            "the part that carries shaders over did not load: " + cross_module().error,
            "install Lacquer again",
            {},
            Severity::fault};
}

Fault not_crossed(const std::string& error) {
    return {"ship.crossing", "a shader could not be carried over: " + error, "ship GLSL only", {}, Severity::fault};
}

}  // namespace

Result<CrossedShader> cross_shader(const std::string& glsl_450, ShaderStage stage) {
    if (!cross_module().whole()) return no_module();
    CrossedShader crossed;
    std::string error;
    if (!cross_module().cross(glsl_450, stage, crossed, error)) return not_crossed(error);
    return crossed;
}

Result<std::string> spirv_from_hlsl(const std::string& hlsl) {
    if (!cross_module().whole()) return no_module();
    std::string spirv;
    std::string error;
    if (!cross_module().from_hlsl(hlsl, spirv, error)) return not_crossed(error);
    return spirv;
}

}  // namespace lacquer
