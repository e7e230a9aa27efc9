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
//! stage flood repeat 7
//! stage outline
// Jump flooding, as in the distance field: xy is the nearest opaque place, zw the nearest clear one.
vec4 seeds(sampler2D sprite) {
    return texture(sprite, uv).a >= 0.5 ? vec4(uv, -9, -9) : vec4(-9, -9, uv);
}
float far_from(vec2 place) {
    vec2 arm = (place - uv) * frame_size;
    return dot(arm, arm);
}
vec4 flood(int turn, float width) {
    ivec2 size = textureSize(flood);
    ivec2 here = ivec2(floor(uv * vec2(size)));
    float arm = exp2(6.0 - float(turn));
    vec4 found = texelFetch(flood, here);
    // Shorter arms reach a pixel beyond the line by themselves.
    if (arm >= 2 * (width + 1)) return found;
    int far = max(int(arm * float(size.y) / frame_size.y + 0.5), 1);
    for (int i = 0; i < 9; i++) {
        vec4 other = texelFetch(flood, clamp(here + ivec2(i % 3 - 1, i / 3 - 1) * far, ivec2(0), size - 1));
        if (far_from(other.xy) < far_from(found.xy)) found.xy = other.xy;
        if (far_from(other.zw) < far_from(found.zw)) found.zw = other.zw;
    }
    return found;
}
vec4 outline(sampler2D sprite, float width, vec3 colour, float place, float opacity) {
    vec4 here = texture(sprite, uv);
    if (width <= 0) return here;
    vec4 found = texture(flood, uv);
    bool inside = here.a >= 0.5;
    vec2 nearest = inside ? found.zw : found.xy;
    float there = texture(sprite, nearest).a;
    float away = length((nearest - uv) * frame_size) - clamp(inside ? 0.5 - there : there - 0.5, 0, 0.5);
    float signed = inside ? -away : away;
    float middle = place < 0.5 ? width * 0.5 : place < 1.5 ? -width * 0.5 : 0.0;
    float line = clamp(width * 0.5 + 0.5 - abs(signed - middle), 0, 1) * opacity;
    return composite(here, vec4(colour, line), colour, 1);
}
