//! title Gaussian blur
//! group Neighbours
//! about Softens a picture evenly, as if it were out of focus.
//! says blur {picture} by {sigma}
//! shown gaussian_blur(harbour, 7)
//! picture picture same colour : what is softened
//! value sigma 1 number = 4 in 0..64 px : standard deviation of the Gaussian
//! stage copy
//! stage quarter size 1/4
//! stage at_quarter size 1/4 repeat 2
//! stage sixteenth size 1/16
//! stage at_sixteenth size 1/16 repeat 2
//! stage across
//! stage gaussian_blur
// Wide ones are drawn on copies at a quarter and a sixteenth of the size. What averaging down and spreading up again
// soften by themselves is left out of the Gaussian between them: variances add.
float share(float away, float sigma) {
    return exp(-0.5 * away * away / (sigma * sigma));
}
// Standard deviation, in pixels of a copy, that is left to do there: making a copy has a variance of (1 - 1 / n^2) / 6,
// a cubic B-spline one of 1 / 3.
float rest(float sigma, float size) {
    float variance = sigma * sigma / (size * size);
    return sqrt(clamp(variance - (1.0 - 1.0 / (size * size)) / 6.0 - 1.0 / 3.0, 0.01, 256.0));
}
// A tent over eight pixels as four linear readings between two pixels each: where, and how much. Unlike a plain average it
// leaves everything in its place.
vec2 tent(int reading) {
    float far = reading == 0 || reading == 3 ? 2.75 : 0.91666667;
    return vec2(reading < 2 ? -far : far, reading == 0 || reading == 3 ? 0.125 : 0.375);
}
same copy(sampler2D picture) {
    return premultiply(texture(picture, uv));
}
same quarter(float sigma) {
    if (sigma <= 12.0) return same(0);
    same sum = same(0);
    for (int i = 0; i < 16; i++) {
        vec2 x = tent(i % 4);
        vec2 y = tent(i / 4);
        sum += texture(copy, uv + vec2(x.x, y.x) * pixel_size) * (x.y * y.y);
    }
    return sum;
}
// One pixel of a copy to the right in the first round, and down in the second.
vec2 one_pixel(int turn, float size) {
    return (turn == 0 ? vec2(1, 0) : vec2(0, 1)) / ceil(frame_size / size);
}
same at_quarter(float sigma, int turn) {
    if (sigma <= 12.0 || sigma > 48.0) return same(0);
    float s = rest(sigma, 4.0);
    same sum = texture(at_quarter, uv);
    float total = 1.0;
    float reach = ceil(s * 4.0);
    for (float i = 1.0; i <= reach; i++) {
        float w = share(i, s);
        vec2 to = i * one_pixel(turn, 4.0);
        sum += (texture(at_quarter, uv + to) + texture(at_quarter, uv - to)) * w;
        total += 2.0 * w;
    }
    return sum / total;
}
same sixteenth(float sigma) {
    if (sigma <= 48.0) return same(0);
    same sum = same(0);
    for (int i = 0; i < 16; i++) {
        vec2 x = tent(i % 4);
        vec2 y = tent(i / 4);
        sum += texture(quarter, uv + vec2(x.x, y.x) * 4.0 * pixel_size) * (x.y * y.y);
    }
    return sum;
}
same at_sixteenth(float sigma, int turn) {
    if (sigma <= 48.0) return same(0);
    float s = rest(sigma, 16.0);
    same sum = texture(at_sixteenth, uv);
    float total = 1.0;
    float reach = ceil(s * 4.0);
    for (float i = 1.0; i <= reach; i++) {
        float w = share(i, s);
        vec2 to = i * one_pixel(turn, 16.0);
        sum += (texture(at_sixteenth, uv + to) + texture(at_sixteenth, uv - to)) * w;
        total += 2.0 * w;
    }
    return sum / total;
}
same across(float sigma) {
    if (sigma > 12.0 || sigma <= 0.0) return same(0);
    same sum = texture(copy, uv);
    float total = 1.0;
    float reach = ceil(sigma * 4.0);
    for (float i = 1.0; i <= reach; i++) {
        float w = share(i, sigma);
        vec2 to = vec2(i * pixel_size.x, 0);
        sum += (texture(copy, uv + to) + texture(copy, uv - to)) * w;
        total += 2.0 * w;
    }
    return sum / total;
}
// Where the four linear readings of a cubic B-spline lie beside a place, in pixels of the copy, and how much the first
// counts: Sigg and Hadwiger, "Fast Third-Order Texture Filtering", GPU Gems 2 (2005), chapter 20, from memory.
vec3 spline(float f) {
    float w0 = (1.0 - f) * (1.0 - f) * (1.0 - f) / 6.0;
    float w1 = (4.0 - 6.0 * f * f + 3.0 * f * f * f) / 6.0;
    float w3 = f * f * f / 6.0;
    float w2 = 1.0 - w0 - w1 - w3;
    return vec3(w1 / (w0 + w1) - 1.0 - f, w3 / (w2 + w3) + 1.0 - f, w0 + w1);
}
same narrow(float sigma) {
    same sum = texture(across, uv);
    float total = 1.0;
    float reach = ceil(sigma * 4.0);
    for (float i = 1.0; i <= reach; i++) {
        float w = share(i, sigma);
        vec2 to = vec2(0, i * pixel_size.y);
        sum += (texture(across, uv + to) + texture(across, uv - to)) * w;
        total += 2.0 * w;
    }
    return sum / total;
}
same gaussian_blur(sampler2D picture, float sigma) {
    if (sigma <= 0.0) return texture(picture, uv);
    if (sigma <= 12.0) return unpremultiply(narrow(sigma));
    vec2 copy_size = ceil(frame_size / (sigma > 48.0 ? 16.0 : 4.0));
    vec2 at = uv * copy_size - 0.5;
    vec3 x = spline(fract(at.x));
    vec3 y = spline(fract(at.y));
    vec2 a = uv + vec2(x.x, y.x) / copy_size;
    vec2 b = uv + vec2(x.y, y.x) / copy_size;
    vec2 c = uv + vec2(x.x, y.y) / copy_size;
    vec2 d = uv + vec2(x.y, y.y) / copy_size;
    same top;
    same bottom;
    if (sigma > 48.0) {
        top = mix(texture(at_sixteenth, b), texture(at_sixteenth, a), x.z);
        bottom = mix(texture(at_sixteenth, d), texture(at_sixteenth, c), x.z);
    } else {
        top = mix(texture(at_quarter, b), texture(at_quarter, a), x.z);
        bottom = mix(texture(at_quarter, d), texture(at_quarter, c), x.z);
    }
    return unpremultiply(mix(bottom, top, y.z));
}
