//! title Mirrored
//! group Coordinates
//! about Folds places beyond the frame back into it, as between two mirrors.
//! says {where} between mirrors
//! shown texture(harbour, mirrored(uv * 2 - 0.5))
//! value where 2 coordinate = uv : the places to fold
vec2 mirrored(vec2 where) {
    vec2 turn = abs(where);
    return 1 - abs(turn - 2 * floor(turn * 0.5) - 1);
}
