//! title Streak
//! group Neighbours
//! about Draws a picture out along an angle, as fast movement does.
//! says {picture} drawn out by {length} along {angle}
//! shown streak(harbour, 20, 36)
//! picture picture same colour : what is drawn out
//! value angle 1 number = 0 in 0..360 deg : 0 runs to the right, 90 downwards
//! value length 1 number = 24 in 0..128 px : how far in all
same streak(sampler2D picture, float angle, float length) {
    if (length <= 0) return texture(picture, uv);
    vec2 along = vec2(cos(radians(angle)), sin(radians(angle))) * length * pixel_size;
    same sum = same(0);
    for (int i = 0; i < 32; i++) sum += premultiply(texture(picture, uv + along * ((float(i) + 0.5) / 32 - 0.5)));
    return unpremultiply(sum / 32);
}
