//! title Vorticity
//! group Flow
//! about Pushes that make whirls whirl more, to be added to the vector that a flow goes by.
//! says whirls of {vector} strengthened by {amount}
//! shown vorticity(vec2(blotch, blotch * blotch), 0.1)
//! picture vector 2 displacement : what a flow goes by
//! value amount 1 number = 0.01 in 0..0.2 : how strongly
//! stage whirl
//! stage vorticity
// Steinhoff and Underhill, "Modification of the Euler equations for vorticity confinement", Physics of Fluids 6 (1994), from memory.
float whirl(sampler2D vector) {
    vec2 one = 1 / vec2(textureSize(vector));
    float right = texture(vector, uv + vec2(one.x, 0)).y - texture(vector, uv - vec2(one.x, 0)).y;
    float down = texture(vector, uv + vec2(0, one.y)).x - texture(vector, uv - vec2(0, one.y)).x;
    vec2 side = one * frame_size / min(frame_size.x, frame_size.y);
    return right / (2 * side.x) - down / (2 * side.y);
}
vec2 vorticity(sampler2D vector, float amount) {
    vec2 one = 1 / vec2(textureSize(vector));
    vec2 rise = vec2(abs(texture(whirl, uv + vec2(one.x, 0))) - abs(texture(whirl, uv - vec2(one.x, 0))),
                     abs(texture(whirl, uv + vec2(0, one.y))) - abs(texture(whirl, uv - vec2(0, one.y))));
    vec2 way = normalize(rise);
    return vec2(way.y, -way.x) * texture(whirl, uv) * amount;
}
