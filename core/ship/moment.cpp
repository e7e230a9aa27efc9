#include "core/ship/moment.h"

#include <algorithm>
#include <optional>
#include <utility>

#include "core/finish/ground_pictures.h"
#include "core/finish/stops_table.h"
#include "core/lang/past.h"
#include "core/picture/sample.h"
#include "core/render/drop_pictures.h"

namespace lacquer {

MomentSource::MomentSource(const ShipMaterial& material, std::shared_ptr<const Tape> tape, WorkerPool& pool)
    : material_(material),
      tape_(tape != nullptr ? std::move(tape) : std::make_shared<const Tape>(material.finish().tape)),
      stores_(std::make_shared<RenderStores>()),
      renderer_(pool, std::nullopt, stores_),
      grounds_(pool, std::shared_ptr<PictureStore>(stores_, &stores_->pictures)),
      play_(std::make_shared<const Play>(material.request.checked, *tape_)) {}

Result<MomentPictures> MomentSource::pictures(const ShipMoment& moment, const Cancel& cancel) {
    RenderRequest request;
    request.checked = material_.request.checked;
    request.finish_path = material_.request.finish_path;
    request.time = moment.time;
    request.tape = tape_;
    request.frame_width = moment.width;
    request.frame_height = moment.height;
    request.steps = {""};
    Result<Frame> frame = renderer_.render(request, cancel);
    if (!frame) return frame.fault();
    MomentPictures made;
    if (!frame->steps.empty()) made.finished = std::move(frame->steps.front());
    if (request.checked->ticked.empty()) return made;
    Result<Checkpoint> state = renderer_.checkpoint(request, cancel);
    if (!state) return state.fault();
    made.ticks = std::move(state->state);
    for (const std::int64_t begin : flow_begins(material_.finish(), *tape_)) {
        if (begin <= made.ticks.tick) made.begin = begin;
    }
    return made;
}

Result<MomentInputs> MomentSource::inputs(const ShipMoment& moment, double since, double part, const Cancel& cancel) {
    MomentInputs inputs;
    for (auto& [name, value] : play_->values(moment.time)) inputs.values[name] = value;
    const auto width = static_cast<float>(moment.width);
    const auto height = static_cast<float>(moment.height);
    inputs.values["time"] = make_number(static_cast<float>(moment.time));
    inputs.values["frame_size"] = make_vec2(width, height);
    inputs.values["pixel_size"] = make_vec2(1.0F / width, 1.0F / height);
    inputs.values["aspect"] = make_number(width / height);
    inputs.values["tick"] = make_number(static_cast<float>(since));
    inputs.values["tick_length"] = make_number(static_cast<float>(1 / material_.finish().ticks.rate));
    inputs.values["tick_part"] = make_number(static_cast<float>(part));
    for (const ShippedPass& shipped : material_.passes) {
        for (const std::string& name : shipped.pass.grounds) {
            if (inputs.pictures.contains(name) || step_of_tick_picture(name)) continue;
            Result<PicturePtr> picture = ground(name, moment, cancel);
            if (!picture) return picture.fault();
            inputs.pictures[name] = std::move(*picture);
        }
    }
    return inputs;
}

Result<PicturePtr> MomentSource::ground(const std::string& name, const ShipMoment& moment, const Cancel& cancel) {
    const Finish& finish = material_.finish();
    const std::optional<NamedPicture> named = find_ground_picture(finish, name);
    if (!named) {
        const Ground* ground = find_ground(finish, name);
        const Stops* stops = ground != nullptr ? stops_of(*ground) : nullptr;
        return stops != nullptr ? std::make_shared<const Picture>(stops_table(*stops)) : PicturePtr();
    }
    GroundUse use;
    use.finish = &finish;
    use.finish_path = material_.request.finish_path;
    use.time = moment.time;
    use.width = moment.width;
    use.height = moment.height;
    use.play = play_;
    if (const auto layer = drop_layer(named->picture.layer); layer && named->ground->as<DropletsGround>() != nullptr) {
        use.of_drops[named->ground->name][*layer] = true;
    } else {
        add_layer(use.wanted, named->picture.layer);
    }
    Result<PicturePtr> picture = grounds_.picture(*named, use, cancel);
    // Those who ship write numbers.
    if (picture && *picture != nullptr) {
        if (std::optional<Picture> numbers = decoded(view_of(**picture)))
            return std::make_shared<const Picture>(std::move(*numbers));
    }
    if (picture || cancel.requested()) return picture;
    // As in the application: what is not there is black, a sprite clear.
    if (named->ground->as<SpriteGround>() == nullptr) return PicturePtr();
    Picture clear(1, 1, 4);
    std::fill(clear.data.begin(), clear.data.end(), 0.0F);
    return std::make_shared<const Picture>(std::move(clear));
}

}  // namespace lacquer
