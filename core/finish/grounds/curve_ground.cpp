#include "core/finish/grounds/curve_ground.h"

namespace lacquer {

void read(Fields& fields, CurveGround& ground) { ground.stops = read_stops(fields, "curve", ground.values); }

void write(Json& object, const CurveGround& ground) { write_stops(object, "curve", ground.values, ground.stops); }

std::vector<GroundPicture> pictures_of(const CurveGround&, const std::string&) { return {}; }

std::vector<std::string*> paths_of(CurveGround&) { return {}; }

ListLength list_of(const CurveGround& ground) { return {ground.stops.list.size(), "stops"}; }

}  // namespace lacquer
