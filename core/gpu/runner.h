// Drawing shaders without a window.
#pragma once

#include <memory>
#include <span>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/gpu/glsl.h"
#include "core/lang/value.h"
#include "core/picture/sample.h"

namespace lacquer {

/// What a shader is drawn with.
struct ShaderInputs {
    int width = 1;  ///< of the drawn grid, pixels
    int height = 1;
    std::vector<Value> uniforms;        ///< in the order of the shader's
    std::vector<PictureView> pictures;  ///< in the order of the shader's
    /// For each of `pictures` what it is a view of, where that stays between drawings, else null: while somebody holds
    /// it, it is handed to the driver only once. May be empty.
    std::vector<PicturePtr> lasting;
};

/// An offscreen GL context in a thread of its own. Calls come back when the drawing is done; one at a time.
class ShaderRunner {
public:
    /// Opens GL 3.3 on a surfaceless EGL display. Fault `gpu.none` if there is none.
    static Result<std::unique_ptr<ShaderRunner>> open();
    ~ShaderRunner();
    ShaderRunner(const ShaderRunner&) = delete;
    ShaderRunner& operator=(const ShaderRunner&) = delete;

    /// What draws, in the driver's words.
    const std::string& name() const;
    /// True where a graphics processor draws and not this one pretending to be one.
    bool is_hardware() const;

    /// Draws the shader; output k goes to `outputs[k]`, of the grid's size, first channels first. Faults: `gpu.shader`
    /// (with the driver's words), `gpu.lost`.
    Result<Done> draw(const Shader& shader, const ShaderInputs& inputs, std::span<Picture> outputs);

private:
    struct Thread;
    explicit ShaderRunner(std::unique_ptr<Thread> thread);
    std::unique_ptr<Thread> thread_;
};

}  // namespace lacquer
