//! title Object outline
//! group Scene
//! about Paints lines around marked objects, thinner far away; what stands nearer hides them.
//! says lines {width} wide {place} objects in {marked} on {picture}
//! shown object_outline(shore_view, shore_id, shore_marked, shore_depth, 6, vec3(1, 0.6, 0.1), 2)
//! picture picture 4 colour : what is painted on
//! picture ids 1 number : which object each pixel shows
//! picture marked 1 mask : 1 on objects that get lines
//! picture depth 1 number : metres from the camera
//! value width 1 number = 4 in 0..32 px : of the line, close to the camera
//! value colour 3 colour = vec3(0) : of the line
//! value place 1 choice = 0 of outside, inside, centred on the edge of : where it runs
//! value falloff 1 number = 0 in 0..2 px/m : by how much it gets thinner with each metre
//! value opacity 1 opacity = 1 in 0..1 : of the line
//! stage seeds
//! stage columns repeat levels
//! stage least repeat 4
//! stage nearest native nearest_places of seeds by searched
//! stage object_outline
// The marked pixels that lie at an edge of their object, where it is not that of one before it.
vec2 seeds(sampler2D ids, sampler2D marked, sampler2D depth) {
    ivec2 size = textureSize(ids);
    ivec2 here = clamp(ivec2(floor(uv * vec2(size))), ivec2(0), size - 1);
    if (texelFetch(marked, here) < 0.5) return vec2(1e6);
    float id = texelFetch(ids, here);
    float far = texelFetch(depth, here);
    bool edge = false;
    for (int i = 0; i < 4; i++) {
        ivec2 other = clamp(here + ivec2(i == 0 ? 1 : i == 1 ? -1 : 0, i == 2 ? 1 : i == 3 ? -1 : 0), ivec2(0), size - 1);
        edge = edge || (abs(texelFetch(ids, other) - id) > 0.5 && texelFetch(depth, other) > far * 0.98);
    }
    return edge ? vec2(0, 1e6) : vec2(1e6);
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
vec4 object_outline(sampler2D picture, sampler2D ids, sampler2D depth, float width, vec3 colour, float place, float falloff, float opacity) {
    vec4 here = texture(picture, uv);
    vec2 arm = texelFetch(nearest, ivec2(uv * vec2(textureSize(nearest)))).xy;
    if (arm.y > 9e5) return here;
    vec2 nearest = uv + arm * frame_pixels() * pixel_size;
    float far = texture(depth, nearest);
    float wide = max(width - falloff * far, 0);
    if (wide <= 0) return here;
    bool inside = abs(texture(ids, nearest) - texture(ids, uv)) < 0.5;
    // The edge runs half a pixel beyond the nearest pixel within.
    float away = length((nearest - uv) * frame_size);
    float signed = inside ? -away - 0.5 : away - 0.5;
    float middle = place < 0.5 ? wide * 0.5 : place < 1.5 ? -wide * 0.5 : 0.0;
    bool hidden = !inside && texture(depth, uv) < far * 0.98;
    float line = hidden ? 0.0 : clamp(wide * 0.5 + 0.5 - abs(signed - middle), 0, 1) * opacity;
    return composite(here, vec4(colour, line), colour, 1);
}
