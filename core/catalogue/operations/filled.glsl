//! title Filled
//! group Shapes
//! about Fills the inside of a distance: 1 where it is below 0, with an antialiased or a soft edge.
//! says inside of {distance}
//! shown filled(length(centred()) - 0.3 - 0.08 * sin(polar().y * 31.4159265), 0.01)
//! value distance 1 number : how far outside, in frame heights
//! value softness 1 number = 0 in 0..1 : width of the edge, in frame heights; at least a pixel
float filled(float distance, float softness) {
    float half_edge = max(softness, pixel_size.y) * 0.5;
    return smoothstep(half_edge, -half_edge, distance);
}
