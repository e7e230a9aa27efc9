//! title Line grid
//! group Shapes
//! about Straight lines across and down, on which a warp shows.
//! says lines {spacing} apart
//! shown line_grid(0.15, 0.015)
//! value spacing 1 number = 0.1 in 0.005..1 : from line to line, in frame heights
//! value width 1 number = 0.005 in 0..0.5 : of a line, in frame heights
//! value softness 1 number = 0 in 0..1 : width of the edges, in frame heights; at least a pixel
//! value where 2 coordinate = uv : the places they are drawn at
float line_grid(float spacing, float width, float softness, vec2 where) {
    float wide = max(spacing, 0.0001);
    vec2 beside = abs(fract((where - 0.5) * vec2(aspect, 1) / wide + 0.5) - 0.5) * wide;
    return filled(min(beside.x, beside.y) - width * 0.5, softness);
}
