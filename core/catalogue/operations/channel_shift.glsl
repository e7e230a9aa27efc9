//! title Channel shift
//! group Colour
//! about Pulls red and blue apart, as a bad lens or a shock does.
//! says red and blue of {picture} {by} apart
//! shown channel_shift(harbour, vec2(0.03, 0))
//! picture picture 4 colour : what is pulled apart
//! value by 2 displacement = vec2(0.01, 0) : how far each goes, in frame heights: red this way, blue the other
vec4 channel_shift(sampler2D picture, vec2 by) {
    vec2 to = by * vec2(1 / aspect, 1);
    vec4 here = premultiply(texture(picture, uv));
    vec4 red = premultiply(texture(picture, uv - to));
    vec4 blue = premultiply(texture(picture, uv + to));
    return unpremultiply(vec4(red.r, here.g, blue.b, max(here.a, max(red.a, blue.a))));
}
