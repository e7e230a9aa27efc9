//! title Difference
//! group Blend
//! about How far both are apart: equal colours make black.
//! says {source} on {backdrop}, difference
//! shown blend_difference(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode difference.
vec4 blend_difference(vec4 backdrop, vec4 source, float amount) {
    return composite(backdrop, source, abs(backdrop.rgb - source.rgb), amount);
}
