//! title Remap
//! group Maths
//! about Stretches one range of values onto another.
//! says {x} from {low}..{high} to {to_low}..{to_high}
//! shown remap(blotch, 0.3, 0.7)
//! value x same number : what is stretched
//! value low 1 number = 0 in -1..1 : the value that becomes the new low
//! value high 1 number = 1 in -1..2 : the value that becomes the new high
//! value to_low 1 number = 0 in -1..1 : the new low
//! value to_high 1 number = 1 in -1..2 : the new high
//! value ends 1 choice = 0 of held, free : whether values stop at the new ends
same remap(same x, float low, float high, float to_low, float to_high, float ends) {
    float span = high - low;
    same t = (x - low) / (span == 0 ? 0.000001 : span);
    if (ends < 0.5) t = clamp(t, 0, 1);
    return with_opacity_of(to_low + (to_high - to_low) * t, x);
}
