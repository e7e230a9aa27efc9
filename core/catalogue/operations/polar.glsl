//! title Polar
//! group Coordinates
//! about Turns places into a distance from a centre and an angle round it, both to be read as a new place.
//! says polar of {where} round {centre}
//! shown texture(chart, polar() * vec2(1.5, 1))
//! value where 2 coordinate = uv : the places to turn
//! value centre 2 coordinate = vec2(0.5) : where the distance is 0
// The angle is in turns, 0 to the right and growing clockwise, 0 <= angle < 1.
vec2 polar(vec2 where, vec2 centre) {
    vec2 arm = (where - centre) * vec2(aspect, 1);
    return vec2(length(arm), fract(atan(arm.y, arm.x) / 6.2831853));
}
