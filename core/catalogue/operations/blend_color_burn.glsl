//! title Color burn
//! group Blend
//! about Darkens what lies below to reflect what is laid on.
//! says {source} on {backdrop}, color burn
//! shown blend_color_burn(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode color-burn.
float burn(float below, float above) {
    return below >= 1 ? 1 : above <= 0 ? 0 : 1 - min(1, (1 - below) / above);
}
vec4 blend_color_burn(vec4 backdrop, vec4 source, float amount) {
    vec3 below = backdrop.rgb;
    vec3 above = source.rgb;
    return composite(backdrop, source, vec3(burn(below.r, above.r), burn(below.g, above.g), burn(below.b, above.b)),
                     amount);
}
