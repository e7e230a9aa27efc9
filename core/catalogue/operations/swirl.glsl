//! title Swirl
//! group Coordinates
//! about Twists what is read round a point, most in the middle and not at all at the radius.
//! says swirl {where} by {angle} within {radius} of {centre}
//! shown texture(chart, swirl(uv, vec2(0.5), 0.5, 180))
//! value where 2 coordinate = uv : the places to twist
//! value centre 2 coordinate = vec2(0.5) : where it twists most
//! value radius 1 number = 0.5 in 0..2 : where it ends, in frame heights
//! value angle 1 number = 120 in -720..720 deg : how far in the middle, clockwise
vec2 swirl(vec2 where, vec2 centre, float radius, float angle) {
    float share = clamp(1 - length((where - centre) * vec2(aspect, 1)) / max(radius, 0.0001), 0, 1);
    return turn(where, angle * share * share, centre);
}
