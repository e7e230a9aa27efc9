//! title Lighten
//! group Blend
//! about Takes the lighter of both, colour by colour.
//! says {source} on {backdrop}, lighten
//! shown blend_lighten(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode lighten.
vec4 blend_lighten(vec4 backdrop, vec4 source, float amount) {
    return composite(backdrop, source, max(backdrop.rgb, source.rgb), amount);
}
