//! title Centred
//! group Coordinates
//! about Places measured from the middle of the frame, in units of its shorter side.
//! says centred
vec2 centred() {
    return (uv - 0.5) * frame_size / min(frame_size.x, frame_size.y);
}
