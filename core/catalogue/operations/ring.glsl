//! title Ring
//! group Shapes
//! about A circle drawn as a line.
//! says ring at {centre}, {radius} large and {width} wide
//! shown ring(vec2(0.5), 0.32, 0.09)
//! value centre 2 coordinate = vec2(0.5) : its middle
//! value radius 1 number = 0.25 in 0..1 : to the middle of the line, in frame heights
//! value width 1 number = 0.05 in 0..1 : of the line, in frame heights
//! value softness 1 number = 0.01 in 0..1 : width of its edges, in frame heights; at least a pixel
//! value where 2 coordinate = uv : the places it is drawn at
float ring(vec2 centre, float radius, float width, float softness, vec2 where) {
    return filled(abs(length((where - centre) * vec2(aspect, 1)) - radius) - width * 0.5, softness);
}
