//! title Blend parts
//! group Blend
//! about Takes one property of colour from what is laid on, and the others from the backdrop.
//! says the {part} of {source} on {backdrop}
//! shown blend_parts(chart, harbour, 2)
//! value backdrop 4 colour : what lies below
//! value source 4 colour : what is laid on
//! value part 1 choice = 2 of hue, saturation, color, luminosity : what is taken from it
//! value amount 1 number = 1 in 0..1 : 0 leaves the backdrop
// W3C Compositing and Blending Level 1, its non-separable blend modes, with their own weights.
float lum(vec3 c) {
    return dot(c, vec3(0.3, 0.59, 0.11));
}
float sat(vec3 c) {
    return max(max(c.r, c.g), c.b) - min(min(c.r, c.g), c.b);
}
vec3 set_lum(vec3 c, float wanted) {
    vec3 moved = c + (wanted - lum(c));
    float l = lum(moved);
    float least = min(min(moved.r, moved.g), moved.b);
    float most = max(max(moved.r, moved.g), moved.b);
    if (least < 0) moved = l + (moved - l) * l / (l - least);
    if (most > 1) moved = l + (moved - l) * (1 - l) / (most - l);
    return moved;
}
vec3 set_sat(vec3 c, float wanted) {
    float least = min(min(c.r, c.g), c.b);
    float span = sat(c);
    if (span == 0) return vec3(0);
    return (c - least) * wanted / span;
}
vec4 blend_parts(vec4 backdrop, vec4 source, float part, float amount) {
    vec3 below = backdrop.rgb;
    vec3 above = source.rgb;
    vec3 blended = set_lum(set_sat(above, sat(below)), lum(below));
    if (part >= 0.5) blended = set_lum(set_sat(below, sat(above)), lum(below));
    if (part >= 1.5) blended = set_lum(above, lum(below));
    if (part >= 2.5) blended = set_lum(below, lum(above));
    return composite(backdrop, source, blended, amount);
}
