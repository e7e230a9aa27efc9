//! title Diffuse
//! group Flow
//! about Spreads a picture out a little in each tick, as ink does in water.
//! says {picture} spread by {pace}
//! shown diffuse(crab, 100000)
//! picture picture same colour : what spreads, such as previous(ink)
//! value pace 1 number = 60 in 0..2000 px² a second : its variance grows by twice this
// The heat equation by differences (Fourier 1822); a tick spreads to the nearest neighbours at most.
same diffuse(sampler2D picture, float pace) {
    vec2 one = 1 / vec2(textureSize(picture));
    vec2 share = clamp(vec2(pace * tick_length) / (one * one * frame_size * frame_size), 0, 0.25);
    same middle = premultiply(texture(picture, uv));
    same across = premultiply(texture(picture, uv + vec2(one.x, 0))) + premultiply(texture(picture, uv - vec2(one.x, 0)));
    same down = premultiply(texture(picture, uv + vec2(0, one.y))) + premultiply(texture(picture, uv - vec2(0, one.y)));
    return unpremultiply(middle + (across - middle * 2) * share.x + (down - middle * 2) * share.y);
}
