//! title Ramp
//! group Shapes
//! about Rises evenly from 0 to 1 along an angle.
//! says ramp along {angle}
//! shown ramp(20)
//! value angle 1 number = 0 in 0..360 deg : 0 rises to the right, 90 downwards
//! value where 2 coordinate = uv : the places it is drawn at
float ramp(float angle, vec2 where) {
    vec2 along = vec2(cos(radians(angle)), sin(radians(angle)));
    // From corner to corner, whichever way it runs.
    float reach = abs(along.x) + abs(along.y);
    return clamp(dot(where - 0.5, along) / reach + 0.5, 0, 1);
}
