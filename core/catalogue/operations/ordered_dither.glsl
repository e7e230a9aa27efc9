//! title Ordered dither
//! group Colour
//! about Leaves a few levels of each colour, and mixes them in a fixed pattern of dots that looks like those between.
//! says {colour} dithered to {levels} levels
//! shown ordered_dither(harbour, 2, 2)
//! value colour same colour : what is changed
//! value levels 1 number = 2 in 2..64 : how many of each colour
//! value dot 1 number = 1 in 1..16 px : size of a dot
// The pattern is Bayer's of 8 x 8 (B. E. Bayer 1973, "An optimum method for two-level rendition"), from memory.
float pattern_of_two(vec2 at) {
    vec2 whole = floor(at);
    return fract(whole.x * 0.5 + whole.y * whole.y * 0.75);
}
same ordered_dither(same colour, float levels, float dot) {
    vec2 at = floor(mod(pixel / max(dot, 1), 8));
    float pattern = pattern_of_two(at) + pattern_of_two(at * 0.5) * 0.25 + pattern_of_two(at * 0.25) * 0.0625;
    float most = max(floor(levels), 2) - 1;
    return with_opacity_of(floor(clamp(colour, 0, 1) * most + pattern + 0.0078125) / most, colour);
}
