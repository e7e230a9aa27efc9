//! title Grain in space
//! group Noise
//! about White noise in space: a random value for each small cube, unrelated to its neighbours.
//! says grain of {place}, {size} large, seed {seed}
//! shown grain_in_space(vec3(centred() * 3, hill * 1.2), 0.1)
//! value place 3 coordinate = vec3(uv, 0) : the places it is drawn at, such as a position in the world
//! value size 1 number = 0.1 in 0.001..10 : of a cube, in the unit of the places
//! value seed 1 number = 0 in 0..100 : another seed is another noise
float grain_in_space(vec3 place, float size, float seed) {
    return hash(place / max(size, 0.0001) + floor(hash(seed) * 4096));
}
