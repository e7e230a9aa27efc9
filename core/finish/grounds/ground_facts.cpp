#include "core/finish/grounds/ground_facts.h"

namespace lacquer {

std::vector<GroundPicture> scene_pictures(const std::string& name) {
    return {{name, GroundLayer::colour, Type::vec4, "the scene's colours"},
            {name + "_depth", GroundLayer::depth, Type::number, "metres from the camera"},
            {name + "_normal", GroundLayer::normal, Type::vec3, "which way surfaces face in the world"},
            {name + "_position", GroundLayer::position, Type::vec3, "where in the world, metres"},
            {name + "_id", GroundLayer::id, Type::number, "which object, a number"}};
}

}  // namespace lacquer
