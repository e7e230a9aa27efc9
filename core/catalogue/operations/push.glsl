//! title Push
//! group Coordinates
//! about Reads a picture from places that a vector pushes away.
//! says push {picture} by {by} times {amount}
//! picture picture same colour : what is pushed
//! value by 2 displacement : how far, in frame heights
//! value amount 1 number = 1 in -1..1 : times as far
same push(sampler2D picture, vec2 by, float amount) {
    return texture(picture, uv - by * amount * vec2(1.0 / aspect, 1));
}
