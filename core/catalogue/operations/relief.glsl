//! title Relief
//! group Neighbours
//! about Turns a height into the direction that its surface faces: 0, 0, 1 where it is level.
//! says surface of {height}, {depth} high
//! shown relief(blotch, 30)
//! picture height 1 mask : the height, from 0 to 1
//! value depth 1 number = 20 in -100..100 px : how high 1 is
//! value as 1 choice = 0 of directions, colours : from -1 to 1 to push with, or as 0..1 to be kept in a picture
vec3 relief(sampler2D height, float depth, float as) {
    vec2 x = vec2(pixel_size.x, 0);
    vec2 y = vec2(0, pixel_size.y);
    vec2 rise = vec2(texture(height, uv + x) - texture(height, uv - x), texture(height, uv + y) - texture(height, uv - y));
    vec3 facing = normalize(vec3(-rise * 0.5 * depth, 1));
    return as < 0.5 ? facing : facing * 0.5 + 0.5;
}
