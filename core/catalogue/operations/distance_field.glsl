//! title Distance field
//! group Neighbours
//! about How far each pixel is from the edge of a mask: above 0 outside, below 0 inside.
//! says distance from the edge of {mask}
//! shown distance_field(stones, 0.5, 64, 1)
//! picture mask 1 mask : what has an edge
//! value edge 1 number = 0.5 in 0..1 : the value at which inside begins
//! value reach 1 number = 64 in 1..4096 px : how far it is measured; beyond, this is the distance
//! value as 1 choice = 0 of pixels, mask : in pixels, or from 0 at the reach inside to 1 at the reach outside
//! stage seeds
//! stage columns repeat levels
//! stage least repeat 4
//! stage nearest native nearest_places of seeds by searched
//! stage distance_field
vec2 seeds(sampler2D mask, float edge) {
    return texture(mask, uv) >= edge ? vec2(0, 1e6) : vec2(1e6, 0);
}
//! uses nearest_columns
float searched(float reach) {
    return drawn_pixels(reach) + 2;
}
vec2 columns(int turn, float reach) {
    return column_round(turn, searched(reach));
}
//! uses nearest
vec4 nearest(float reach) {
    return nearest_of_both(searched(reach));
}
float distance_field(sampler2D mask, float edge, float reach, float as) {
    bool inside = texture(mask, uv) >= edge;
    vec4 both = texelFetch(nearest, ivec2(uv * vec2(textureSize(nearest))));
    vec2 arm = inside ? both.zw : both.xy;
    float far = reach;
    if (arm.y < 9e5) {
        // The edge runs between the pixels, the nearer to this one the more its value leans to the other side.
        float there = texture(mask, uv + arm * frame_pixels() * pixel_size);
        float past = clamp(inside ? edge - there : there - edge, 0, 0.5);
        far = min(max(length(arm * frame_pixels()) - past, 0), reach);
    }
    if (inside) far = -far;
    return as < 0.5 ? far : 0.5 + 0.5 * far / reach;
}
