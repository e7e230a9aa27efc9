//! title Tone map (Hable)
//! group Colour
//! about Brings light of any brightness into 0..1 with a film's toe and shoulder.
//! says {colour} toned as film, white at {white}
//! shown tone_hable(exposure(harbour, 3), 11.2)
//! value colour 4 colour : what is toned
//! value white 1 number = 11.2 in 0.1..100 : the light that becomes 1
// J. Hable, talk at the Game Developers Conference 2010.
vec3 film(vec3 x) {
    return (x * (0.15 * x + 0.05) + 0.004) / (x * (0.15 * x + 0.5) + 0.06) - 0.02 / 0.3;
}
vec4 tone_hable(vec4 colour, float white) {
    return vec4(film(max(colour.rgb, vec3(0))) / film(vec3(white)), colour.a);
}
