#include "core/batch/write_frame.h"

#include <optional>
#include <vector>

#include "core/finish/edits.h"
#include "core/finish/ground_pictures.h"
#include "core/render/layer_view.h"

namespace lacquer {

namespace {

// A ground's numbers, or a step's, as they are written: numbers and places are data, and so are depth and its like.
bool is_data(const DrawnStep& drawn, const Finish& finish) {
    if (width_of(drawn.type) < 3) return true;
    if (find_step(finish, drawn.name) != nullptr) return false;
    const auto ground = find_ground_picture(finish, drawn.name);
    return ground && (is_data(*ground->ground) || ground->picture.layer != GroundLayer::colour);
}

}  // namespace

Result<Done> write_frame(const std::string& path, const Frame& frame, const Finish& finish,
                         const FrameWriting& writing) {
    if (frame.steps.empty())
        return Fault{
            "batch.empty", "there is nothing to draw", "the finish has no step and no ground", {}, Severity::fault};
    std::vector<Picture> views(frame.steps.size());
    std::vector<WrittenLayer> layers;
    for (std::size_t i = 0; i < frame.steps.size(); ++i) {
        const DrawnStep& drawn = frame.steps[i];
        WrittenLayer layer{drawn.name, &drawn.picture, writing.data || is_data(drawn, finish)};
        // As the stage shows them, unless it is the numbers that are wanted.
        const std::optional<GroundLayer> shown = layer_to_view(finish, drawn.name);
        if (shown && !writing.data && !holds_floats(path)) {
            views[i] = layer_view(drawn.picture, *shown);
            layer = {drawn.name, &views[i], false};
        }
        layers.push_back(layer);
    }
    return write_picture(path, layers, writing.options);
}

}  // namespace lacquer
