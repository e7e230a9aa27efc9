//! title Broken tiles
//! group Coordinates
//! about Cuts the frame into tiles and moves each as one by noise, with mirrored borders; gently it only bends.
//! says {count} by {count} tiles moved by {amount}, {broken} broken
//! shown texture(harbour, broken_tiles(uv, 7, 0.12))
//! value where 2 coordinate = uv : the places to move
//! value count 1 number = 6 in 1..40 : tiles each way
//! value amount 1 number = 0.08 in 0..0.5 : how far they move, in frames
//! value broken 1 number = 1 in 0..1 : 0 bends the whole smoothly, 1 moves each tile as one
//! value change 1 number = 0 in 0..10 : how far the noise has changed; drive it with time
//! value seed 1 number = 0 in 0..100 : another seed is another break
//! value way 1 choice = 0 of moved, scaled : whether noise is added to places or multiplied
//! value alike 1 choice = 0 of each its own, alike : whether both directions go by the same noise
vec2 broken_tiles(vec2 where, float count, float amount, float broken, float change, float seed, float way, float alike) {
    vec2 cell = where * max(count, 1);
    vec2 at = mix(cell, floor(cell) + 0.5, broken) * 0.71 + hash(seed) * 289;
    float first = gradient_noise(vec3(at, change)) * 2 - 1;
    float second = gradient_noise(vec3(at + 57.3, change)) * 2 - 1;
    vec2 by = vec2(first, alike < 0.5 ? second : first) * amount;
    return mirrored(way < 0.5 ? where + by : 0.5 + (where - 0.5) * (1 + by * 2));
}
