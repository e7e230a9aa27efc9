//! title Grow
//! group Neighbours
//! about Makes what is bright larger by a distance.
//! says grow {picture} by {radius}
//! shown grow(stones, 9)
//! picture picture same mask : what grows
//! value radius 1 number = 4 in 0..32 px : how far; parts of a pixel count
//! value corners 1 choice = 0 of round, square : what a single point becomes
//! stage ones
//! stage twos
//! stage fours
//! stage eights
//! stage sixteens
//! stage thirties
//! stage sixties
//! stage over native greatest_over_disc of ones by reach
//! stage grow
// Of a row of pixels: max of two.
same further(same a, same b) {
    return max(a, b);
}
//! uses discs
same grow(sampler2D picture, float radius, float corners) {
    if (radius <= 0) return texture(picture, uv);
    return unpremultiply(texture(over, uv));
}
