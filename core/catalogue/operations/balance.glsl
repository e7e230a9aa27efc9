//! title Balance
//! group Colour
//! about Makes a picture warmer or cooler, greener or pinker, at the same luminance.
//! says {colour} warmer by {warmth}, greener by {green}
//! shown balance(harbour, 0.8, 0)
//! value colour 4 colour : what is changed
//! value warmth 1 number = 0.3 in -1..1 : above 0 towards orange, below towards blue
//! value green 1 number = 0 in -1..1 : above 0 towards green, below towards pink
vec4 balance(vec4 colour, float warmth, float green) {
    vec3 gains = exp2(vec3(warmth - green * 0.5, green * 0.5, -warmth - green * 0.5));
    return vec4(colour.rgb * gains / luminance(gains), colour.a);
}
