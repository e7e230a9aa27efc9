// Passes that the graphics driver draws.
#include <span>
#include <utility>

#include "core/render/frame_run.h"

namespace lacquer {

// Small pictures of many steps would be many shaders, each drawn once.
bool FrameRun::draws_by_shaders() const { return tools_.shaders.runner != nullptr && !request_.small_grounds; }

bool FrameRun::is_refused(const StructuralHash& key) const {
    return tools_.shaders.refused.contains(key) || too_large_.contains(key);
}

Result<Done> FrameRun::draw_by_shaders(const Pass& pass, const StructuralHash& key, std::vector<Picture>& outputs) {
    std::size_t first = 0;
    const auto shaders = tools_.stores.programs.shaders(pass, key);
    for (const Shader& shader : *shaders) {
        const std::size_t count = shader.outputs.size();
        const ShaderInputs inputs = shader_inputs(pass, shader);
        auto done = tools_.shaders.runner->draw(shader, inputs, std::span(outputs).subspan(first, count));
        if (!done) return done;
        first += count;
        if (cancel_.requested()) {
            whole_ = false;
            return Done{};
        }
    }
    return Done{};
}

// What a pass stores, left with the driver. False where this processor has to draw it.
bool FrameRun::store_by_shaders(const Pass& pass, const StructuralHash& key) {
    if (is_refused(key)) return false;
    const auto shaders = tools_.stores.programs.shaders(pass, key);
    if (shaders->size() != 1) return false;
    const Shader& shader = shaders->front();
    std::vector<int> channels;
    for (const std::string& name : pass.outputs) channels.push_back(resource_of(pass, name).channels);
    const ShaderInputs inputs = shader_inputs(pass, shader);
    Result<std::vector<GpuPicturePtr>> kept = tools_.shaders.runner->draw_and_keep(shader, inputs, channels);
    if (!kept) {
        give_up_shader(pass, key, kept.fault());
        return false;
    }
    for (std::size_t k = 0; k < pass.outputs.size(); ++k) pictures_.store(pass.outputs[k], std::move((*kept)[k]));
    whole_ = whole_ && !cancel_.requested();
    return true;
}

ShaderInputs FrameRun::shader_inputs(const Pass& pass, const Shader& shader) {
    ShaderRunner& driver = *tools_.shaders.runner;
    ShaderInputs inputs;
    inputs.width = scaled_side(size_.width, pass.scale);
    inputs.height = scaled_side(size_.height, pass.scale);
    for (const ShaderUniform& uniform : shader.uniforms) {
        const bool size = uniform.source == "lq_drawn_size";
        inputs.uniforms.push_back(size ? make_vec2(static_cast<float>(inputs.width), static_cast<float>(inputs.height))
                                       : uniform_value(uniform.source));
    }
    for (const ShaderPicture& picture : shader.pictures) {
        const std::string& name = picture.source;
        GpuPicturePtr stays = pictures_.with_driver(pass, name, driver);
        inputs.pictures.push_back(stays != nullptr ? PictureView() : pictures_.view(pass, name, false, &driver));
        inputs.kept.push_back(std::move(stays));
        inputs.lasting.push_back(pictures_.ground(name));
    }
    return inputs;
}

void FrameRun::give_up_shader(const Pass& pass, const StructuralHash& key, Fault notice) {
    if (notice.id == "gpu.shader" || notice.id == "gpu.size") {
        // One that the driver does not take says nothing of the others, nor a size of other sizes.
        (notice.id == "gpu.shader" ? tools_.shaders.refused : too_large_).insert(key);
        notice.message += "; this processor draws '" + pass.name + "'";
    } else {
        // What it keeps is lost with it, so it is taken over first where that can still be.
        lost_ = !pictures_.fetch_all(*tools_.shaders.runner) || lost_;
        tools_.shaders.runner.reset();
        notice.message += "; this processor draws from here on";
    }
    notice.severity = Severity::warning;
    frame_.notices.push_back(std::move(notice));
}

}  // namespace lacquer
