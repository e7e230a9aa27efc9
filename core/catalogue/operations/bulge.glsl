//! title Bulge
//! group Coordinates
//! about Blows up what is read round a point, or pinches it.
//! says bulge {where} by {amount} within {radius} of {centre}
//! shown texture(chart, bulge(uv, vec2(0.5), 0.45, 0.7))
//! value where 2 coordinate = uv : the places to bulge
//! value centre 2 coordinate = vec2(0.5) : the middle
//! value radius 1 number = 0.4 in 0..2 : where it ends, in frame heights
//! value amount 1 number = 0.5 in -1..1 : above 0 blows up, below 0 pinches
vec2 bulge(vec2 where, vec2 centre, float radius, float amount) {
    float share = clamp(1 - length((where - centre) * vec2(aspect, 1)) / max(radius, 0.0001), 0, 1);
    return centre + (where - centre) * (1 - amount * share * share * (3 - 2 * share));
}
