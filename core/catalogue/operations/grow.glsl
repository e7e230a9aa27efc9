//! title Grow
//! group Neighbours
//! about Makes what is bright larger by a distance.
//! says grow {picture} by {radius}
//! shown grow(stones, 9)
//! picture picture same mask : what grows
//! value radius 1 number = 4 in 0..32 px : how far; parts of a pixel count
//! value corners 1 choice = 0 of round, square : what a single point becomes
//! stage across
//! stage down
//! stage falling
//! stage grow
// A round one is an octagon: four runs along lines, in place of all pixels of a disc.
float straight(float radius, float corners) {
    return min(radius, 256) * (corners < 0.5 ? 0.41421356 : 1);
}
float slanted(float radius, float corners) {
    return corners < 0.5 ? min(radius, 256) * 0.29289322 : 0;
}
same across(sampler2D picture, float radius, float corners) {
    same found = premultiply(texture(picture, uv));
    float far = straight(radius, corners);
    for (float i = 1; i < far + 1; i++) {
        vec2 to = vec2(min(i, far) * pixel_size.x, 0);
        found = max(found, max(premultiply(texture(picture, uv + to)), premultiply(texture(picture, uv - to))));
    }
    return found;
}
same down(float radius, float corners) {
    same found = texture(across, uv);
    float far = straight(radius, corners);
    for (float i = 1; i < far + 1; i++) {
        vec2 to = vec2(0, min(i, far) * pixel_size.y);
        found = max(found, max(texture(across, uv + to), texture(across, uv - to)));
    }
    return found;
}
same falling(float radius, float corners) {
    same found = texture(down, uv);
    float far = slanted(radius, corners);
    for (float i = 1; i < far + 1; i++) {
        vec2 to = min(i, far) * pixel_size;
        found = max(found, max(texture(down, uv + to), texture(down, uv - to)));
    }
    return found;
}
same grow(sampler2D picture, float radius, float corners) {
    if (radius <= 0) return texture(picture, uv);
    same found = texture(falling, uv);
    float far = slanted(radius, corners);
    for (float i = 1; i < far + 1; i++) {
        vec2 to = min(i, far) * pixel_size * vec2(1, -1);
        found = max(found, max(texture(falling, uv + to), texture(falling, uv - to)));
    }
    return unpremultiply(found);
}
