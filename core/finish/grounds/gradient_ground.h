// A ground of colours along a line, read by at(name, t).
#pragma once

#include <string>
#include <string_view>

#include "core/finish/grounds/ground_facts.h"
#include "core/finish/grounds/stops.h"

namespace lacquer {

struct GradientGround {
    static constexpr std::string_view key = "gradient";
    static constexpr StopValues values = StopValues::colours;

    Stops stops = {};

    friend bool operator==(const GradientGround&, const GradientGround&) = default;
};

void read(Fields& fields, GradientGround& ground);
void write(Json& object, const GradientGround& ground);
/// None: it is no picture, but is looked up in.
std::vector<GroundPicture> pictures_of(const GradientGround& ground, const std::string& name);
std::vector<std::string*> paths_of(GradientGround& ground);
ListLength list_of(const GradientGround& ground);

}  // namespace lacquer
