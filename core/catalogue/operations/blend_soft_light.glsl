//! title Soft light
//! group Blend
//! about Darkens or lightens gently: a diffuse light shining on it.
//! says {source} on {backdrop}, soft light
//! shown blend_soft_light(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode soft-light.
float soften(float below, float above) {
    if (above <= 0.5) return below - (1 - 2 * above) * below * (1 - below);
    float curve = below <= 0.25 ? ((16 * below - 12) * below + 4) * below : sqrt(below);
    return below + (2 * above - 1) * (curve - below);
}
vec4 blend_soft_light(vec4 backdrop, vec4 source, float amount) {
    vec3 below = backdrop.rgb;
    vec3 above = source.rgb;
    return composite(backdrop, source,
                     vec3(soften(below.r, above.r), soften(below.g, above.g), soften(below.b, above.b)), amount);
}
