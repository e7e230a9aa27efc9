//! title Even pace
//! group Maths
//! about Spreads a mask's values evenly: a share t of the picture lies below t, so that a sweep over it has an even pace.
//! says {mask} at an even pace
//! shown even_pace(blotch)
//! picture mask 1 mask : values from 0 to 1, such as noise
//! value amount 1 number = 1 in 0..1 : 0 changes nothing
//! stage rows size 1/8
//! stage ends size 1/8
//! stage counts size 1/8
//! stage sums size 1/8
//! stage even_pace
//! uses extent
// Each pixel counts, for the value that its column stands for, the samples below it in one of 32 strips of the picture.
float counts(sampler2D mask) {
    float columns = 1 / max(abs(dFdx(uv.x)), 0.000001);
    vec2 from_to = texture(ends, vec2(0.5));
    float value = mix(from_to.x, from_to.y, (uv.x * columns - 0.5) / max(columns - 1, 1));
    float strip = floor(uv.y * 32);
    float below = 0;
    for (float i = 0; i < 256; i++) {
        vec2 at = vec2((i + 0.5) / 256, (strip + fract(i * 0.61803399)) / 32);
        below += texture(mask, at) < value ? 1 : 0;
    }
    return below / 256;
}
float sums() {
    float sum = 0;
    for (float i = 0; i < 32; i++) sum += texture(counts, vec2(uv.x, (i + 0.5) / 32));
    return sum / 32;
}
float even_pace(sampler2D mask, float amount) {
    float value = texture(mask, uv);
    float columns = float(textureSize(sums).x);
    vec2 from_to = texture(ends, vec2(0.5));
    float place = (value - from_to.x) / max(from_to.y - from_to.x, 0.000001);
    float share = texture(sums, vec2((clamp(place, 0, 1) * (columns - 1) + 0.5) / columns, 0.5));
    // A share of all is never below the last of them.
    return mix(value, min(share, 0.99999994), amount);
}
