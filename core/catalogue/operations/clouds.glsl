//! title Clouds
//! group Noise
//! about A fractal sum: noise with finer and finer noise on it.
//! says clouds {size} large of {octaves} octaves, seed {seed}
//! shown clouds(0.5, 6)
//! value size 1 number = 0.4 in 0.01..2 : of the largest blotch, in frame heights
//! value octaves 1 number = 5 in 1..8 : how many; a part of one fades it in
//! value of 1 choice = 0 of gradient, value, cellular : the noise that is summed
//! value change 1 number = 0 in 0..10 : how far it has changed; drive it with time
//! value seed 1 number = 0 in 0..100 : another seed is another noise
//! value where 2 coordinate = uv : the places it is drawn at
float clouds(float size, float octaves, float of, float change, float seed, vec2 where) {
    vec3 at = vec3(where * vec2(aspect, 1) / max(size, 0.0001) + hash(seed) * 289, change);
    if (of >= 1.5) return fractal_cellular_noise(at, octaves);
    if (of >= 0.5) return fractal_value_noise(at, octaves);
    return fractal_gradient_noise(at, octaves);
}
