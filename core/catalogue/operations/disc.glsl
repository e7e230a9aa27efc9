//! title Disc
//! group Shapes
//! about A filled circle with a soft edge: 1 inside, 0 outside.
//! says disc at {centre} as large as {radius}
//! value centre 2 coordinate = vec2(0.5) : its middle
//! value radius 1 number = 0.25 in 0..1 : in frame heights
//! value softness 1 number = 0.01 in 0..1 : width of the edge, in frame heights
//! value where 2 coordinate = uv : the places it is drawn at
float disc(vec2 centre, float radius, float softness, vec2 where) {
    float away = length((where - centre) * vec2(aspect, 1));
    return 1 - smoothstep(radius - softness * 0.5, radius + softness * 0.5, away);
}
