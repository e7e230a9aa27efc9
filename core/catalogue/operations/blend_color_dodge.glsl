//! title Color dodge
//! group Blend
//! about Brightens what lies below to reflect what is laid on.
//! says {source} on {backdrop}, color dodge
//! shown blend_color_dodge(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode color-dodge.
float dodge(float below, float above) {
    return below <= 0 ? 0 : above >= 1 ? 1 : min(1, below / (1 - above));
}
vec4 blend_color_dodge(vec4 backdrop, vec4 source, float amount) {
    vec3 below = backdrop.rgb;
    vec3 above = source.rgb;
    return composite(backdrop, source,
                     vec3(dodge(below.r, above.r), dodge(below.g, above.g), dodge(below.b, above.b)), amount);
}
