//! title Splat over
//! group Droplets
//! about Lays splats over a picture: tinted, faded, and what is behind them displaced, more where they are thick.
//! says lay {splats} over {picture}, tinted {tint}, by {amount}, displacing {displaced}
//! shown splat_over(harbour, vec4(0.16, 0.3, 0.28, smoothstep(0.32, 0.28, length((uv - 0.5) * vec2(1.6, 1)) + blotch * 0.1)), uv - 0.5, vec3(1), 0.6, 0.3)
//! picture picture 4 colour : what is behind
//! value splats 4 colour : their colours and opacity, such as drops
//! value push 2 displacement : the slope of their height, such as drops_push
//! value tint 3 colour = vec3(1) in 0..2 : multiplies their colours
//! value amount 1 mask = 0.8 in 0..1 : how much of them is seen
//! value displaced 1 number = 0.03 in 0..0.5 : how far the steepest displaces, in shorter sides
vec4 splat_over(sampler2D picture, vec4 splats, vec2 push, vec3 tint, float amount, float displaced) {
    float thick = clamp(splats.a, 0, 1);
    vec4 behind = texture(picture, uv - push * thick * displaced * min(frame_size.x, frame_size.y) / frame_size);
    float cover = thick * amount;
    if (cover <= 0) return behind;
    return unpremultiply(mix(premultiply(behind), vec4(splats.rgb * tint, 1), cover));
}
