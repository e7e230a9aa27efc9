#include "bench/material.h"

#include <cstdlib>
#include <filesystem>

#include "core/base/hash.h"
#include "core/finish/edits.h"
#include "core/finish/file.h"
#include "core/picture/files.h"

namespace lacquer::bench {

RenderRequest demo_request(double time) {
    const std::string path = std::string(LACQUER_DEMO) + "/finishes/squall-strike.lacquer";
    Result<OpenedFinish> opened = load_finish(path);
    if (!opened) std::abort();
    RenderRequest request = request_for(opened->finish);
    request.finish_path = path;
    request.time = time;
    return request;
}

Finish finish_of(const std::vector<std::pair<std::string, std::string>>& steps) {
    Finish finish = empty_finish();
    finish.frame_width = 1920;
    finish.frame_height = 1080;
    for (const auto& [name, formula] : steps) {
        Step step;
        step.name = name;
        step.formula = formula;
        finish.coats[0].steps.push_back(step);
    }
    return finish;
}

RenderRequest request_for(const Finish& finish) {
    RenderRequest request;
    request.checked = std::make_shared<const CheckedFinish>(check_finish(std::make_shared<const Finish>(finish)));
    for (const CheckedStep& step : request.checked->steps) {
        if (step.fault) std::abort();
    }
    request.steps = {""};
    return request;
}

void add_scene(Finish& finish, int width, int height) {
    const std::filesystem::path path =
        std::filesystem::temp_directory_path() /
        ("lacquer-bench-opaque-" + std::to_string(width) + "x" + std::to_string(height) + ".png");
    if (!std::filesystem::exists(path)) {
        Image8 image{width, height, {}};
        image.data.resize(static_cast<std::size_t>(width) * static_cast<std::size_t>(height) * 4);
        for (std::size_t i = 0; i < image.data.size(); ++i) {
            const std::uint32_t noise = pcg(static_cast<std::uint32_t>(i / 64 * 4 + i % 4)) >> 24U;
            // Opaque, as most grounds are: what is written by hand does not weigh colours by opacity.
            image.data[i] = i % 4 == 3 ? 255 : static_cast<std::uint8_t>(noise);
        }
        if (!write_png(path.string(), image)) std::abort();
    }
    finish.grounds.push_back({"scene", PictureGround{path.string()}});
}

void add_dial(Finish& finish, const std::string& name, double value) {
    Dial dial;
    dial.name = name;
    dial.value = {value, 0, 0};
    finish.dials.push_back(dial);
}

}  // namespace lacquer::bench
