//! title Gaussian blur
//! group Neighbours
//! about Softens a picture evenly, as if it were out of focus.
//! says blur {picture} by {sigma}
//! shown gaussian_blur(harbour, 7)
//! picture picture same colour : what is softened
//! value sigma 1 number = 4 in 0..512 px : standard deviation of the Gaussian
//! stage copy
//! stage quarter size 1/4 native gaussian_quarter of copy by copied
//! stage quarter_across size 1/4 native gaussian_across of quarter by rest_across
//! stage quarter_down size 1/4 native gaussian_down of quarter_across by rest_down
//! stage spread native spline_from_quarter of quarter_down by spreads
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
float copied(float sigma) {
    return is_wide(sigma) ? making() : 0.0;
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
    if (!is_wide(sigma)) return 0.0;
    return sqrt(max(sigma * sigma / (pixel_of_copy * pixel_of_copy) - making() * making() - 1.0 / 3.0, 0.01));
}
float rest_across(float sigma) {
    return rest(sigma, pace().x);
}
float rest_down(float sigma) {
    return rest(sigma, pace().y);
}
same quarter_across(float sigma) {
    float s = rest_across(sigma);
    if (s <= 0.0) return same(0);
    same sum = texture(quarter, uv);
    float total = 1.0;
    float reach = ceil(s * 4.0);
    for (float i = 1.0; i <= reach; i++) {
        float w = share(i, s);
        vec2 to = vec2(i / copy_size().x, 0);
        sum += (texture(quarter, uv + to) + texture(quarter, uv - to)) * w;
        total += 2.0 * w;
    }
    return sum / total;
}
same quarter_down(float sigma) {
    float s = rest_down(sigma);
    if (s <= 0.0) return same(0);
    same sum = texture(quarter_across, uv);
    float total = 1.0;
    float reach = ceil(s * 4.0);
    for (float i = 1.0; i <= reach; i++) {
        float w = share(i, s);
        vec2 to = vec2(0, i / copy_size().y);
        sum += (texture(quarter_across, uv + to) + texture(quarter_across, uv - to)) * w;
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
float spreads(float sigma) {
    return is_wide(sigma) ? 1.0 : 0.0;
}
same spread(float sigma) {
    if (!is_wide(sigma)) return same(0);
    vec2 place = uv * frame_size / pace() + 4.0;
    vec2 at = place / copy_size();
    vec3 x = spline(fract(place.x - 0.5));
    vec3 y = spline(fract(place.y - 0.5));
    same top = mix(texture(quarter_down, at + vec2(x.y, y.x) / copy_size()),
                   texture(quarter_down, at + vec2(x.x, y.x) / copy_size()), x.z);
    same bottom = mix(texture(quarter_down, at + vec2(x.y, y.y) / copy_size()),
                      texture(quarter_down, at + vec2(x.x, y.y) / copy_size()), x.z);
    return mix(bottom, top, y.z);
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
same gaussian_blur(sampler2D picture, float sigma) {
    if (sigma <= 0.0) return texture(picture, uv);
    if (!is_wide(sigma)) return unpremultiply(texture(down, uv));
    return unpremultiply(texture(spread, uv));
}
