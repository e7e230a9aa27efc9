//! title Disc blur
//! group Neighbours
//! about Softens a picture as a lens out of focus does: bright points become discs.
//! says {picture} out of focus by {radius}
//! shown disc_blur(harbour, 9)
//! picture picture same colour : what is softened
//! value radius 1 number = 6 in 0..32 px : of the disc
same disc_blur(sampler2D picture, float radius) {
    if (radius <= 0) return texture(picture, uv);
    same sum = same(0);
    // Even over the disc: a spiral that turns by the golden angle.
    for (int i = 0; i < 64; i++) {
        float at = float(i);
        float away = radius * sqrt((at + 0.5) / 64);
        sum += premultiply(texture(picture, uv + vec2(cos(at * 2.3999632), sin(at * 2.3999632)) * away * pixel_size));
    }
    return unpremultiply(sum / 64);
}
