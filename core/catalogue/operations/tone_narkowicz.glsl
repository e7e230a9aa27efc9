//! title Tone map (Narkowicz)
//! group Colour
//! about Brings light of any brightness into 0..1 with strong contrast, each colour by itself.
//! says {colour} toned at {exposed}
//! shown tone_narkowicz(exposure(harbour, 1), 1)
//! value colour 4 colour : what is toned
//! value exposed 1 number = 1 in 0.1..8 : times as much light before that
// K. Narkowicz, "ACES Filmic Tone Mapping Curve", 2015.
vec4 tone_narkowicz(vec4 colour, float exposed) {
    vec3 x = max(colour.rgb * exposed, vec3(0));
    return vec4(clamp(x * (2.51 * x + 0.03) / (x * (2.43 * x + 0.59) + 0.14), 0, 1), colour.a);
}
