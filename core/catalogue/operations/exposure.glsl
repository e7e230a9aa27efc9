//! title Exposure
//! group Colour
//! about Makes light stronger or weaker, as a camera's stops do: each doubles it.
//! says {colour} {stops} brighter
//! shown exposure(harbour, 1.5)
//! value colour 4 colour : what is changed
//! value stops 1 number = 1 in -8..8 stops : 0 changes nothing
vec4 exposure(vec4 colour, float stops) {
    return vec4(colour.rgb * exp2(stops), colour.a);
}
