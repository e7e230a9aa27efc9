//! title Sector
//! group Shapes
//! about A slice of a disc.
//! says slice of {opening} at {centre}, facing {facing}
//! shown sector(vec2(0.5), 300, 110, 0.42)
//! value centre 2 coordinate = vec2(0.5) : its point
//! value facing 1 number = 0 in 0..360 deg : 0 to the right, 90 downwards
//! value opening 1 number = 90 in 0..360 deg : how wide it is
//! value radius 1 number = 0.4 in 0..2 : in frame heights
//! value softness 1 number = 0.01 in 0..1 : width of the edge, in frame heights; at least a pixel
//! value where 2 coordinate = uv : the places it is drawn at
float sector(vec2 centre, float facing, float opening, float radius, float softness, vec2 where) {
    vec2 arm = (where - centre) * vec2(aspect, 1);
    float away = length(arm);
    // How far beside the middle line, in turns, and how far past the edge that is.
    float beside = abs(fract((atan(arm.y, arm.x) - radians(facing)) / 6.2831853 + 0.5) - 0.5);
    float past = (beside - clamp(opening, 0, 360) / 720) * 6.2831853;
    float edge = opening >= 360 ? -1 : away * sin(clamp(past, -1.5707963, 1.5707963));
    return filled(max(edge, away - radius), softness);
}
