//! title Bleed
//! group Neighbours
//! about Spreads the colours at the edge of what is opaque outwards under what is clear, and hides nothing else there.
//! says edge colours of {picture} bled by {reach}
//! shown bleed(crab, 40, 1)
//! picture picture 4 colour : what has opacity
//! value reach 1 number = 16 in 1..64 px : how far; beyond it is black
//! value as 1 choice = 0 of clear, opaque : with its opacity, or opaque to look at
//! stage seeds
//! stage columns repeat levels
//! stage least repeat 4
//! stage nearest native nearest_places of seeds by searched
//! stage bleed
vec2 seeds(sampler2D picture) {
    return vec2(texture(picture, uv).a > 0 ? 0 : 1e6, 1e6);
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
vec4 bleed(sampler2D picture, float reach, float as) {
    vec4 here = texture(picture, uv);
    vec2 arm = texelFetch(nearest, ivec2(uv * vec2(textureSize(nearest)))).xy * frame_pixels();
    vec3 colour = here.rgb;
    if (here.a <= 0) colour = length(arm) > reach ? vec3(0) : texture(picture, uv + arm * pixel_size).rgb;
    return vec4(colour, as < 0.5 ? here.a : 1.0);
}
