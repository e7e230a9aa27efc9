//! title Fit
//! group Picture out
//! about Shows a picture of another shape without squeezing it.
//! says {picture} fitted, {way}
//! shown fit(harbour, 0.8, 0)
//! picture picture same colour : what is shown
//! value shape 1 number = 0 in 0..4 : its width over its height; 0 goes by its own pixels
//! value way 1 choice = 0 of all of it, filled, squeezed : with clear borders, cut off, or squeezed after all
same fit(sampler2D picture, float shape, float way) {
    vec2 size = vec2(textureSize(picture));
    float own = shape <= 0 ? size.x / size.y : shape;
    float wider = own / aspect;
    // Times as much of the picture as of the frame, from side to side and from top to bottom.
    vec2 all = wider > 1 ? vec2(1, wider) : vec2(1 / wider, 1);
    vec2 share = way < 0.5 ? all : way < 1.5 ? all * min(wider, 1 / wider) : vec2(1);
    vec2 at = (uv - 0.5) * share + 0.5;
    vec2 inside = step(abs(at - 0.5), vec2(0.5));
    return texture(picture, at) * inside.x * inside.y;
}
