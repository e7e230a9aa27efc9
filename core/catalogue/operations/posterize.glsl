//! title Posterize
//! group Colour
//! about Leaves a few even levels of each colour, black and white among them.
//! says {colour} in {levels} levels
//! shown posterize(harbour, 4)
//! value colour same colour : what is changed
//! value levels 1 number = 4 in 2..64 : how many of each colour
same posterize(same colour, float levels) {
    float most = max(floor(levels), 2) - 1;
    return with_opacity_of(min(floor(clamp(colour, 0, 1) * (most + 1)), same(most)) / most, colour);
}
