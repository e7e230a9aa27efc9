//! title Blur by mask
//! group Neighbours
//! about Softens a picture the more, the higher a mask is; where that is 0 the picture is untouched.
//! says blur {picture} by mask {mask} up to {reach}
//! shown blur_by_mask(harbour, vignette(0.1, 0.5), 12)
//! picture picture same colour : what is softened
//! value mask 1 mask : where, and how much
//! value reach 1 number = 8 in 0..32 px : how far at most
same blur_by_mask(sampler2D picture, float mask, float reach) {
    float radius = clamp(mask, 0, 1) * reach;
    if (radius <= 0) return texture(picture, uv);
    same sum = same(0);
    for (int i = 0; i < 32; i++) {
        float at = float(i);
        float away = radius * sqrt((at + 0.5) / 32);
        sum += premultiply(texture(picture, uv + vec2(cos(at * 2.3999632), sin(at * 2.3999632)) * away * pixel_size));
    }
    return unpremultiply(sum / 32);
}
