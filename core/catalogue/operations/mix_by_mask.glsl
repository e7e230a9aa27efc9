//! title Mix by mask
//! group Blend
//! about Goes from one picture to another where a mask goes from 0 to 1.
//! says {first} to {second} by {mask}
//! shown mix_by_mask(harbour, chart, stones)
//! value first same colour : what shows where the mask is 0
//! value second same colour : what shows where it is 1
//! value mask 1 mask = 0.5 in 0..1 : how much of the second
same mix_by_mask(same first, same second, float mask) {
    // At both ends it is the very picture, whatever its opacity.
    if (mask <= 0) return first;
    if (mask >= 1) return second;
    return unpremultiply(mix(premultiply(first), premultiply(second), mask));
}
