//! title Saturation
//! group Colour
//! about Makes colours stronger, or takes them away down to grey, at the same luminance.
//! says {colour} with {amount} saturation
//! shown saturation(harbour, 2)
//! value colour 4 colour : what is changed
//! value amount 1 number = 1.5 in 0..4 : 0 is grey, 1 changes nothing
vec4 saturation(vec4 colour, float amount) {
    return vec4(mix(vec3(luminance(colour.rgb)), colour.rgb, amount), colour.a);
}
