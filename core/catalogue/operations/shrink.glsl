//! title Shrink
//! group Neighbours
//! about Makes what is bright smaller by a distance.
//! says shrink {picture} by {radius}
//! shown shrink(stones, 9)
//! picture picture same mask : what shrinks
//! value radius 1 number = 4 in 0..32 px : how far; parts of a pixel count
//! value corners 1 choice = 0 of round, square : what a single point becomes
//! stage ones
//! stage twos
//! stage fours
//! stage eights
//! stage sixteens
//! stage thirties
//! stage sixties
//! stage over native least_over_disc of ones by reach
//! stage shrink
// Of a row of pixels: min of two.
same further(same a, same b) {
    return min(a, b);
}
//! uses discs
same shrink(sampler2D picture, float radius, float corners) {
    if (radius <= 0) return texture(picture, uv);
    return unpremultiply(texture(over, uv));
}
