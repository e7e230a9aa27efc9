//! title Darken
//! group Blend
//! about Takes the darker of both, colour by colour.
//! says {source} on {backdrop}, darken
//! shown blend_darken(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode darken.
vec4 blend_darken(vec4 backdrop, vec4 source, float amount) {
    return composite(backdrop, source, min(backdrop.rgb, source.rgb), amount);
}
