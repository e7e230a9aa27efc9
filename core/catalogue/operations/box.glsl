//! title Box
//! group Shapes
//! about A filled rectangle, with round corners if wanted.
//! says box at {centre}, {size} large
//! shown box(vec2(0.5), vec2(1, 0.6), 0.15)
//! value centre 2 coordinate = vec2(0.5) : its middle
//! value size 2 number = vec2(0.6, 0.4) : width and height, in frame heights
//! value corner 1 number = 0.05 in 0..0.5 : radius of the corners, in frame heights
//! value softness 1 number = 0.01 in 0..1 : width of the edge, in frame heights; at least a pixel
//! value where 2 coordinate = uv : the places it is drawn at
float box(vec2 centre, vec2 size, float corner, float softness, vec2 where) {
    vec2 half_size = abs(size) * 0.5;
    float round = min(corner, min(half_size.x, half_size.y));
    vec2 beyond = abs((where - centre) * vec2(aspect, 1)) - half_size + round;
    return filled(length(max(beyond, vec2(0))) + min(max(beyond.x, beyond.y), 0) - round, softness);
}
