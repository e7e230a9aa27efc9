//! title Glow
//! group Neighbours
//! about Lets what is bright shine over its surroundings.
//! says glow of {picture} above {threshold_at}, {strength} strong
//! picture picture 4 colour : what glows
//! value threshold_at 1 number = 0.8 in 0..2 : brightness from which it glows
//! value knee 1 number = 0.2 in 0..1 : how softly the glow sets in
//! value strength 1 number = 0.6 in 0..2 : times as bright
//! stage bright size 1/2
//! stage spread size 1/2 repeat 5
//! stage glow
vec4 bright(sampler2D picture, float threshold_at, float knee) {
    vec4 c = texture(picture, uv);
    float luminance = dot(c.rgb, vec3(0.2126, 0.7152, 0.0722));
    float share = smoothstep(threshold_at - knee, threshold_at + knee, luminance);
    return vec4(c.rgb * c.a * share, 1);
}
// Each round reads the one before twice as far apart, so five reach some 60 pixels without showing blocks.
vec4 spread(int turn) {
    float far = exp2(float(turn)) * 2.0;
    vec4 sum = texture(spread, uv) * 4.0;
    for (int i = 0; i < 4; i++) {
        float side = i % 2 == 0 ? far : -far;
        vec2 straight = i < 2 ? vec2(side, 0) : vec2(0, side);
        vec2 slanted = vec2(side, i < 2 ? far : -far);
        sum += texture(spread, uv + straight * pixel_size) * 2.0 + texture(spread, uv + slanted * pixel_size);
    }
    return sum / 16.0;
}
vec4 glow(sampler2D picture, float strength) {
    vec4 c = texture(picture, uv);
    return vec4(c.rgb + texture(spread, uv).rgb * strength, c.a);
}
