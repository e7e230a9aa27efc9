//! title Exclusion
//! group Blend
//! about Like difference, with less contrast.
//! says {source} on {backdrop}, exclusion
//! shown blend_exclusion(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode exclusion.
vec4 blend_exclusion(vec4 backdrop, vec4 source, float amount) {
    return composite(backdrop, source, backdrop.rgb + source.rgb - 2 * backdrop.rgb * source.rgb, amount);
}
