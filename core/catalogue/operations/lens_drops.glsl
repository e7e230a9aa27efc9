//! title Lens drops
//! group Droplets
//! about Drops of clear water bend what is behind them: each shows it as a lens does, the more the steeper it stands.
//! says bend {picture} by drops {push} by {strength}
//! shown lens_drops(harbour, (uv - vec2(0.5, 0.45)) * 12 * smoothstep(0.3, 0.28, length((uv - vec2(0.5, 0.45)) * vec2(1.6, 1))), 0.05)
//! picture picture same colour : what is behind the drops
//! value push 2 displacement : the slope of their height, such as drops_push
//! value strength 1 number = 0.03 in -0.5..0.5 : how far the steepest bends it, in shorter sides; below 0 it is turned about
same lens_drops(sampler2D picture, vec2 push, float strength) {
    return texture(picture, uv - push * strength * min(frame_size.x, frame_size.y) / frame_size);
}
