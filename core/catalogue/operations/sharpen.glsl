//! title Sharpen
//! group Neighbours
//! about Makes each pixel differ more from its surroundings.
//! says sharpen {picture} by {amount} over {radius}
//! shown sharpen(harbour, 2.5, 1.5)
//! picture picture same colour : what is sharpened
//! value amount 1 number = 1 in 0..8 : 0 changes nothing
//! value radius 1 number = 1 in 0.5..16 px : how far the surroundings reach
same sharpen(sampler2D picture, float amount, float radius) {
    same here = texture(picture, uv);
    same sum = same(0);
    float total = 0;
    for (int i = 0; i < 8; i++) {
        float angle = float(i) * 0.78539816;
        same there = texture(picture, uv + vec2(cos(angle), sin(angle)) * radius * pixel_size);
        sum += there;
        total += 1;
    }
    return with_opacity_of(here + (here - sum / total) * amount, here);
}
