//! title Threshold
//! group Maths
//! about 0 below an edge and 1 above it, with as soft a change as is asked for.
//! says {x} above {edge}
//! shown threshold(blotch, 0.5, 0.1)
//! value x same number : what is compared
//! value edge 1 number = 0.5 in 0..1 : where it changes
//! value softness 1 number = 0 in 0..1 : width of the change; 0 is hard
same threshold(same x, float edge, float softness) {
    return with_opacity_of(smoothstep(edge - softness * 0.5, edge + softness * 0.5, x), x);
}
