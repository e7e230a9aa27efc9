//! title Blotches
//! group Noise
//! about Value noise: random heights blended smoothly, a little squarer than mottle.
//! says blotches {size} large, seed {seed}
//! shown blotches(0.15)
//! value size 1 number = 0.1 in 0.01..1 : of a blotch, in frame heights
//! value change 1 number = 0 in 0..10 : how far it has changed; drive it with time
//! value seed 1 number = 0 in 0..100 : another seed is another noise
//! value where 2 coordinate = uv : the places it is drawn at
float blotches(float size, float change, float seed, vec2 where) {
    return value_noise(vec3(where * vec2(aspect, 1) / max(size, 0.0001) + hash(seed) * 289, change));
}
