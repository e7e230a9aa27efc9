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
//! stage wide size 1/2 repeat 12
//! stage glow
vec4 bright(sampler2D picture, float threshold_at, float knee) {
    vec4 c = texture(picture, uv);
    float share = smoothstep(threshold_at, threshold_at + max(knee, 0.0001), luminance(c.rgb));
    return vec4(c.rgb * c.a * share, 1);
}
// Two rounds, across and down, for each scale, and twice as far apart for the next: together a cubic B-spline, which is
// round and smooth. Variances add: the widest scale is 32 of the narrowest.
vec4 wide(float spread, int turn) {
    vec2 to = (turn % 2 == 0 ? vec2(1, 0) : vec2(0, 1)) * exp2(float(turn / 2)) * spread / 36.945906 * pixel_size;
    vec4 sum = texture(wide, uv) * 6.0;
    sum += (texture(wide, uv + to) + texture(wide, uv - to)) * 4.0;
    sum += texture(wide, uv + to * 2.0) + texture(wide, uv - to * 2.0);
    return sum / 16.0;
}
vec4 glow(sampler2D picture, float strength) {
    vec4 c = texture(picture, uv);
    return vec4(c.rgb + texture(wide, uv).rgb * strength, c.a);
}
