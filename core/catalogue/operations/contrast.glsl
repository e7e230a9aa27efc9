//! title Contrast
//! group Maths
//! about Moves values away from a middle, or towards it.
//! says {x} with contrast {amount} round {middle}
//! shown contrast(harbour, 2, 0.3)
//! value x same colour : what is changed
//! value amount 1 number = 1.5 in 0..4 : 1 changes nothing
//! value middle 1 number = 0.5 in 0..1 : the value that stays
same contrast(same x, float amount, float middle) {
    return with_opacity_of((x - middle) * amount + middle, x);
}
