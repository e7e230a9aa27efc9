//! shared
// The furthest value over a disc, or a square, round each pixel, row by row: what is furthest of 1, 2, 4 ... 64 pixels from
// one on to the right is stored, and two of these make up any row. Read between pixels, they fade at a row's ends, so that
// the disc's rim is smooth. `further` tells which of two values counts.
same ones(sampler2D picture) {
    return premultiply(texture(picture, uv));
}
same twos(float radius) {
    return 2 * radius + 1 < 2 ? same(0) : further(texture(ones, uv), texture(ones, uv + vec2(1 * pixel_size.x, 0)));
}
same fours(float radius) {
    return 2 * radius + 1 < 4 ? same(0) : further(texture(twos, uv), texture(twos, uv + vec2(2 * pixel_size.x, 0)));
}
same eights(float radius) {
    return 2 * radius + 1 < 8 ? same(0) : further(texture(fours, uv), texture(fours, uv + vec2(4 * pixel_size.x, 0)));
}
same sixteens(float radius) {
    return 2 * radius + 1 < 16 ? same(0) : further(texture(eights, uv), texture(eights, uv + vec2(8 * pixel_size.x, 0)));
}
same thirties(float radius) {
    return 2 * radius + 1 < 32 ? same(0) : further(texture(sixteens, uv), texture(sixteens, uv + vec2(16 * pixel_size.x, 0)));
}
same sixties(float radius) {
    return 2 * radius + 1 < 64 ? same(0) : further(texture(thirties, uv), texture(thirties, uv + vec2(32 * pixel_size.x, 0)));
}
// The furthest of the row from `away` pixels left of a place to as many right of it, as far as the frame goes; parts of a
// pixel count.
same over_row(vec2 place, float away) {
    float first = max(place.x * frame_size.x - away, 0.5);
    float last = min(place.x * frame_size.x + away, frame_size.x - 0.5);
    float wide = last - first + 1;
    vec2 left = vec2(first * pixel_size.x, place.y);
    vec2 right = vec2(last * pixel_size.x, place.y);
    vec2 one = vec2(pixel_size.x, 0);
    if (wide >= 64) return further(texture(sixties, left), texture(sixties, right - 63 * one));
    if (wide >= 32) return further(texture(thirties, left), texture(thirties, right - 31 * one));
    if (wide >= 16) return further(texture(sixteens, left), texture(sixteens, right - 15 * one));
    if (wide >= 8) return further(texture(eights, left), texture(eights, right - 7 * one));
    if (wide >= 4) return further(texture(fours, left), texture(fours, right - 3 * one));
    if (wide >= 2) return further(texture(twos, left), texture(twos, right - one));
    return further(texture(ones, left), texture(ones, right));
}
// What the native way of `over` is handed: a square's radius is below 0.
float reach(float radius, float corners) {
    float far = max(min(radius, 63), 0);
    return corners < 0.5 ? far : -far;
}
same over(float radius, float corners) {
    float far = reach(radius, 0);
    if (far <= 0) return same(0);
    same found = over_row(uv, far);
    for (float i = 1; i < far + 1; i++) {
        // The last row may lie in part of a pixel only.
        float down = min(i, far);
        float away = corners < 0.5 ? sqrt(far * far - down * down) : far;
        vec2 to = vec2(0, down * pixel_size.y);
        found = further(found, further(over_row(uv + to, away), over_row(uv - to, away)));
    }
    return found;
}
