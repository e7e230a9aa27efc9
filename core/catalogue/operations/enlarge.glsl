//! title Enlarge
//! group Coordinates
//! about Scales what is read about a point.
//! says {where} {factor} times as large about {centre}
//! shown texture(harbour, enlarge(uv, 2.2, vec2(0.7, 0.35)))
//! value where 2 coordinate = uv : the places to scale
//! value factor 1 number = 2 in 0.1..10 : times as large
//! value centre 2 coordinate = vec2(0.5) : the point that stays
vec2 enlarge(vec2 where, float factor, vec2 centre) {
    return centre + (where - centre) / (abs(factor) < 0.0001 ? 0.0001 : factor);
}
