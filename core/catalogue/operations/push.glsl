//! title Push
//! group Coordinates
//! about Reads a picture from places that a vector pushes away.
//! says push {picture} by {by} times {amount}
//! shown push(harbour, vec2(blotch, 0.5), 0.2, 1)
//! picture picture same colour : what is pushed
//! value by 2 displacement : how far, in frame heights
//! value amount 1 number = 1 in -1..1 : times as far
//! value centring 1 choice = 0 of as it is, from 0..1 : whether 0.5 stands still, as in a picture of vectors
same push(sampler2D picture, vec2 by, float amount, float centring) {
    vec2 vector = centring < 0.5 ? by : by * 2 - 1;
    return texture(picture, uv - vector * amount * vec2(1.0 / aspect, 1));
}
