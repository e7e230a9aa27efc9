// A ground that is a stand-in scene.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/grounds/ground_facts.h"
#include "core/picture/sample.h"
#include "core/scene/view.h"

namespace lacquer {

class Fields;
class Json;

struct SceneGround {
    static constexpr std::string_view key = "scene";

    SceneView view = {};
    std::string of = {};  ///< the scene whose camera it follows; empty for its own
    Sampling sampling = {};

    friend bool operator==(const SceneGround&, const SceneGround&) = default;
};

void read(Fields& fields, SceneGround& ground);
void write(Json& object, const SceneGround& ground);
std::vector<GroundPicture> pictures_of(const SceneGround& ground, const std::string& name);
std::vector<std::string*> paths_of(SceneGround& ground);
ListLength list_of(const SceneGround& ground);

}  // namespace lacquer
