// A ground of heights along a line, read by at(name, t).
#pragma once

#include <string>
#include <string_view>

#include "core/finish/grounds/ground_facts.h"
#include "core/finish/grounds/stops.h"

namespace lacquer {

struct CurveGround {
    static constexpr std::string_view key = "curve";
    static constexpr StopValues values = StopValues::heights;

    Stops stops = {};

    friend bool operator==(const CurveGround&, const CurveGround&) = default;
};

void read(Fields& fields, CurveGround& ground);
void write(Json& object, const CurveGround& ground);
/// None: it is no picture, but is looked up in.
std::vector<GroundPicture> pictures_of(const CurveGround& ground, const std::string& name);
std::vector<std::string*> paths_of(CurveGround& ground);
ListLength list_of(const CurveGround& ground);

}  // namespace lacquer
