//! title Pan
//! group Coordinates
//! about Moves what is read, by a share of the frame.
//! says {where} moved by {by}
//! shown texture(harbour, pan(uv, vec2(0.25, 0.1)))
//! value where 2 coordinate = uv : the places to move
//! value by 2 displacement = vec2(0.1, 0) : how far to the right and down, in frame widths and heights
vec2 pan(vec2 where, vec2 by) {
    return where - by;
}
