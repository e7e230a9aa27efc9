//! title Vignette
//! group Shapes
//! about 0 in the middle and 1 at the edge of the frame, at every frame shape.
//! says vignette from {radius}, {softness} soft
//! shown vignette(0.25, 0.5)
//! value radius 1 number = 0.35 in 0..2 : where it begins, in shorter sides from the middle
//! value softness 1 number = 0.4 in 0..2 : from there to full, in shorter sides
//! value oval 1 number = 0 in 0..1 : 0 is round, 1 follows the frame's shape
//! value where 2 coordinate = uv : the places it is drawn at
float vignette(float radius, float softness, float oval, vec2 where) {
    vec2 round = centred(0, where);
    return smoothstep(radius, radius + softness, length(mix(round, where - 0.5, oval)));
}
