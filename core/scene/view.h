// What a finish says of a stand-in scene: the place, the hour, where it is looked at from.
#pragma once

#include <string>
#include <vector>

#include "core/scene/places.h"

namespace lacquer {

struct SceneView {
    std::string place = "harbour";
    Hour hour = Hour::storm;
    Camera camera;
    std::vector<CameraKey> path;  ///< of the camera, in order of time; empty if it stands still
    friend bool operator==(const SceneView&, const SceneView&) = default;
};

/// A place at an hour, from where it looks good.
inline SceneView view_of_place(const ScenePlace& place, Hour hour) {
    return {std::string(place.name), hour, place.camera, {}};
}

}  // namespace lacquer
