//! title Cycle
//! group Maths
//! about Rises from one value to another, jumps back and rises again: a sawtooth of time.
//! says from {from} to {to} every {seconds}
//! shown cycle(2, 0, 1, 0, time + uv.x * 5)
//! value seconds 1 number = 1 in 0.01..60 s : how long one run takes
//! value from 1 number = 0 in -1..1 : where it begins
//! value to 1 number = 1 in -1..2 : where it ends
//! value phase 1 number = 0 in 0..1 turns : how far it has run at the start
//! value at 1 number = time : the moment
float cycle(float seconds, float from, float to, float phase, float at) {
    return mix(from, to, fract(at / max(seconds, 0.000001) + phase));
}
