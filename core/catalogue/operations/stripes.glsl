//! title Stripes
//! group Shapes
//! about Even stripes along an angle.
//! says stripes {spacing} apart along {angle}
//! shown stripes(25, 0.12, 0.4)
//! value angle 1 number = 0 in 0..360 deg : 0 gives upright stripes
//! value spacing 1 number = 0.1 in 0.005..1 : from one to the next, in frame heights
//! value share 1 number = 0.5 in 0..1 : how much of the spacing a stripe takes
//! value softness 1 number = 0 in 0..1 : width of the edges, in frame heights; at least a pixel
//! value where 2 coordinate = uv : the places they are drawn at
float stripes(float angle, float spacing, float share, float softness, vec2 where) {
    vec2 along = vec2(cos(radians(angle)), sin(radians(angle)));
    float wide = max(spacing, 0.0001);
    float beside = abs(fract(dot(where * vec2(aspect, 1), along) / wide) - 0.5) * wide;
    return filled(beside - share * wide * 0.5, softness);
}
