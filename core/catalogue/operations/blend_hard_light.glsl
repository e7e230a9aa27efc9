//! title Hard light
//! group Blend
//! about Multiplies where what is laid on is dark and screens where it is light: a harsh light shining on it.
//! says {source} on {backdrop}, hard light
//! shown blend_hard_light(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode hard-light.
vec4 blend_hard_light(vec4 backdrop, vec4 source, float amount) {
    vec3 dark = backdrop.rgb * source.rgb * 2;
    vec3 above = source.rgb * 2 - 1;
    vec3 light = backdrop.rgb + above - backdrop.rgb * above;
    return composite(backdrop, source, mix(light, dark, step(source.rgb, vec3(0.5))), amount);
}
