//! title Gaussian blur
//! group Neighbours
//! about Softens a picture evenly, as if it were out of focus.
//! says blur {picture} by {sigma}
//! shown gaussian_blur(harbour, 7)
//! picture picture same colour : what is softened
//! value sigma 1 number = 4 in 0..512 px : standard deviation of the Gaussian
//! stage copy
//! stage quarter size 1/4
//! stage at_quarter size 1/4 repeat 2
//! stage across native gaussian_across of copy by near
//! stage down native gaussian_down of across by near
//! stage gaussian_blur
// A wide one is drawn on a copy at about a quarter of the size, with four pixels of the copy to spare on every side: there
// it holds nothing but the border, so what lies beyond reads as it should. What making the copy and spreading it up again
// soften by themselves is left out of the Gaussian between them: variances add.
bool is_wide(float sigma) {
    return sigma > 12.0 && min(frame_size.x, frame_size.y) >= 128.0;
}
float share(float away, float sigma) {
    return exp(-0.5 * away * away / (sigma * sigma));
}
vec2 copy_size() {
    return ceil(frame_size / 4.0);
}
// Pixels of the frame, each way, that a pixel of the copy stands for.
vec2 pace() {
    return frame_size / (copy_size() - 8.0);
}
// The copy is made by a Gaussian whose standard deviation is this part of a pixel of the copy.
float making() {
    return 0.75;
}
same copy(sampler2D picture, float sigma) {
    if (sigma <= 0.0) return same(0);
    return premultiply(texture(picture, uv));
}
// Two pixels by one reading between them: where, counted from the first, and how much both count.
vec2 pair(float away, float sigma) {
    float one = share(away, sigma);
    float other = share(away + 1.0, sigma);
    return vec2(other / (one + other), one + other);
}
same quarter(float sigma) {
    if (!is_wide(sigma)) return same(0);
    vec2 at = (uv * copy_size() - 4.0) * pace();
    vec2 s = making() * pace();
    vec2 first = floor(at - 3.0 * s) + 0.5;
    vec2 count = ceil(3.0 * s);
    same sum = same(0);
    float total = 0.0;
    for (float j = 0.0; j <= count.y; j++) {
        float y = first.y + 2.0 * j;
        vec2 down = pair(y - at.y, s.y);
        for (float i = 0.0; i <= count.x; i++) {
            float x = first.x + 2.0 * i;
            vec2 along = pair(x - at.x, s.x);
            float w = along.y * down.y;
            sum += texture(copy, vec2(x + along.x, y + down.x) * pixel_size) * w;
            total += w;
        }
    }
    return sum / total;
}
// Standard deviation that is left to do on the copy, in its pixels; spreading it up has a variance of a third.
float rest(float sigma, float pixel_of_copy) {
    return sqrt(max(sigma * sigma / (pixel_of_copy * pixel_of_copy) - making() * making() - 1.0 / 3.0, 0.01));
}
// To the right in the first round, and down in the second.
same at_quarter(float sigma, int turn) {
    if (!is_wide(sigma)) return same(0);
    float s = rest(sigma, turn == 0 ? pace().x : pace().y);
    vec2 one_pixel = (turn == 0 ? vec2(1, 0) : vec2(0, 1)) / copy_size();
    same sum = texture(at_quarter, uv);
    float total = 1.0;
    float reach = ceil(s * 4.0);
    for (float i = 1.0; i <= reach; i++) {
        float w = share(i, s);
        vec2 to = i * one_pixel;
        sum += (texture(at_quarter, uv + to) + texture(at_quarter, uv - to)) * w;
        total += 2.0 * w;
    }
    return sum / total;
}
// Where it is done at the picture's own size; else 0.
float near(float sigma) {
    return is_wide(sigma) ? 0.0 : sigma;
}
same across(float sigma) {
    if (near(sigma) <= 0.0) return same(0);
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
same down(float sigma) {
    if (near(sigma) <= 0.0) return same(0);
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
// Where the four linear readings of a cubic B-spline lie beside a place, in pixels of the copy, and how much the first
// counts: Sigg and Hadwiger, "Fast Third-Order Texture Filtering", GPU Gems 2 (2005), chapter 20, from memory.
vec3 spline(float f) {
    float w0 = (1.0 - f) * (1.0 - f) * (1.0 - f) / 6.0;
    float w1 = (4.0 - 6.0 * f * f + 3.0 * f * f * f) / 6.0;
    float w3 = f * f * f / 6.0;
    float w2 = 1.0 - w0 - w1 - w3;
    return vec3(w1 / (w0 + w1) - 1.0 - f, w3 / (w2 + w3) + 1.0 - f, w0 + w1);
}
same gaussian_blur(sampler2D picture, float sigma) {
    if (sigma <= 0.0) return texture(picture, uv);
    if (!is_wide(sigma)) return unpremultiply(texture(down, uv));
    vec2 place = uv * frame_size / pace() + 4.0;
    vec2 at = place / copy_size();
    vec3 x = spline(fract(place.x - 0.5));
    vec3 y = spline(fract(place.y - 0.5));
    same top = mix(texture(at_quarter, at + vec2(x.y, y.x) / copy_size()),
                   texture(at_quarter, at + vec2(x.x, y.x) / copy_size()), x.z);
    same bottom = mix(texture(at_quarter, at + vec2(x.y, y.y) / copy_size()),
                      texture(at_quarter, at + vec2(x.x, y.y) / copy_size()), x.z);
    return unpremultiply(mix(bottom, top, y.z));
}
