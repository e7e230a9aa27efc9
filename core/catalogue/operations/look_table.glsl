//! title Look table
//! group Colour
//! about Gives each colour the one that a table has for it, such as a .cube file: a whole grade in one step.
//! says {picture} through {table} {amount}
//! shown look_table(harbour, tone_row)
//! picture picture 4 colour : what is graded
//! picture table 4 number : N slices of N x N colours side by side, as a .cube file gives them
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
    // A row below the table, where there is one, says which colours its first and last entries stand for.
    bool ranged = (size.y > 2 && (size.y - 1) * (size.y - 1) == size.x) || (size.y == 2 && size.x != 4);
    int rows = ranged ? size.y - 1 : size.y;
    vec3 least = ranged ? texelFetch(table, ivec2(0, rows)).rgb : vec3(0);
    vec3 most = ranged ? texelFetch(table, ivec2(1, rows)).rgb : vec3(1);
    vec3 at = input < 0.5 ? here.rgb : to_display(here.rgb);
    vec3 share = clamp((at - least) / (most - least), 0, 1);
    // Entries are fetched and mixed here: read between pixels they would come in 256 steps.
    bool sliced = rows > 1 && rows * rows == size.x;
    float last = float(sliced ? rows : size.x) - 1;
    vec3 place = share * last;
    vec3 low = min(floor(place), last - 1);
    vec3 part = place - low;
    vec3 found = vec3(0);
    if (sliced) {
        for (int i = 0; i < 8; i++) {
            ivec3 corner = ivec3(i % 2, i / 2 % 2, i / 4);
            ivec3 entry = ivec3(low) + corner;
            vec3 weight = mix(1 - part, part, vec3(corner));
            found += weight.r * weight.g * weight.b * texelFetch(table, ivec2(entry.b * rows + entry.r, entry.g)).rgb;
        }
    } else {
        for (int i = 0; i < 2; i++) {
            ivec3 entry = ivec3(low) + i;
            vec3 there = vec3(texelFetch(table, ivec2(entry.r, 0)).r, texelFetch(table, ivec2(entry.g, 0)).g, texelFetch(table, ivec2(entry.b, 0)).b);
            found += (i == 0 ? 1 - part : part) * there;
        }
    }
    vec3 made = input < 0.5 ? found : to_light(found);
    return vec4(mix(here.rgb, made, amount), here.a);
}
