//! title Wave rings
//! group Coordinates
//! about Pushes places to and fro along rings that run out from a point.
//! says rings {spacing} apart round {centre}, {reach} high
//! shown texture(chart, wave_rings(uv, vec2(0.5), 0.16, 0.025))
//! value where 2 coordinate = uv : the places to push
//! value centre 2 coordinate = vec2(0.5) : where the rings begin
//! value spacing 1 number = 0.15 in 0.01..1 : from one ring to the next, in frame heights
//! value reach 1 number = 0.02 in 0..0.2 : how far they push, in frame heights
//! value phase 1 number = 0 in 0..1 turns : how far they have run; drive it with time
//! value fade 1 number = 1 in 0..10 : how fast they grow weaker outwards
//! value oval 1 number = 1 in 0.25..4 : times as wide as high
vec2 wave_rings(vec2 where, vec2 centre, float spacing, float reach, float phase, float fade, float oval) {
    vec2 arm = (where - centre) * vec2(aspect / max(oval, 0.0001), 1);
    float away = length(arm);
    float wide = max(spacing, 0.0001);
    // The middle has no direction: there the push sets in softly.
    float push = sin(6.2831853 * (away / wide - phase)) * exp(-fade * away) * smoothstep(0, wide * 0.5, away) * reach;
    return where + normalize(arm) * push * vec2(1 / aspect, 1);
}
