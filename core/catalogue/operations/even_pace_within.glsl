//! title Even pace within
//! group Maths
//! about Spreads a mask's values evenly over a shape, such as a sprite's opacity: a share t of the shape lies below t.
//! says {mask} at an even pace within {shape}
//! shown even_pace_within(blotch, hill)
//! picture mask 1 mask : values from 0 to 1, such as noise
//! picture shape 1 opacity : what counts, and how much
//! value amount 1 number = 1 in 0..1 : 0 changes nothing
//! stage rows size 1/8
//! stage ends size 1/8
//! stage counts size 1/8
//! stage sums size 1/8
//! stage even_pace_within
//! uses extent
// As even pace does, with each sample counting by the shape; y is what all samples of the strip count together.
vec2 counts(sampler2D mask, sampler2D shape) {
    float columns = 1 / max(abs(dFdx(uv.x)), 0.000001);
    vec2 from_to = texture(ends, vec2(0.5));
    float value = mix(from_to.x, from_to.y, (uv.x * columns - 0.5) / max(columns - 1, 1));
    float strip = floor(uv.y * 32);
    vec2 sum = vec2(0);
    for (float i = 0; i < 256; i++) {
        vec2 at = vec2((i + 0.5) / 256, (strip + fract(i * 0.61803399)) / 32);
        float share = clamp(texture(shape, at), 0, 1);
        sum += vec2(texture(mask, at) < value ? share : 0, share);
    }
    return sum;
}
vec2 sums() {
    vec2 sum = vec2(0);
    for (float i = 0; i < 32; i++) sum += texture(counts, vec2(uv.x, (i + 0.5) / 32));
    return sum;
}
float even_pace_within(sampler2D mask, sampler2D shape, float amount) {
    float value = texture(mask, uv);
    float columns = float(textureSize(sums).x);
    vec2 from_to = texture(ends, vec2(0.5));
    float place = (value - from_to.x) / max(from_to.y - from_to.x, 0.000001);
    vec2 sum = texture(sums, vec2((clamp(place, 0, 1) * (columns - 1) + 0.5) / columns, 0.5));
    return mix(value, sum.y > 0 ? min(sum.x / sum.y, 0.99999994) : value, amount);
}
