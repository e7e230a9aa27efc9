//! title Gradient map
//! group Colour
//! about Gives every value a colour: from dark over middle to light.
//! says {x} as {dark}, {middle}, {light}
//! value x 1 mask : the value
//! value dark 3 colour = vec3(0) : the colour at 0
//! value middle 3 colour = vec3(0.5) : the colour half-way
//! value light 3 colour = vec3(1) : the colour at 1
vec3 gradient_map(float x, vec3 dark, vec3 middle, vec3 light) {
    float t = clamp(x, 0, 1) * 2;
    return t < 1 ? mix(dark, middle, t) : mix(middle, light, t - 1);
}
