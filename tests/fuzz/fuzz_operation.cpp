// Any bytes as an operation's file: head, functions, and its call in a step, planned and drawn.
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string>

#include "core/catalogue/markdown.h"
#include "core/finish/edits.h"
#include "core/render/renderer.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const auto catalogue =
        make_catalogue({{"odd", std::string(reinterpret_cast<const char*>(data), size), "odd.glsl"}});
    for (const Fault& fault : catalogue->faults) {
        if (fault.message.empty()) std::abort();
    }
    (void)catalogue_as_markdown(*catalogue, [](const Operation&) { return std::string(); });
    Finish finish = empty_finish();
    finish.frame_width = 33;
    finish.frame_height = 17;
    Step first;
    first.name = "first";
    first.formula = "vec4(uv, 0.5, 1)";
    Step second;
    second.name = "second";
    second.formula = "odd(first)";
    finish.coats[0].steps = {first, second};
    RenderRequest request;
    request.checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish), catalogue));
    request.steps = {"", "second"};
    static WorkerPool pool(1);
    Renderer renderer(pool);
    (void)renderer.render(request, Cancel());
    return 0;
}
