//! title Mirror tile
//! group Coordinates
//! about Repeats what is read in columns and rows, every other one mirrored, so that no seam shows.
//! says mirror tile {where} {across} by {down}
//! shown texture(harbour, mirror_tile(uv, 3, 3))
//! value where 2 coordinate = uv : the places to repeat
//! value across 1 number = 4 in 1..32 : columns
//! value down 1 number = 4 in 1..32 : rows
vec2 mirror_tile(vec2 where, float across, float down) {
    return mirrored(where * vec2(across, down));
}
