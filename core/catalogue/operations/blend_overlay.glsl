//! title Overlay
//! group Blend
//! about Multiplies where the backdrop is dark and screens where it is light: its highlights and shadows stay.
//! says {source} on {backdrop}, overlay
//! shown blend_overlay(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode overlay.
vec4 blend_overlay(vec4 backdrop, vec4 source, float amount) {
    vec3 dark = backdrop.rgb * source.rgb * 2;
    vec3 below = backdrop.rgb * 2 - 1;
    vec3 light = source.rgb + below - source.rgb * below;
    return composite(backdrop, source, mix(light, dark, step(backdrop.rgb, vec3(0.5))), amount);
}
