//! title Glow
//! group Neighbours
//! about Lets what is brighter than a threshold shine over its surroundings.
//! says glow of {picture} above {threshold_at}, {spread} wide and {strength} strong
//! shown glow(harbour, 1.05, 0.3, 26, 2.5)
//! picture picture 4 colour : what glows
//! value threshold_at 1 number = 1.05 in 0..4 : brightness above which it glows; what is darker is left as it is
//! value knee 1 number = 0.2 in 0..2 : how softly it sets in above that
//! value spread 1 number = 24 in 0..50 px : standard deviation of the widest part of the glow
//! value strength 1 number = 0.6 in 0..4 : times as bright
//! stage bright size 1/2
//! stage wide size 1/2 repeat 6
//! stage glow
vec4 bright(sampler2D picture, float threshold_at, float knee) {
    vec4 c = texture(picture, uv);
    float share = smoothstep(threshold_at, threshold_at + max(knee, 0.0001), luminance(c.rgb));
    return vec4(c.rgb * c.a * share, 1);
}
// Each round reads the one before twice as far apart: no blocks show, and variances add to that of the spread.
vec4 wide(float spread, int turn) {
    float far = exp2(float(turn)) * spread / 26.124701;
    vec4 sum = texture(wide, uv) * 4.0;
    for (int i = 0; i < 4; i++) {
        float side = i % 2 == 0 ? far : -far;
        vec2 straight = i < 2 ? vec2(side, 0) : vec2(0, side);
        vec2 slanted = vec2(side, i < 2 ? far : -far);
        sum += texture(wide, uv + straight * pixel_size) * 2.0 + texture(wide, uv + slanted * pixel_size);
    }
    return sum / 16.0;
}
vec4 glow(sampler2D picture, float strength) {
    vec4 c = texture(picture, uv);
    return vec4(c.rgb + texture(wide, uv).rgb * strength, c.a);
}
