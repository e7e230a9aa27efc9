// What every kind of ground tells of itself.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

#include "core/lang/type.h"

namespace lacquer {

/// What a picture of a ground holds.
enum class GroundLayer { colour, depth, normal, position, id, marks, part, share, age, seed, place, push };

/// A picture that a ground gives to formulas.
struct GroundPicture {
    std::string name;  ///< as formulas use it
    GroundLayer layer = GroundLayer::colour;
    Type type = Type::vec4;
    std::string_view words;  ///< what it holds, for people
};

/// How many members its list has, if it has one, and what they are, for people.
struct ListLength {
    std::size_t length = 0;
    std::string_view words = {};
};

/// Those of a scene called `name`, stood in for or captured: its colours under that name, `name_depth`, `name_normal`,
/// `name_position` and `name_id`.
std::vector<GroundPicture> scene_pictures(const std::string& name);

}  // namespace lacquer
