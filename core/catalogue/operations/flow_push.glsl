//! title Flow push
//! group Flow
//! about Carries a picture along by a vector; from tick to tick it flows, at the same pace at any tick rate.
//! says carry {picture} along by {vector}
//! shown flow_push(harbour, vec2(blotch - 0.5, 0.3) * 15)
//! picture picture same colour : what is carried along, such as previous(smoke)
//! picture vector 2 displacement : which way, in shorter sides of the frame a second; nothing moves where it is 0
// The way back to where a pixel came from, by the vector half-way there: the midpoint rule, Runge 1895, from memory.
same flow_push(sampler2D picture, sampler2D vector) {
    vec2 by = tick_length * min(frame_size.x, frame_size.y) / frame_size;
    vec2 half_way = uv - texture(vector, uv) * by * 0.5;
    return texture(picture, uv - texture(vector, half_way) * by);
}
