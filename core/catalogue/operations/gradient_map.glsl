//! title Gradient map
//! group Colour
//! about Gives every value a colour: from dark over middle to light.
//! says {x} as {dark}, {middle}, {light}
//! shown gradient_map(blotch, vec3(0.02, 0.05, 0.12), vec3(0.6, 0.12, 0.05), vec3(1, 0.85, 0.5))
//! value x 1 mask : the value
//! value dark 3 colour = vec3(0) : the colour at 0
//! value middle 3 colour = vec3(0.5) : the colour half-way
//! value light 3 colour = vec3(1) : the colour at 1
vec3 gradient_map(float x, vec3 dark, vec3 middle, vec3 light) {
    float t = clamp(x, 0, 1) * 2;
    return t < 1 ? mix(dark, middle, t) : mix(middle, light, t - 1);
}
