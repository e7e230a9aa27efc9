//! title Multiply
//! group Blend
//! about Darkens: white changes nothing, black makes black.
//! says {source} on {backdrop}, multiply
//! shown blend_multiply(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode multiply.
vec4 blend_multiply(vec4 backdrop, vec4 source, float amount) {
    return composite(backdrop, source, backdrop.rgb * source.rgb, amount);
}
