//! title Outline
//! group Neighbours
//! about Paints a line along the edge of what is opaque: inside it, outside it, or on it.
//! says a line {width} wide {place} {sprite}
//! shown outline(crab, 5, vec3(1, 0.75, 0.2), 0)
//! picture sprite 4 colour : what has opacity
//! value width 1 number = 3 in 0..32 px : of the line
//! value colour 3 colour = vec3(0) : of the line
//! value place 1 choice = 0 of outside, inside, centred on the edge of : where it runs
//! value opacity 1 opacity = 1 in 0..1 : of the line
//! stage seeds
//! stage columns repeat levels
//! stage least repeat 4
//! stage nearest native nearest_places of seeds by searched
//! stage outline
vec2 seeds(sampler2D sprite) {
    return texture(sprite, uv).a >= 0.5 ? vec2(0, 1e6) : vec2(1e6, 0);
}
//! uses nearest_columns
float searched(float width) {
    return drawn_pixels(width + 2);
}
vec2 columns(int turn, float width) {
    return column_round(turn, searched(width));
}
//! uses nearest
vec4 nearest(float width) {
    return nearest_of_both(searched(width));
}
vec4 outline(sampler2D sprite, float width, vec3 colour, float place, float opacity) {
    vec4 here = texture(sprite, uv);
    if (width <= 0) return here;
    bool inside = here.a >= 0.5;
    vec4 both = texelFetch(nearest, ivec2(uv * vec2(textureSize(nearest))));
    vec2 arm = inside ? both.zw : both.xy;
    if (arm.y > 9e5) return here;
    float there = texture(sprite, uv + arm * frame_pixels() * pixel_size).a;
    float away = length(arm * frame_pixels()) - clamp(inside ? 0.5 - there : there - 0.5, 0, 0.5);
    float signed = inside ? -away : away;
    float middle = place < 0.5 ? width * 0.5 : place < 1.5 ? -width * 0.5 : 0.0;
    float line = clamp(width * 0.5 + 0.5 - abs(signed - middle), 0, 1) * opacity;
    return composite(here, vec4(colour, line), colour, 1);
}
