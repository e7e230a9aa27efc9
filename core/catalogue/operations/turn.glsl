//! title Turn
//! group Coordinates
//! about Turns what is read about a point, without squeezing it.
//! says turn {where} by {angle} about {centre}
//! shown texture(harbour, turn(uv, 30))
//! value where 2 coordinate = uv : the places to turn
//! value angle 1 number = 15 in -360..360 deg : how far, clockwise
//! value centre 2 coordinate = vec2(0.5) : the point that stays
vec2 turn(vec2 where, float angle, vec2 centre) {
    vec2 arm = (where - centre) * vec2(aspect, 1);
    float c = cos(radians(angle));
    float s = sin(radians(angle));
    return centre + vec2(arm.x * c + arm.y * s, arm.y * c - arm.x * s) / vec2(aspect, 1);
}
