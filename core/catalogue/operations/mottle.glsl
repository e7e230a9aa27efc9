//! title Mottle
//! group Noise
//! about Gradient noise: soft blotches without a pattern, that change in time without moving.
//! says mottle {size} large, seed {seed}
//! shown mottle(0.15)
//! value size 1 number = 0.2 in 0.01..1 : of a blotch, in frame heights
//! value change 1 number = 0 in 0..10 : how far it has changed; drive it with time
//! value seed 1 number = 0 in 0..100 : another seed is another noise
//! value where 2 coordinate = uv : the places it is drawn at
float mottle(float size, float change, float seed, vec2 where) {
    vec2 at = where * vec2(aspect, 1) / max(size, 0.0001);
    return gradient_noise(vec3(at + hash(seed) * 289, change));
}
