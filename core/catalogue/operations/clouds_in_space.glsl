//! title Clouds in space
//! group Noise
//! about A fractal sum in space: it neither stretches nor slides on any surface.
//! says clouds of {place}, {size} large of {octaves} octaves, seed {seed}
//! shown clouds_in_space(vec3(centred() * 3, hill * 1.2), 0.8, 5)
//! value place 3 coordinate = vec3(uv, 0) : the places it is drawn at, such as a position in the world
//! value size 1 number = 0.5 in 0.001..10 : of the largest blotch, in the unit of the places
//! value octaves 1 number = 5 in 1..8 : how many; a part of one fades it in
//! value of 1 choice = 0 of gradient, value, cellular : the noise that is summed
//! value seed 1 number = 0 in 0..100 : another seed is another noise
float clouds_in_space(vec3 place, float size, float octaves, float of, float seed) {
    vec3 at = place / max(size, 0.0001) + hash(seed) * 289;
    if (of >= 1.5) return fractal_cellular_noise(at, octaves);
    if (of >= 0.5) return fractal_value_noise(at, octaves);
    return fractal_gradient_noise(at, octaves);
}
