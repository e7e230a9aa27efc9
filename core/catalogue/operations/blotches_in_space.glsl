//! title Blotches in space
//! group Noise
//! about Value noise in space: it neither stretches nor slides on any surface.
//! says blotches of {place}, {size} large, seed {seed}
//! shown blotches_in_space(vec3(centred() * 3, hill * 1.2), 0.3)
//! value place 3 coordinate = vec3(uv, 0) : the places it is drawn at, such as a position in the world
//! value size 1 number = 0.2 in 0.001..10 : of a blotch, in the unit of the places
//! value seed 1 number = 0 in 0..100 : another seed is another noise
float blotches_in_space(vec3 place, float size, float seed) {
    return value_noise(place / max(size, 0.0001) + hash(seed) * 289);
}
