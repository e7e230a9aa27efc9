#include "core/ship/cross.h"

#include "core/base/module.h"

namespace lacquer {

namespace {

struct CrossModule {
    CrossShaderFunction cross = nullptr;
    SpirvFromHlslFunction from_hlsl = nullptr;
    std::string error;
};

CrossModule load_cross_module() {
    Module module(cross_module_file);
    CrossModule loaded;
    loaded.cross = module.function<CrossShaderFunction>("lacquer_cross_shader");
    loaded.from_hlsl = module.function<SpirvFromHlslFunction>("lacquer_spirv_from_hlsl");
    loaded.error = module.error();
    return loaded;
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
    if (!cross_module().error.empty()) return no_module();
    CrossedShader crossed;
    std::string error;
    if (!cross_module().cross(glsl_450, stage, crossed, error)) return not_crossed(error);
    return crossed;
}

Result<std::string> spirv_from_hlsl(const std::string& hlsl) {
    if (!cross_module().error.empty()) return no_module();
    std::string spirv;
    std::string error;
    if (!cross_module().from_hlsl(hlsl, spirv, error)) return not_crossed(error);
    return spirv;
}

}  // namespace lacquer
