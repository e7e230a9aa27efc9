//! title Curl of
//! group Flow
//! about Makes of any height a vector that runs round its hills and hollows: it has no corner to pull to, and nothing piles up.
//! says vectors round {height}, times {amount}
//! shown curl_of(blotch, 0.4)
//! picture height 1 number : such as a noise
//! value amount 1 number = 0.1 in -2..2 : times as fast
// Differences of neighbours of the height's own: the sum of what goes in and out of a pixel is 0 (vector calculus, any handbook).
vec2 curl_of(sampler2D height, float amount) {
    vec2 one = 1 / vec2(textureSize(height));
    vec2 side = one * frame_size / min(frame_size.x, frame_size.y);
    float down = texture(height, uv + vec2(0, one.y)) - texture(height, uv - vec2(0, one.y));
    float along = texture(height, uv + vec2(one.x, 0)) - texture(height, uv - vec2(one.x, 0));
    return vec2(down / (2 * side.y), -along / (2 * side.x)) * amount;
}
