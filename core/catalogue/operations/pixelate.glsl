//! title Pixelate
//! group Coordinates
//! about Reads the middle of large squares in place of each pixel.
//! says {where} in {rows} rows of squares
//! shown texture(harbour, pixelate(uv, 24))
//! value where 2 coordinate = uv : the places to gather
//! value rows 1 number = 48 in 1..256 : squares from top to bottom
vec2 pixelate(vec2 where, float rows) {
    vec2 squares = max(rows, 1) * vec2(aspect, 1);
    return (floor(where * squares) + 0.5) / squares;
}
