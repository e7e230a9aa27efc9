#include "core/finish/grounds/gradient_ground.h"

namespace lacquer {

void read(Fields& fields, GradientGround& ground) { ground.stops = read_stops(fields, "gradient", ground.values); }

void write(Json& object, const GradientGround& ground) { write_stops(object, "gradient", ground.values, ground.stops); }

std::vector<GroundPicture> pictures_of(const GradientGround&, const std::string&) { return {}; }

std::vector<std::string*> paths_of(GradientGround&) { return {}; }

ListLength list_of(const GradientGround& ground) { return {ground.stops.list.size(), "stops"}; }

}  // namespace lacquer
