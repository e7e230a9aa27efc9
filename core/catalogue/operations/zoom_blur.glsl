//! title Zoom blur
//! group Neighbours
//! about Draws a picture out towards a point, as a rush forward does.
//! says {picture} drawn out from {centre} by {amount}
//! shown zoom_blur(harbour, vec2(0.73, 0.22), 0.35)
//! picture picture same colour : what is drawn out
//! value centre 2 coordinate = vec2(0.5) : the point that stays
//! value amount 1 number = 0.2 in 0..1 : how much of the way to the point
same zoom_blur(sampler2D picture, vec2 centre, float amount) {
    if (amount <= 0) return texture(picture, uv);
    same sum = same(0);
    for (int i = 0; i < 32; i++) {
        vec2 at = mix(uv, centre, amount * (float(i) + 0.5) / 32);
        sum += premultiply(texture(picture, at));
    }
    return unpremultiply(sum / 32);
}
