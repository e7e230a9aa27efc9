//! title Levels
//! group Maths
//! about Sets the black and white points, the middle, and the darkest and lightest that come out.
//! says {x} with black {black}, white {white}, middle {gamma}
//! shown levels(harbour, 0.05, 0.5, 1.3)
//! value x same colour : what is changed
//! value black 1 number = 0 in 0..1 : what becomes darkest
//! value white 1 number = 1 in 0..2 : what becomes lightest
//! value gamma 1 number = 1 in 0.1..10 : above 1 lifts the middle
//! value out_black 1 number = 0 in 0..1 : the darkest that comes out
//! value out_white 1 number = 1 in 0..2 : the lightest that comes out
same levels(same x, float black, float white, float gamma, float out_black, float out_white) {
    float span = white - black;
    same t = clamp((x - black) / (span == 0 ? 0.000001 : span), 0, 1);
    return with_opacity_of(out_black + (out_white - out_black) * pow(t, same(1 / max(gamma, 0.0001))), x);
}
