//! title Swing
//! group Maths
//! about Goes to and fro between two values for ever.
//! says {shape} between {low} and {high} every {seconds}
//! shown swing(2, 0, 1, 0, 0, time + uv.x * 5)
//! value seconds 1 number = 1 in 0.01..60 s : how long to and fro takes; the size of a sine takes half of that
//! value low 1 number = 0 in -1..1 : its lowest
//! value high 1 number = 1 in -1..2 : its highest
//! value shape 1 choice = 0 of sine, size of sine, triangle, square : how it goes
//! value phase 1 number = 0 in 0..1 turns : how far it has gone at the start
//! value at 1 number = time : the moment
float swing(float seconds, float low, float high, float shape, float phase, float at) {
    float turns = at / max(seconds, 0.000001) + phase;
    float wave = sin(6.2831853 * fract(turns));
    float share = abs(wave);
    if (shape < 0.5) share = 0.5 + 0.5 * wave;
    if (shape >= 1.5) share = 1 - abs(fract(turns + 0.25) * 2 - 1);
    if (shape >= 2.5) share = fract(turns) < 0.5 ? 1 : 0;
    return mix(low, high, share);
}
