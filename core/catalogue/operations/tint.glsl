//! title Tint
//! group Colour
//! about Washes a picture in one colour, keeping its light and dark.
//! says {colour} tinted {wash} by {amount}
//! shown tint(harbour, vec3(0.25, 0.9, 1.2), 0.85)
//! value colour 4 colour : what is changed
//! value wash 3 colour = vec3(1, 0.6, 0.3) : what white becomes
//! value amount 1 number = 1 in 0..1 : 0 changes nothing
vec4 tint(vec4 colour, vec3 wash, float amount) {
    return vec4(mix(colour.rgb, wash * luminance(colour.rgb), amount), colour.a);
}
