//! title Disc
//! group Shapes
//! about A filled circle: 1 inside, 0 outside.
//! says disc at {centre} as large as {radius}
//! shown disc(vec2(0.5), 0.35, 0.05)
//! value centre 2 coordinate = vec2(0.5) : its middle
//! value radius 1 number = 0.25 in 0..1 : in frame heights
//! value softness 1 number = 0.01 in 0..1 : width of the edge, in frame heights; at least a pixel
//! value where 2 coordinate = uv : the places it is drawn at
float disc(vec2 centre, float radius, float softness, vec2 where) {
    return filled(length((where - centre) * vec2(aspect, 1)) - radius, softness);
}
