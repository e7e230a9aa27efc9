//! title Shift view
//! group Picture out
//! about Moves, turns and zooms the whole picture, as a shaken camera does.
//! says {picture} moved by {offset}, turned by {angle}, zoomed {zoom}, {edges} at the edges
//! shown shift_view(harbour, vec2(0.06, 0.05), 8, 0.9)
//! picture picture same colour : the whole picture
//! value offset 2 displacement = vec2(0) : how far to the right and down, in frame heights
//! value angle 1 number = 0 in -180..180 deg : clockwise
//! value zoom 1 number = 1 in 0.1..10 : times as large
//! value edges 1 choice = 0 of mirrored, held, clear : what shows beyond the picture
same shift_view(sampler2D picture, vec2 offset, float angle, float zoom, float edges) {
    vec2 moved = uv - offset * vec2(1 / aspect, 1);
    vec2 at = enlarge(turn(moved, angle, vec2(0.5)), zoom, vec2(0.5));
    same found = texture(picture, edges < 0.5 ? mirrored(at) : at);
    vec2 inside = step(abs(at - 0.5), vec2(0.5));
    return edges < 1.5 ? found : found * inside.x * inside.y;
}
