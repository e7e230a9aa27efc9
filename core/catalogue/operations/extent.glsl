//! shared
// The least and the largest value in one of 32 strips of the picture, then in all of them: so that a mask whose values lie
// close together is spread as finely as any other.
vec2 rows(sampler2D mask) {
    float strip = floor(uv.y * 32);
    vec2 found = vec2(1, 0);
    for (float i = 0; i < 256; i++) {
        float value = clamp(texture(mask, vec2((i + 0.5) / 256, (strip + fract(i * 0.61803399)) / 32)), 0, 1);
        found = vec2(min(found.x, value), max(found.y, value));
    }
    return found;
}
vec2 ends() {
    vec2 found = vec2(1, 0);
    for (float i = 0; i < 32; i++) {
        vec2 of_row = texture(rows, vec2(0.5, (i + 0.5) / 32));
        found = vec2(min(found.x, of_row.x), max(found.y, of_row.y));
    }
    return found;
}
