//! title Centred
//! group Coordinates
//! about Places measured from the middle of the frame, in units of one of its sides.
//! says centred to the {fit}
//! shown vec3(fract(abs(centred()) * 4), 0.4)
//! value fit 1 choice = 0 of shorter side, longer side, each side : which side is 1 long
//! value where 2 coordinate = uv : the places to measure
vec2 centred(float fit, vec2 where) {
    vec2 from = where - 0.5;
    if (fit >= 1.5) return from;
    return from * frame_size / (fit < 0.5 ? min(frame_size.x, frame_size.y) : max(frame_size.x, frame_size.y));
}
