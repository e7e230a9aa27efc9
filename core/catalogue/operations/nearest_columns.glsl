//! shared
// Of the nearest place of either kind, what is found within each column; see `nearest`.

// How far up or down the nearest of each kind is, with its sign: each round looks twice as far. What is further than
// `reach`, in pixels of what is drawn, may stay unknown.
vec2 column_round(int turn, float reach) {
    ivec2 size = textureSize(columns);
    ivec2 here = ivec2(floor(uv * vec2(size)));
    int far = int(exp2(float(turn)));
    vec2 found = texelFetch(columns, here);
    // The rounds before reach so far by themselves.
    if (float(far) > reach + 1.0) return found;
    for (int i = 0; i < 2; i++) {
        int to = i == 0 ? far : -far;
        if (here.y + to < 0 || here.y + to >= size.y) continue;
        vec2 other = texelFetch(columns, here + ivec2(0, to)) + float(to);
        if (abs(other.x) < abs(found.x)) found.x = other.x;
        if (abs(other.y) < abs(found.y)) found.y = other.y;
    }
    return found;
}
// What a pixel of the drawn size is in pixels of the frame.
vec2 frame_pixels() {
    return frame_size / vec2(textureSize(seeds));
}
// So many pixels of the frame in pixels of what is drawn, at the most.
float drawn_pixels(float distance) {
    return distance / min(frame_pixels().x, frame_pixels().y);
}
