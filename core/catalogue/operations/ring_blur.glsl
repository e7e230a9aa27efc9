//! title Ring blur
//! group Neighbours
//! about The mean of readings on a circle, whose radius may differ from pixel to pixel: a dazed look.
//! says {taps} readings round {picture}, {radius} away
//! shown ring_blur(harbour, 12, 24, 0.4)
//! picture picture same colour : what is blurred
//! value radius 1 number = 8 in 0..64 px : of the circle
//! value taps 1 number = 16 in 1..64 : readings; one moves the picture sideways, two make two of it
//! value jitter 1 number = 0 in 0..1 : how much shorter the radius may be, at random, for each pixel and reading
//! value seed 1 number = 0 in 0..100 : another seed is another jitter
same ring_blur(sampler2D picture, float radius, float taps, float jitter, float seed) {
    if (radius <= 0) return texture(picture, uv);
    same sum = same(0);
    float count = clamp(floor(taps), 1, 256);
    for (float i = 0; i < count; i++) {
        float angle = 6.2831853 * i / count;
        float away = radius * (1 - jitter * hash(vec3(pixel, i + floor(seed) * 64)));
        sum += premultiply(texture(picture, uv + vec2(cos(angle), sin(angle)) * away * pixel_size));
    }
    return unpremultiply(sum / count);
}
