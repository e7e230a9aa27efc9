//! title Invert
//! group Maths
//! about Turns a mask or a colour round: 0 becomes 1 and 1 becomes 0.
//! says {x} inverted
//! shown invert(harbour)
//! value x same colour : what is turned round
//! value amount 1 number = 1 in 0..1 : 0 changes nothing
same invert(same x, float amount) {
    return with_opacity_of(mix(x, 1 - x, amount), x);
}
