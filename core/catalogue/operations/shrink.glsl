//! title Shrink
//! group Neighbours
//! about Makes what is bright smaller by a distance.
//! says shrink {picture} by {radius}
//! shown shrink(stones, 9)
//! picture picture same mask : what shrinks
//! value radius 1 number = 4 in 0..32 px : how far; parts of a pixel count
//! value corners 1 choice = 0 of round, square : what a single point becomes
//! stage across
//! stage down
//! stage falling
//! stage shrink
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
        found = min(found, min(premultiply(texture(picture, uv + to)), premultiply(texture(picture, uv - to))));
    }
    return found;
}
same down(float radius, float corners) {
    same found = texture(across, uv);
    float far = straight(radius, corners);
    for (float i = 1; i < far + 1; i++) {
        vec2 to = vec2(0, min(i, far) * pixel_size.y);
        found = min(found, min(texture(across, uv + to), texture(across, uv - to)));
    }
    return found;
}
same falling(float radius, float corners) {
    same found = texture(down, uv);
    float far = slanted(radius, corners);
    for (float i = 1; i < far + 1; i++) {
        vec2 to = min(i, far) * pixel_size;
        found = min(found, min(texture(down, uv + to), texture(down, uv - to)));
    }
    return found;
}
same shrink(sampler2D picture, float radius, float corners) {
    if (radius <= 0) return texture(picture, uv);
    same found = texture(falling, uv);
    float far = slanted(radius, corners);
    for (float i = 1; i < far + 1; i++) {
        vec2 to = min(i, far) * pixel_size * vec2(1, -1);
        found = min(found, min(texture(falling, uv + to), texture(falling, uv - to)));
    }
    return unpremultiply(found);
}
