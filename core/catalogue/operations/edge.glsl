//! title Edge
//! group Neighbours
//! about Finds where a picture changes: bright lines along its edges.
//! says edges of {picture} times {amount}
//! shown edge(harbour, 3)
//! picture picture same colour : what is looked at
//! value amount 1 number = 1 in 0..8 : times as bright; a step from 0 to 1 gives 1
// The operator of Sobel and Feldman, a quarter of it, colour by colour.
same edge(sampler2D picture, float amount) {
    vec2 x = vec2(pixel_size.x, 0);
    vec2 y = vec2(0, pixel_size.y);
    same nw = premultiply(texture(picture, uv - x - y));
    same ne = premultiply(texture(picture, uv + x - y));
    same sw = premultiply(texture(picture, uv - x + y));
    same se = premultiply(texture(picture, uv + x + y));
    same n = premultiply(texture(picture, uv - y));
    same s = premultiply(texture(picture, uv + y));
    same e = premultiply(texture(picture, uv + x));
    same west = premultiply(texture(picture, uv - x));
    same across = ne + 2 * e + se - nw - 2 * west - sw;
    same down = sw + 2 * s + se - nw - 2 * n - ne;
    return with_opacity_of(sqrt(across * across + down * down) * 0.25 * amount, texture(picture, uv));
}
