//! title Gain
//! group Maths
//! about Multiplies, so that black stays black.
//! says {x} times {amount}
//! shown gain(harbour, 2.5)
//! value x same colour : what is changed
//! value amount 1 number = 1.5 in 0..8 : times as much
same gain(same x, float amount) {
    return with_opacity_of(x * amount, x);
}
