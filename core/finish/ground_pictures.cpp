#include "core/finish/ground_pictures.h"

#include <algorithm>

namespace lacquer {

PictureMeaning meaning_of(const Ground& ground) {
    if (is_data(ground)) return PictureMeaning::data;
    const FileOpacity* opacity = opacity_of(ground);
    switch (opacity != nullptr ? *opacity : FileOpacity::as_marked) {
        case FileOpacity::multiplied:
            return PictureMeaning::multiplied;
        case FileOpacity::straight:
            return PictureMeaning::straight;
        case FileOpacity::as_marked:
            break;
    }
    return PictureMeaning::colour;
}

std::optional<NamedPicture> find_ground_picture(const Finish& finish, std::string_view name) {
    for (const Ground& ground : finish.grounds) {
        for (GroundPicture& picture : ground_pictures(ground)) {
            if (picture.name == name) return NamedPicture{&ground, std::move(picture)};
        }
    }
    return std::nullopt;
}

Sampling sampling_of(const Ground& ground, GroundLayer layer) {
    const Sampling* own = sampling_of(ground);
    Sampling sampling = own != nullptr ? *own : Sampling();
    if (layer != GroundLayer::colour) return {sampling.wrap, Filter::nearest};
    sampling.weighed = opacity_of(ground) != nullptr && !is_data(ground);
    return sampling;
}

SceneView seen_view(const Finish& finish, const SceneGround& scene) {
    SceneView view = scene.view;
    const Ground* named = scene.of.empty() ? nullptr : find_ground(finish, scene.of);
    const auto* leader = named != nullptr ? named->as<SceneGround>() : nullptr;
    if (leader == nullptr) return view;
    view.camera = leader->view.camera;
    view.path = leader->view.path;
    return view;
}

std::string object_name(const Ground& scene, int id) {
    const auto* stand_in = scene.as<SceneGround>();
    const ScenePlace* place = stand_in != nullptr ? find_place(stand_in->view.place) : nullptr;
    if (place != nullptr) {
        for (const SceneObject& object : place->objects) {
            if (object.id == id) return std::string(object.name);
        }
    }
    return "object " + std::to_string(id);
}

const Ground* find_ground(const Finish& finish, std::string_view name) {
    const auto found = std::find_if(finish.grounds.begin(), finish.grounds.end(),
                                    [&](const Ground& ground) { return ground.name == name; });
    return found != finish.grounds.end() ? &*found : nullptr;
}

const Ground* first_picture(const Finish& finish) {
    const auto found = std::find_if(finish.grounds.begin(), finish.grounds.end(),
                                    [](const Ground& ground) { return sampling_of(ground) != nullptr; });
    return found != finish.grounds.end() ? &*found : nullptr;
}

}  // namespace lacquer
