// Any bytes as a finish: read, check, plan, draw small, write, read again.
#include <algorithm>
#include <cstddef>
#include <cstdint>
#include <cstdlib>
#include <string_view>

#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/finish/overlay.h"
#include "core/finish/variants.h"
#include "core/render/renderer.h"

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    using namespace lacquer;
    const std::string_view text(reinterpret_cast<const char*>(data), size);
    const Result<OpenedFinish> opened = finish_from_text(text, "fuzz");
    if (!opened) return 0;
    const std::string written = finish_to_text(opened->finish);
    const Result<OpenedFinish> again = finish_from_text(written, "fuzz");
    if (!again || finish_to_text(again->finish) != written) std::abort();

    // Each variant on and off again, and under other names of what it changes.
    Finish finish = opened->finish;
    for (std::size_t i = 0; i < std::min<std::size_t>(finish.variants.size(), 3); ++i) {
        const std::string name = opened->finish.variants[i].name;
        finish = switch_variant(std::move(finish), name);
        const Overlay between = overlay_between(opened->finish, finish);
        (void)entries_of(between, finish);
        (void)with_whole(finish, whole_overlay(opened->finish));
        (void)with_overlay(opened->finish, renamed_in(between, "radius", "reach"));
    }
    finish = switch_variant(std::move(finish), "");
    if (!finish.coats.empty() && !finish.coats.front().steps.empty())
        (void)rename(finish, finish.coats.front().steps.front().name, "renamed");

    static WorkerPool pool(1);
    static Renderer renderer(pool);
    RenderRequest request;
    request.checked =
        std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(opened->finish)));
    request.finish_path = "/nonexistent/fuzz.lacquer";
    // Few ticks, of a small frame.
    request.time = 0.1;
    request.frame_width = 40;
    request.frame_height = 24;
    request.width = 5;
    request.height = 3;
    request.steps = {""};
    for (const CheckedStep& step : request.checked->steps) request.steps.push_back(step.name);
    (void)renderer.render(request, Cancel());
    return 0;
}
