//! title Drifting layers
//! group Noise
//! about Three layers of noise that drift apart, with contrast and gain: it oozes.
//! says layers {size} large, moved by {moved}, to the power {contrast} times {gain}
//! shown drifting_layers(0.3, 0.4, 3, 4)
//! value size 1 number = 0.2 in 0.01..1 : of the largest blotches, in frame heights
//! value moved 1 number = time in 0..10 : how far they have drifted; seconds drift at the pace of one size a second
//! value contrast 1 number = 2 in 0.25..8 : the power that the sum is raised to
//! value gain 1 number = 2 in 0..8 : times as much after that, held to 0..1
//! value seed 1 number = 0 in 0..100 : another seed is another noise
//! value where 2 coordinate = uv : the places it is drawn at
float drifting_layers(float size, float moved, float contrast, float gain, float seed, vec2 where) {
    vec2 at = where * vec2(aspect, 1) / max(size, 0.0001) + hash(seed) * 289;
    float sum = gradient_noise(vec3(at + vec2(0.1, 0.9) * moved, moved * 0.15)) * 0.5;
    sum += gradient_noise(vec3(at * 1.9 + vec2(-0.7, 0.4) * moved + 31.7, moved * 0.2)) * 0.3;
    sum += gradient_noise(vec3(at * 3.7 + vec2(0.5, -0.6) * moved + 63.1, moved * 0.3)) * 0.2;
    return clamp(pow(sum, contrast) * gain, 0, 1);
}
