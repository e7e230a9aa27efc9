// Any bytes as the formulas of two steps: planned, compiled, drawn by strips; shaders are written.
#include <cstddef>
#include <cstdint>
#include <string>

#include "core/finish/edits.h"
#include "core/gpu/glsl.h"
#include "core/render/renderer.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string text(reinterpret_cast<const char*>(data), size);
    const std::size_t cut = text.find('\0');
    Finish finish = empty_finish();
    finish.frame_width = 21;
    finish.frame_height = 5;
    finish.grounds.push_back({"dusk", GradientGround{}});
    Step first;
    first.name = "rim";
    first.formula = text.substr(0, cut);
    Step second;
    second.name = "last";
    second.formula = cut == std::string::npos ? "rim" : text.substr(cut + 1);
    finish.coats[0].steps = {first, second};
    RenderRequest request;
    request.checked = std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish)));
    request.steps = {"rim", "last"};
    for (const Pass& pass : plan_for(*request.checked, request.steps).passes) {
        Pass part = pass;
        part.outputs.resize(std::min(part.outputs.size(), max_shader_outputs));
        (void)emit_glsl(part, Dialect::es_300);
    }
    static WorkerPool pool(1);
    Renderer renderer(pool);
    (void)renderer.render(request, Cancel());
    return 0;
}
