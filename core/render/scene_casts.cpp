#include "core/render/scene_casts.h"

#include <algorithm>
#include <utility>

namespace lacquer {

namespace {

// The stage and small pictures, each of two moments.
constexpr std::size_t most_casts = 4;

bool has(const SceneLayerSet& set, GroundLayer layer) {
    switch (layer) {
        case GroundLayer::colour:
            return set.colour;
        case GroundLayer::depth:
            return set.depth;
        case GroundLayer::normal:
            return set.normal;
        case GroundLayer::position:
            return set.position;
        case GroundLayer::id:
        case GroundLayer::marks:
        case GroundLayer::part:
        case GroundLayer::share:
        case GroundLayer::age:
        case GroundLayer::seed:
        case GroundLayer::place:
        case GroundLayer::push:
            break;
    }
    return set.id;
}

}  // namespace

void add_layer(SceneLayerSet& set, GroundLayer layer) {
    switch (layer) {
        case GroundLayer::colour:
            set.colour = true;
            return;
        case GroundLayer::depth:
            set.depth = true;
            return;
        case GroundLayer::normal:
            set.normal = true;
            return;
        case GroundLayer::position:
            set.position = true;
            return;
        case GroundLayer::id:
        case GroundLayer::marks:
            set.id = true;
            return;
        case GroundLayer::part:
        case GroundLayer::share:
        case GroundLayer::age:
        case GroundLayer::seed:
        case GroundLayer::place:
        case GroundLayer::push:
            return;
    }
}

// Its pictures are kept to be written over, those that nobody else holds.
void SceneCasts::drop_oldest_cast() {
    Cast& oldest = casts_.back();
    const auto take = [&](GroundLayer layer, Picture& to) {
        const auto found = oldest.pictures.find(layer);
        if (found != oldest.pictures.end() && found->second.use_count() == 1) to = std::move(*found->second);
    };
    take(GroundLayer::colour, old_cast_.colour);
    take(GroundLayer::depth, old_cast_.depth);
    take(GroundLayer::normal, old_cast_.normal);
    take(GroundLayer::position, old_cast_.position);
    take(GroundLayer::id, old_cast_.id);
    casts_.pop_back();
}

Result<PicturePtr> SceneCasts::cast(const SceneView& view, GroundLayer layer, const SceneMoment& at,
                                    const Cancel& cancel) {
    const ScenePlace* place = find_place(view.place);
    if (place == nullptr)
        return Fault{"ground.no-scene", "there is no such place", "choose another", {}, Severity::fault};
    auto found = std::find_if(casts_.begin(), casts_.end(), [&](const Cast& cast) {
        return cast.time == at.time && cast.width == at.width && cast.height == at.height && cast.view == view;
    });
    if (found == casts_.end()) {
        casts_.push_front({view, at.time, at.width, at.height, {}});
        if (casts_.size() > most_casts) drop_oldest_cast();
        found = casts_.begin();
    }
    casts_.splice(casts_.begin(), casts_, found);
    Cast& own = casts_.front();
    if (!own.pictures.contains(layer)) {
        SceneLayerSet wanted = at.wanted;
        add_layer(wanted, layer);
        SceneLayers cast_layers =
            cast_world(place->world(view.hour, at.time), camera_at(view.camera, view.path, at.time), at.width,
                       at.height, wanted, pool_, cancel, std::exchange(old_cast_, SceneLayers()));
        if (cancel.requested()) return cancelled_fault();
        const auto keep = [&](GroundLayer as, Picture& picture) {
            if (has(wanted, as)) own.pictures[as] = std::make_shared<Picture>(std::move(picture));
        };
        keep(GroundLayer::colour, cast_layers.colour);
        keep(GroundLayer::depth, cast_layers.depth);
        keep(GroundLayer::normal, cast_layers.normal);
        keep(GroundLayer::position, cast_layers.position);
        keep(GroundLayer::id, cast_layers.id);
    }
    return PicturePtr(own.pictures[layer]);
}

}  // namespace lacquer
