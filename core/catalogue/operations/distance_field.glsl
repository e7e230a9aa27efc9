//! title Distance field
//! group Neighbours
//! about How far each pixel is from the edge of a mask: above 0 outside, below 0 inside.
//! says distance from the edge of {mask}
//! shown distance_field(stones, 0.5, 64, 1)
//! picture mask 1 mask : what has an edge
//! value edge 1 number = 0.5 in 0..1 : the value at which inside begins
//! value reach 1 number = 64 in 1..64 px : how far it is measured; beyond, this is the distance
//! value as 1 choice = 0 of pixels, mask : in pixels, or from 0 at the reach inside to 1 at the reach outside
//! stage seeds
//! stage flood repeat 7
//! stage distance_field
// Jump flooding (G. Rong and T.-S. Tan, "Jump Flooding in GPU with Applications to Voronoi Diagram and Distance
// Transform", 2006): xy is the nearest place inside, zw the nearest outside, -9 where none is known.
vec4 seeds(sampler2D mask, float edge) {
    return texture(mask, uv) >= edge ? vec4(uv, -9, -9) : vec4(-9, -9, uv);
}
float far_from(vec2 place) {
    vec2 arm = (place - uv) * frame_size;
    return dot(arm, arm);
}
vec4 flood(int turn) {
    ivec2 size = textureSize(flood);
    ivec2 here = ivec2(floor(uv * vec2(size)));
    int far = max(int(exp2(6.0 - float(turn)) * float(size.y) / frame_size.y + 0.5), 1);
    vec4 found = texelFetch(flood, here);
    for (int i = 0; i < 9; i++) {
        vec4 other = texelFetch(flood, clamp(here + ivec2(i % 3 - 1, i / 3 - 1) * far, ivec2(0), size - 1));
        if (far_from(other.xy) < far_from(found.xy)) found.xy = other.xy;
        if (far_from(other.zw) < far_from(found.zw)) found.zw = other.zw;
    }
    return found;
}
float distance_field(sampler2D mask, float edge, float reach, float as) {
    vec4 found = texture(flood, uv);
    bool inside = texture(mask, uv) >= edge;
    vec2 nearest = inside ? found.zw : found.xy;
    float away = length((nearest - uv) * frame_size);
    // The edge runs between the pixels, the nearer to this one the more its value leans to the other side.
    float there = texture(mask, nearest);
    float past = clamp(inside ? edge - there : there - edge, 0, 0.5);
    float far = min(max(away - past, 0), reach) * (inside ? -1 : 1);
    return as < 0.5 ? far : 0.5 + 0.5 * far / reach;
}
