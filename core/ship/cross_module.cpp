// GLSL for Vulkan as SPIR-V, HLSL and MSL, by glslang and SPIRV-Cross.
#include <glslang/Public/ResourceLimits.h>
#include <glslang/Public/ShaderLang.h>
#include <glslang/SPIRV/GlslangToSpv.h>
#include <spirv_cross_c.h>

#include <cstdint>
#include <cstring>
#include <memory>
#include <vector>

#include "core/base/guarded.h"
#include "core/ship/cross_module.h"

namespace lacquer {

namespace {

// glslang counts who uses it; once is enough for as long as the module is there.
bool started() {
    static const bool done = glslang::InitializeProcess();
    return done;
}

// Where HLSL's three kinds of registers lie among Vulkan's bindings: constants at 0, textures from 1, samplers from 33.
constexpr unsigned first_texture = 1;
constexpr unsigned first_sampler = 33;

bool spirv_of(const std::string& text, ShaderStage of, bool is_hlsl, std::vector<std::uint32_t>& words,
              std::string& error) {
    if (!started()) {
        error = "the compiler did not start";
        return false;
    }
    const EShLanguage stage = of == ShaderStage::vertex ? EShLangVertex : EShLangFragment;
    glslang::TShader shader(stage);
    const char* source = text.c_str();
    shader.setStrings(&source, 1);
    shader.setEntryPoint("main");
    const auto language = is_hlsl ? glslang::EShSourceHlsl : glslang::EShSourceGlsl;
    shader.setEnvInput(language, stage, glslang::EShClientVulkan, 100);
    shader.setEnvClient(glslang::EShClientVulkan, glslang::EShTargetVulkan_1_0);
    shader.setEnvTarget(glslang::EShTargetSpv, glslang::EShTargetSpv_1_0);
    if (is_hlsl) {
        shader.setAutoMapBindings(true);
        shader.setShiftBinding(glslang::EResTexture, first_texture);
        shader.setShiftBinding(glslang::EResSampler, first_sampler);
    }
    const auto messages =
        static_cast<EShMessages>(EShMsgSpvRules | EShMsgVulkanRules | (is_hlsl ? EShMsgReadHlsl : EShMsgDefault));
    if (!shader.parse(GetDefaultResources(), is_hlsl ? 500 : 450, false, messages)) {
        error = shader.getInfoLog();
        return false;
    }
    glslang::TProgram program;
    program.addShader(&shader);
    if (!program.link(messages) || !program.mapIO()) {
        error = program.getInfoLog();
        return false;
    }
    glslang::SpvOptions options;
    options.disableOptimizer = true;
    glslang::GlslangToSpv(*program.getIntermediate(stage), words, &options);
    return true;
}

std::string bytes_of(const std::vector<std::uint32_t>& words) {
    std::string bytes(words.size() * sizeof(std::uint32_t), '\0');
    std::memcpy(bytes.data(), words.data(), bytes.size());
    return bytes;
}

struct Destroy {
    void operator()(spvc_context context) const { spvc_context_destroy(context); }
};
using Context = std::unique_ptr<std::remove_pointer_t<spvc_context>, Destroy>;

// Names stay as they are where the language allows them; constants at b0, each picture with its sampler at t0 and s0,
// t1 and s1 and so on, as its binding says.
bool hlsl_bindings(spvc_compiler compiler, std::size_t pictures) {
    spvc_hlsl_resource_binding block{};
    block.stage = SpvExecutionModelFragment;
    block.cbv.register_space = block.srv.register_space = block.sampler.register_space = 0;
    if (spvc_compiler_hlsl_add_resource_binding(compiler, &block) != SPVC_SUCCESS) return false;
    for (unsigned k = 0; k < pictures; ++k) {
        spvc_hlsl_resource_binding picture{};
        picture.stage = SpvExecutionModelFragment;
        picture.binding = 1 + k;
        picture.srv.register_binding = picture.sampler.register_binding = k;
        if (spvc_compiler_hlsl_add_resource_binding(compiler, &picture) != SPVC_SUCCESS) return false;
    }
    return true;
}

bool msl_bindings(spvc_compiler compiler, std::size_t pictures) {
    for (unsigned k = 0; k <= pictures; ++k) {
        spvc_msl_resource_binding binding{};
        spvc_msl_resource_binding_init(&binding);
        binding.stage = SpvExecutionModelFragment;
        binding.binding = k;
        binding.msl_buffer = 0;
        binding.msl_texture = binding.msl_sampler = k == 0 ? 0 : k - 1;
        if (spvc_compiler_msl_add_resource_binding(compiler, &binding) != SPVC_SUCCESS) return false;
    }
    return true;
}

bool crossed_to(const std::vector<std::uint32_t>& words, spvc_backend backend, std::string& text, std::string& error) {
    spvc_context made = nullptr;
    if (spvc_context_create(&made) != SPVC_SUCCESS) {
        error = "there is not enough memory";
        return false;
    }
    const Context context(made);
    const auto failed = [&] {
        error = spvc_context_get_last_error_string(context.get());
        return false;
    };
    spvc_parsed_ir ir = nullptr;
    spvc_compiler compiler = nullptr;
    spvc_compiler_options options = nullptr;
    spvc_resources resources = nullptr;
    const spvc_reflected_resource* pictures = nullptr;
    std::size_t count = 0;
    if (spvc_context_parse_spirv(context.get(), words.data(), words.size(), &ir) != SPVC_SUCCESS ||
        spvc_context_create_compiler(context.get(), backend, ir, SPVC_CAPTURE_MODE_TAKE_OWNERSHIP, &compiler) !=
            SPVC_SUCCESS ||
        spvc_compiler_create_compiler_options(compiler, &options) != SPVC_SUCCESS ||
        spvc_compiler_create_shader_resources(compiler, &resources) != SPVC_SUCCESS ||
        spvc_resources_get_resource_list_for_type(resources, SPVC_RESOURCE_TYPE_SAMPLED_IMAGE, &pictures, &count) !=
            SPVC_SUCCESS)
        return failed();
    const bool is_hlsl = backend == SPVC_BACKEND_HLSL;
    if (is_hlsl) {
        spvc_compiler_options_set_uint(options, SPVC_COMPILER_OPTION_HLSL_SHADER_MODEL, 50);
    } else {
        spvc_compiler_options_set_uint(options, SPVC_COMPILER_OPTION_MSL_VERSION, SPVC_MAKE_MSL_VERSION(2, 0, 0));
    }
    const char* written = nullptr;
    if (spvc_compiler_install_compiler_options(compiler, options) != SPVC_SUCCESS ||
        !(is_hlsl ? hlsl_bindings(compiler, count) : msl_bindings(compiler, count)) ||
        spvc_compiler_compile(compiler, &written) != SPVC_SUCCESS)
        return failed();
    text = written;
    return true;
}

bool cross(const std::string& glsl, ShaderStage stage, CrossedShader& crossed, std::string& error) {
    std::vector<std::uint32_t> words;
    if (!spirv_of(glsl, stage, false, words, error)) return false;
    crossed.spirv = bytes_of(words);
    return crossed_to(words, SPVC_BACKEND_HLSL, crossed.hlsl, error) &&
           crossed_to(words, SPVC_BACKEND_MSL, crossed.msl, error);
}

bool from_hlsl(const std::string& hlsl, std::string& spirv, std::string& error) {
    std::vector<std::uint32_t> words;
    if (!spirv_of(hlsl, ShaderStage::fragment, true, words, error)) return false;
    spirv = bytes_of(words);
    return true;
}

// Nothing that is thrown crosses the seam.
template <class Work>
bool whole(const Work& work, std::string& error) {
    const Result<bool> done = guarded([&]() -> Result<bool> { return work(); });
    if (!done) error = done.fault().message;
    return done && *done;
}

}  // namespace

}  // namespace lacquer

extern "C" bool lacquer_cross_shader(const std::string& glsl_450, lacquer::ShaderStage stage,
                                     lacquer::CrossedShader& crossed, std::string& error) noexcept {
    return lacquer::whole([&] { return lacquer::cross(glsl_450, stage, crossed, error); }, error);
}

extern "C" bool lacquer_spirv_from_hlsl(const std::string& hlsl, std::string& spirv, std::string& error) noexcept {
    return lacquer::whole([&] { return lacquer::from_hlsl(hlsl, spirv, error); }, error);
}
