//! title Grade
//! group Colour
//! about Slope, offset and power for each colour, then saturation, as in an ASC colour decision list.
//! says {colour} graded
//! shown grade(harbour, vec3(1.3, 1, 0.8), vec3(0, 0.02, 0.06), vec3(0.9, 1, 1.1), 1.3)
//! value colour 4 colour : what is graded
//! value slope 3 number = vec3(1) in 0..4 : times as much
//! value offset 3 number = vec3(0) in -1..1 : added after that
//! value power 3 number = vec3(1) in 0.1..4 : raised to it after that
//! value strength 1 number = 1 in 0..4 : saturation: 0 is grey
// ASC CDL 1.2; like the standard it holds to 0..1 before the power, so brighter light becomes white.
vec4 grade(vec4 colour, vec3 slope, vec3 offset, vec3 power, float strength) {
    vec3 graded = pow(clamp(colour.rgb * slope + offset, 0, 1), power);
    return saturation(vec4(graded, colour.a), strength);
}
