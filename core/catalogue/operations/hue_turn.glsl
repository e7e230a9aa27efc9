//! title Hue turn
//! group Colour
//! about Turns all hues round the colour circle, keeping how light and how strong they look.
//! says {colour} turned by {angle}
//! shown hue_turn(harbour, 150)
//! value colour 4 colour : what is changed
//! value angle 1 number = 90 in -360..360 deg : how far
// In Oklab: B. Ottosson, "A perceptual color space for image processing", 2020.
float root(float x) {
    return sign(x) * pow(abs(x), 1.0 / 3.0);
}
vec4 hue_turn(vec4 colour, float angle) {
    vec3 c = colour.rgb;
    float l = root(dot(c, vec3(0.4122214708, 0.5363325363, 0.0514459929)));
    float m = root(dot(c, vec3(0.2119034982, 0.6806995451, 0.1073969566)));
    float s = root(dot(c, vec3(0.0883024619, 0.2817188376, 0.6299787005)));
    vec3 cones = vec3(l, m, s);
    float light = dot(cones, vec3(0.2104542553, 0.7936177850, -0.0040720468));
    float a = dot(cones, vec3(1.9779984951, -2.4285922050, 0.4505937099));
    float b = dot(cones, vec3(0.0259040371, 0.7827717662, -0.8086757660));
    float x = cos(radians(angle));
    float y = sin(radians(angle));
    vec2 turned = vec2(a * x - b * y, a * y + b * x);
    cones = vec3(light + dot(turned, vec2(0.3963377774, 0.2158037573)),
                 light + dot(turned, vec2(-0.1055613458, -0.0638541728)),
                 light + dot(turned, vec2(-0.0894841775, -1.2914855480)));
    cones = cones * cones * cones;
    return vec4(dot(cones, vec3(4.0767416621, -3.3077115913, 0.2309699292)),
                dot(cones, vec3(-1.2684380046, 2.6097574011, -0.3413193965)),
                dot(cones, vec3(-0.0041960863, -0.7034186147, 1.7076147010)), colour.a);
}
