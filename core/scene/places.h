// The places of The Skerry Lamp: small worlds that stand in for a game's.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/scene/camera.h"
#include "core/scene/world.h"

namespace lacquer {

/// What time of day it is there.
enum class Hour { day, dusk, storm };

/// An object of a place: what the id layer of its pictures holds for it.
struct SceneObject {
    int id = 0;
    std::string_view name;
};

struct ScenePlace {
    std::string_view name;   ///< as files have it
    std::string_view words;  ///< what there is to see
    SceneWorld (*world)(Hour hour, double seconds) = nullptr;
    Camera camera;  ///< a good view of it
    std::vector<SceneObject> objects;
};

/// All places.
const std::vector<ScenePlace>& scene_places();
/// The place of that name; null if there is none.
const ScenePlace* find_place(std::string_view name);

/// The hour called "day", "dusk" or "storm", and its name.
std::optional<Hour> hour_named(std::string_view name);
std::string_view name_of(Hour hour);

/// The sky of an hour, and how high the sea goes then, metres.
Sky sky_of(Hour hour, double seconds);
float swell_of(Hour hour);

// One file each.
ScenePlace harbour();
ScenePlace lamp_room();

}  // namespace lacquer
