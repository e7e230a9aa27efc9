// A ground that is 1 on chosen objects of a scene and 0 elsewhere.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/finish/grounds/ground_facts.h"

namespace lacquer {

class Fields;
class Json;

struct MarksGround {
    static constexpr std::string_view key = "marks";

    std::string of = {};        ///< the scene or capture whose objects they choose
    std::vector<int> ids = {};  ///< the chosen objects, in order

    friend bool operator==(const MarksGround&, const MarksGround&) = default;
};

void read(Fields& fields, MarksGround& ground);
void write(Json& object, const MarksGround& ground);
std::vector<GroundPicture> pictures_of(const MarksGround& ground, const std::string& name);
std::vector<std::string*> paths_of(MarksGround& ground);
ListLength list_of(const MarksGround& ground);

}  // namespace lacquer
