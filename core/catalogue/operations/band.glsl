//! title Band
//! group Maths
//! about 1 between two edges and 0 outside: the rim between two thresholds.
//! says {x} from {low} to {high}
//! shown band(blotch, 0.45, 0.6, 0.03)
//! value x same number : what is compared
//! value low 1 number = 0.4 in 0..1 : where the band begins
//! value high 1 number = 0.6 in 0..1 : where it ends
//! value softness 1 number = 0 in 0..1 : width of both edges
same band(same x, float low, float high, float softness) {
    float half_edge = softness * 0.5;
    same inside = smoothstep(low - half_edge, low + half_edge, x) - smoothstep(high - half_edge, high + half_edge, x);
    return with_opacity_of(inside, x);
}
