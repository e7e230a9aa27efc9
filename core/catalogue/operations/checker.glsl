//! title Checker
//! group Shapes
//! about Squares that are 0 and 1 in turn.
//! says checker of {size}
//! shown checker(0.15)
//! value size 1 number = 0.1 in 0.005..1 : of a square, in frame heights
//! value softness 1 number = 0 in 0..1 : width of the edges, in frame heights; at least a pixel
//! value where 2 coordinate = uv : the places they are drawn at
float checker(float size, float softness, vec2 where) {
    float pair = max(size, 0.0001) * 2;
    vec2 beside = (abs(fract(where * vec2(aspect, 1) / pair) - 0.5) - 0.25) * pair;
    float a = filled(beside.x, softness);
    float b = filled(beside.y, softness);
    return a + b - 2 * a * b;
}
