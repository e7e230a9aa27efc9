//! title Screen
//! group Blend
//! about Lightens: black changes nothing, white makes white.
//! says {source} on {backdrop}, screen
//! shown blend_screen(harbour, chart)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, blend mode screen.
vec4 blend_screen(vec4 backdrop, vec4 source, float amount) {
    return composite(backdrop, source, backdrop.rgb + source.rgb - backdrop.rgb * source.rgb, amount);
}
