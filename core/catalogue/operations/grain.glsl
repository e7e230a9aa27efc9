//! title Grain
//! group Noise
//! about White noise: a random value for each small square, unrelated to its neighbours.
//! says grain {size} large, seed {seed}
//! shown grain(0.02)
//! value size 1 number = 0.005 in 0.0005..0.2 : of a square, in frame heights
//! value change 1 number = 0 in 0..100 : each whole number is another grain; drive it with time
//! value seed 1 number = 0 in 0..100 : another seed is another noise
//! value where 2 coordinate = uv : the places it is drawn at
float grain(float size, float change, float seed, vec2 where) {
    return hash(vec3(where * vec2(aspect, 1) / max(size, 0.0001) + floor(hash(seed) * 4096), change));
}
