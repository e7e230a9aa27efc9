//! title Drifting layers in space
//! group Noise
//! about Three layers of noise in space that drift apart, with contrast and gain: it oozes over any surface.
//! says layers of {place}, {size} large, moved by {moved}, to the power {contrast} times {gain}
//! shown drifting_layers_in_space(vec3(centred() * 3, hill * 1.2), 0.8, 0.4, 3, 4)
//! value place 3 coordinate = vec3(uv, 0) : the places it is drawn at, such as a position in the world
//! value size 1 number = 0.5 in 0.001..10 : of the largest blotches, in the unit of the places
//! value moved 1 number = time in 0..10 : how far they have drifted; seconds drift at the pace of one size a second
//! value contrast 1 number = 2 in 0.25..8 : the power that the sum is raised to
//! value gain 1 number = 2 in 0..8 : times as much after that, held to 0..1
//! value seed 1 number = 0 in 0..100 : another seed is another noise
float drifting_layers_in_space(vec3 place, float size, float moved, float contrast, float gain, float seed) {
    vec3 at = place / max(size, 0.0001) + hash(seed) * 289;
    float sum = gradient_noise(at + vec3(0.1, 0.9, 0.2) * moved) * 0.5;
    sum += gradient_noise(at * 1.9 + vec3(-0.7, 0.4, -0.5) * moved + 31.7) * 0.3;
    sum += gradient_noise(at * 3.7 + vec3(0.5, -0.6, 0.3) * moved + 63.1) * 0.2;
    return clamp(pow(sum, contrast) * gain, 0, 1);
}
