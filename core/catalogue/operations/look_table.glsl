//! title Look table
//! group Colour
//! about Gives each colour the one that a table has for it, such as a .cube file: a whole grade in one step.
//! says {picture} through {table} {amount}
//! shown look_table(harbour, tone_row)
//! picture picture 4 colour : what is graded
//! picture table 4 colour : N slices of N x N colours side by side, as a .cube file gives them
//! value amount 1 number = 1 in 0..1 : how far; 0 leaves the picture
//! value input 1 choice = 1 of linear light, display values : what the table was made for
// The curve of IEC 61966-2-1.
vec3 to_display(vec3 c) {
    return mix(c * 12.92, 1.055 * pow(max(c, 0.0031308), vec3(1 / 2.4)) - 0.055, step(0.0031308, c));
}
vec3 to_light(vec3 c) {
    return mix(c / 12.92, pow((max(c, 0.04045) + 0.055) / 1.055, vec3(2.4)), step(0.04045, c));
}
vec4 look_table(sampler2D picture, sampler2D table, float amount, float input) {
    vec4 here = texture(picture, uv);
    ivec2 size = textureSize(table);
    vec3 at = input < 0.5 ? here.rgb : to_display(here.rgb);
    vec3 found = at;
    if (size.x > size.y * 2 && size.y > 1) {
        // Between two slices, and within each between four entries.
        float n = float(size.y);
        vec3 place = clamp(at, 0, 1) * (n - 1);
        float slice = min(floor(place.b), n - 2);
        vec2 within = (place.rg + 0.5) / vec2(size);
        vec2 step_on = vec2(n / float(size.x), 0);
        vec3 low = texture(table, within + step_on * slice).rgb;
        vec3 high = texture(table, within + step_on * (slice + 1)).rgb;
        found = mix(low, high, place.b - slice);
    } else {
        vec3 place = (clamp(at, 0, 1) * float(size.x - 1) + 0.5) / float(size.x);
        found = vec3(texture(table, vec2(place.r, 0.5)).r, texture(table, vec2(place.g, 0.5)).g, texture(table, vec2(place.b, 0.5)).b);
    }
    vec3 made = input < 0.5 ? found : to_light(found);
    return vec4(mix(here.rgb, made, amount), here.a);
}
