#include "core/ship/shader_files.h"

namespace lacquer {

namespace {

// Behind the first line, which must stay the first.
std::string with_heading(const std::string& text, const std::string& heading) {
    const std::size_t end = text.find('\n') + 1;
    return text.substr(0, end) + heading + text.substr(end);
}

}  // namespace

std::string vertex_text(Dialect dialect) {
    const std::string corner = dialect == Dialect::vulkan_450 ? "gl_VertexIndex" : "gl_VertexID";
    const std::string version = dialect == Dialect::desktop_330 ? "#version 330 core\n"
                                : dialect == Dialect::es_300    ? "#version 300 es\n"
                                                                : "#version 450\n";
    return version +
           "// One triangle that covers the whole target: draw 3 vertices, without buffers.\n"
           "void main() {\n"
           "    gl_Position = vec4(" +
           corner + " == 1 ? 3.0 : -1.0, " + corner + " == 2 ? 3.0 : -1.0, 0.0, 1.0);\n}\n";
}

std::string shader_heading(const ShipMaterial& material, const ShippedPass& pass) {
    const bool exact = material.request.access == PictureAccess::exact;
    return "// " + comment_text(material.finish().name) + ": " + pass.stem + ", drawn at each " +
           std::string(pass_moment_name(pass.when)) + ". Pictures are read " +
           (exact ? "exactly as in the application" : "by the sampler's own filtering") +
           ".\n// What it reads and writes is told by manifest.json.\n";
}

namespace {

ShippedFile vertex_file(const ShipOutput& output, std::string bytes) {
    const std::string ending(output.ending == "frag" ? "vert" : output.ending);
    return {"shaders/" + std::string(output.id) + "/whole_frame." + ending, std::move(bytes)};
}

}  // namespace

ShippedFiles glsl_files(const ShipMaterial& material, const ShipOutput& output, Dialect dialect) {
    ShippedFiles files;
    for (const ShippedPass& pass : material.passes) {
        files.push_back({shader_path(output, pass),
                         with_heading(shipped_shader(material, pass, dialect).text, shader_heading(material, pass))});
    }
    files.push_back(vertex_file(output, vertex_text(dialect)));
    return files;
}

Result<ShippedFiles> crossed_files(const ShipMaterial& material, const ShipOutput& output,
                                   std::string CrossedShader::*language) {
    ShippedFiles files;
    for (const ShippedPass& pass : material.passes) {
        Result<CrossedShader> crossed =
            cross_shader(shipped_shader(material, pass, Dialect::vulkan_450).text, ShaderStage::fragment);
        if (!crossed) return crossed.fault();
        const bool is_text = language != &CrossedShader::spirv;
        files.push_back(
            {shader_path(output, pass), (is_text ? shader_heading(material, pass) : "") + (*crossed).*language});
    }
    Result<CrossedShader> vertex = cross_shader(vertex_text(Dialect::vulkan_450), ShaderStage::vertex);
    if (!vertex) return vertex.fault();
    files.push_back(vertex_file(output, (*vertex).*language));
    return files;
}

}  // namespace lacquer
