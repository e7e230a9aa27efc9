// What draws the shaders of a set on this machine.
#include <algorithm>
#include <cstring>

#include "core/gpu/vulkan_runner.h"
#include "core/ship/cross.h"
#include "core/ship/shader_files.h"
#include "core/ship/verify.h"

namespace lacquer {

namespace {

Result<std::string> file_of(const ShippedFiles& files, const std::string& path) {
    const auto found =
        std::find_if(files.begin(), files.end(), [&](const ShippedFile& file) { return file.path == path; });
    if (found != files.end()) return found->bytes;
    return Fault{"ship.unrun", "the set has no " + path, "ship this target, too", {}, Severity::fault};
}

Value value_of(const PassDrawing& drawing, const std::string& source) {
    const auto found = drawing.values.find(source);
    return found != drawing.values.end() ? found->second : Value{};
}

PictureView picture_of(const PassDrawing& drawing, const std::string& source) {
    const auto found = drawing.pictures.find(source);
    return found != drawing.pictures.end() ? found->second : PictureView{};
}

Result<ShippedDrawer> by_gl(const ShipMaterial& material, const ShipOutput& output, const ShippedFiles& files,
                            Dialect dialect) {
    Result<std::unique_ptr<ShaderRunner>> opened = ShaderRunner::open();
    if (!opened) return opened.fault();
    std::shared_ptr<ShaderRunner> runner = std::move(*opened);
    const auto draw = [runner, &material, output, files, dialect](const PassDrawing& drawing) -> Result<Picture> {
        Shader shader = shipped_shader(material, drawing.pass, dialect);
        Result<std::string> text = file_of(files, shader_path(output, drawing.pass));
        if (!text) return text.fault();
        shader.text = std::move(*text);
        ShaderInputs inputs;
        inputs.width = drawing.width;
        inputs.height = drawing.height;
        inputs.filters = material.request.access == PictureAccess::native;
        for (const ShaderUniform& uniform : shader.uniforms)
            inputs.uniforms.push_back(value_of(drawing, uniform.source));
        for (const ShaderPicture& picture : shader.pictures)
            inputs.pictures.push_back(picture_of(drawing, picture.source));
        std::vector<Picture> outputs = {Picture(drawing.width, drawing.height, 4)};
        if (const Result<Done> done = runner->draw(shader, inputs, outputs); !done) return done.fault();
        return std::move(outputs.front());
    };
    return ShippedDrawer{runner->name(), draw};
}

enum class VulkanText { spirv, glsl, hlsl };

Result<std::string> spirv_of(const std::string& bytes, VulkanText text) {
    if (text == VulkanText::spirv) return bytes;
    if (text == VulkanText::hlsl) return spirv_from_hlsl(bytes);
    Result<CrossedShader> crossed = cross_shader(bytes, ShaderStage::fragment);
    return crossed ? Result<std::string>(std::move(crossed->spirv)) : Result<std::string>(crossed.fault());
}

std::vector<ShaderBinding> bindings_of(const Shader& shader, VulkanText text) {
    std::vector<ShaderBinding> bindings;
    if (!shader.uniforms.empty()) bindings.push_back({BindingKind::block, 0, 0});
    for (std::size_t k = 0; k < shader.pictures.size(); ++k) {
        const auto number = static_cast<std::uint32_t>(k);
        if (text != VulkanText::hlsl) {
            bindings.push_back({BindingKind::picture_with_sampler, 1 + number, k});
            continue;
        }
        bindings.push_back({BindingKind::picture, hlsl_first_texture + number, k});
        bindings.push_back({BindingKind::sampler, hlsl_first_sampler + number, k});
    }
    return bindings;
}

Result<ShippedDrawer> by_vulkan(const ShipMaterial& material, const ShipOutput& output, const ShippedFiles& files,
                                VulkanText text) {
    Result<std::unique_ptr<VulkanRunner>> opened = VulkanRunner::open();
    if (!opened) return opened.fault();
    std::shared_ptr<VulkanRunner> runner = std::move(*opened);
    const Result<CrossedShader> vertex = cross_shader(vertex_text(Dialect::vulkan_450), ShaderStage::vertex);
    if (!vertex) return vertex.fault();
    const auto known = std::make_shared<std::map<std::string, std::string>>();
    const auto draw = [runner, &material, output, files, text, known,
                       vertex = vertex->spirv](const PassDrawing& drawing) -> Result<Picture> {
        const Shader shader = shipped_shader(material, drawing.pass, Dialect::vulkan_450);
        const std::string path = shader_path(output, drawing.pass);
        if (!known->contains(path)) {
            const Result<std::string> bytes = file_of(files, path);
            if (!bytes) return bytes.fault();
            Result<std::string> spirv = spirv_of(*bytes, text);
            if (!spirv) return spirv.fault();
            (*known)[path] = std::move(*spirv);
        }
        SpirvDrawing asked;
        asked.vertex = vertex;
        asked.fragment = known->at(path);
        asked.bindings = bindings_of(shader, text);
        asked.block = block_bytes(shader, drawing);
        for (const ShaderPicture& picture : shader.pictures)
            asked.pictures.push_back(picture_of(drawing, picture.source));
        asked.filters = material.request.access == PictureAccess::native;
        asked.width = drawing.width;
        asked.height = drawing.height;
        return runner->draw(asked);
    };
    return ShippedDrawer{runner->name(), draw};
}

}  // namespace

std::vector<std::uint8_t> block_bytes(const Shader& shader, const PassDrawing& drawing) {
    std::vector<std::uint8_t> bytes(static_cast<std::size_t>(shader.block_size), 0);
    for (const ShaderUniform& uniform : shader.uniforms) {
        const Value value = value_of(drawing, uniform.source);
        std::uint8_t* at = bytes.data() + uniform.offset;
        const auto size = static_cast<std::size_t>(width_of(uniform.type)) * 4;
        if (scalar_of(uniform.type) == Scalar::real) {
            std::memcpy(at, value.parts.data(), size);
        } else {
            std::memcpy(at, value.wholes.data(), size);
        }
    }
    return bytes;
}

Result<ShippedDrawer> drawer_of(const ShipMaterial& material, const ShipOutput& output, const ShippedFiles& files) {
    if (output.id == "glsl330") return by_gl(material, output, files, Dialect::desktop_330);
    if (output.id == "es300") return by_gl(material, output, files, Dialect::es_300);
    if (output.id == "glsl450") return by_vulkan(material, output, files, VulkanText::glsl);
    if (output.id == "spirv") return by_vulkan(material, output, files, VulkanText::spirv);
    if (output.id == "hlsl") return by_vulkan(material, output, files, VulkanText::hlsl);
    return Fault{"ship.unrun", "nothing on this machine runs " + std::string(output.title), "", {}, Severity::warning};
}

}  // namespace lacquer
