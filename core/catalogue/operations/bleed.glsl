//! title Bleed
//! group Neighbours
//! about Spreads the colours at the edge of what is opaque outwards under what is clear, and hides nothing else there.
//! says edge colours of {picture} bled by {reach}
//! shown bleed(crab, 40, 1)
//! picture picture 4 colour : what has opacity
//! value reach 1 number = 16 in 1..64 px : how far; beyond it is black
//! value as 1 choice = 0 of clear, opaque : with its opacity, or opaque to look at
//! stage seeds
//! stage flood repeat 7
//! stage bleed
// Jump flooding, as in the distance field: xy is the nearest place that is not clear.
vec4 seeds(sampler2D picture) {
    return texture(picture, uv).a > 0 ? vec4(uv, 0, 1) : vec4(-9, -9, 0, 1);
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
        if (far_from(other.xy) < far_from(found.xy)) found = other;
    }
    return found;
}
vec4 bleed(sampler2D picture, float reach, float as) {
    vec4 here = texture(picture, uv);
    vec2 nearest = texture(flood, uv).xy;
    vec3 colour = here.a > 0 ? here.rgb : texture(picture, nearest).rgb;
    if (here.a <= 0 && length((nearest - uv) * frame_size) > reach) colour = vec3(0);
    return vec4(colour, as < 0.5 ? here.a : 1.0);
}
