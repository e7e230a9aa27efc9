//! title Tone map (Reinhard)
//! group Colour
//! about Brings light of any brightness into 0..1 softly; from the white point on all is white.
//! says {colour} toned, white at {white}
//! shown tone_reinhard(exposure(harbour, 2), 4)
//! value colour 4 colour : what is toned
//! value white 1 number = 4 in 0.1..100 : the luminance that becomes 1
// E. Reinhard et al., "Photographic Tone Reproduction for Digital Images", 2002, its equation 4, on luminance.
vec4 tone_reinhard(vec4 colour, float white) {
    float l = max(luminance(colour.rgb), 0);
    return vec4(colour.rgb * (1 + l / (white * white)) / (1 + l), colour.a);
}
