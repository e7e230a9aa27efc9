#include "core/finish/ground_pictures.h"

#include <algorithm>

namespace lacquer {

PictureMeaning meaning_of(const Ground& ground) {
    if (ground.data) return PictureMeaning::data;
    switch (ground.opacity) {
        case FileOpacity::multiplied:
            return PictureMeaning::multiplied;
        case FileOpacity::straight:
            return PictureMeaning::straight;
        case FileOpacity::as_marked:
            break;
    }
    return PictureMeaning::colour;
}

bool has_layers(GroundKind kind) { return kind == GroundKind::scene || kind == GroundKind::capture; }

bool has_file(GroundKind kind) {
    return kind == GroundKind::picture || kind == GroundKind::capture || kind == GroundKind::table;
}

bool is_view(GroundKind kind) { return kind == GroundKind::picture || kind == GroundKind::sprite || has_layers(kind); }

std::vector<std::string*> paths_of(Ground& ground) {
    std::vector<std::string*> paths;
    if (has_file(ground.kind)) paths.push_back(&ground.path);
    if (ground.kind != GroundKind::sprite) return paths;
    for (SpritePart& part : ground.sprite.parts) {
        paths.push_back(&part.path);
        if (!part.normal.empty()) paths.push_back(&part.normal);
    }
    return paths;
}

std::vector<std::string> paths_of(const Ground& ground) {
    Ground copy = ground;
    std::vector<std::string> paths;
    for (const std::string* path : paths_of(copy)) paths.push_back(*path);
    return paths;
}

std::vector<GroundPicture> ground_pictures(const Ground& ground) {
    switch (ground.kind) {
        case GroundKind::picture:
            return {{ground.name, GroundLayer::colour, Type::vec4, "picture"}};
        case GroundKind::table:
            return {{ground.name, GroundLayer::colour, Type::vec4, "table of colours for colours, for look_table()"}};
        case GroundKind::scene:
        case GroundKind::capture:
            return {{ground.name, GroundLayer::colour, Type::vec4, "the scene's colours"},
                    {ground.name + "_depth", GroundLayer::depth, Type::number, "metres from the camera"},
                    {ground.name + "_normal", GroundLayer::normal, Type::vec3, "which way surfaces face in the world"},
                    {ground.name + "_position", GroundLayer::position, Type::vec3, "where in the world, metres"},
                    {ground.name + "_id", GroundLayer::id, Type::number, "which object, a number"}};
        case GroundKind::marks:
            return {{ground.name, GroundLayer::marks, Type::number, "1 on chosen objects, 0 elsewhere"}};
        case GroundKind::sprite:
            return {
                {ground.name, GroundLayer::colour, Type::vec4, "the sprite's colours, clear around it"},
                {ground.name + "_normal", GroundLayer::normal, Type::vec3, "which way it faces, 0, 0, 1 towards you"},
                {ground.name + "_part", GroundLayer::part, Type::number, "number of the part on top, 0 for none"},
                {ground.name + "_share", GroundLayer::share, Type::number, "that part's share of what drives all"}};
        case GroundKind::gradient:
        case GroundKind::curve:
            break;
    }
    return {};
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
    if (layer != GroundLayer::colour) return {ground.sampling.wrap, Filter::nearest};
    Sampling sampling = ground.sampling;
    const bool has_opacity =
        ground.kind == GroundKind::picture || ground.kind == GroundKind::sprite || ground.kind == GroundKind::capture;
    sampling.weighed = has_opacity && !ground.data;
    return sampling;
}

SceneView seen_view(const Finish& finish, const Ground& scene) {
    SceneView view = scene.scene;
    const Ground* leader = scene.of.empty() ? nullptr : find_ground(finish, scene.of);
    if (leader == nullptr || leader->kind != GroundKind::scene) return view;
    view.camera = leader->scene.camera;
    view.path = leader->scene.path;
    return view;
}

std::string object_name(const Ground& scene, int id) {
    const ScenePlace* place = scene.kind == GroundKind::scene ? find_place(scene.scene.place) : nullptr;
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
                                    [](const Ground& ground) { return is_view(ground.kind); });
    return found != finish.grounds.end() ? &*found : nullptr;
}

}  // namespace lacquer
