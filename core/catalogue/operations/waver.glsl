//! title Waver
//! group Coordinates
//! about Sways places sideways in waves, as hot air or water does.
//! says waver {where} by {reach}, {spacing} apart
//! shown texture(chart, waver(uv, 0.03, 0.3))
//! value where 2 coordinate = uv : the places to sway
//! value reach 1 number = 0.02 in 0..0.2 : how far, in frame heights
//! value spacing 1 number = 0.2 in 0.01..1 : from wave to wave, in frame heights
//! value phase 1 number = 0 in 0..1 turns : how far they have run; drive it with time
//! value angle 1 number = 0 in 0..360 deg : 0 sways to the right and left, 90 up and down
vec2 waver(vec2 where, float reach, float spacing, float phase, float angle) {
    vec2 along = vec2(cos(radians(angle)), sin(radians(angle)));
    float across = dot(where * vec2(aspect, 1), vec2(-along.y, along.x));
    return where + along * sin(6.2831853 * (across / max(spacing, 0.0001) - phase)) * reach * vec2(1 / aspect, 1);
}
