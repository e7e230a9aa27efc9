//! shared
// The nearest place of either kind, exactly: first within each column, then across columns, as in T. Saito and J. Toriwaki,
// "New algorithms for Euclidean distance transformation", Pattern Recognition 27(11), 1994. A stage `seeds` comes before:
// x is 0 where a pixel is of the first kind, y where it is of the second; else they are 1e6. After the stages `columns`
// (repeat levels: a `column_round`) and `least` (repeat 4), `nearest_of_both` finds it. Goes with `nearest_columns`.

// The least of sixteen columns from here on, so that most need not be looked at one by one.
vec2 least(int turn) {
    ivec2 size = textureSize(least);
    ivec2 here = ivec2(floor(uv * vec2(size)));
    int far = int(exp2(float(turn)));
    return min(abs(texelFetch(least, here)), abs(texelFetch(least, min(here + ivec2(far, 0), size - 1))));
}
float of_kind(vec2 both, bool second) {
    return second ? both.y : both.x;
}
// From here to the nearest pixel of a kind, in pixels of what is drawn; 1e6 downwards if there is none within `reach`.
vec2 nearest_of(bool second, float reach) {
    ivec2 size = textureSize(columns);
    ivec2 here = clamp(ivec2(floor(uv * vec2(size))), ivec2(0), size - 1);
    vec2 arm = vec2(0, of_kind(texelFetch(columns, here), second));
    float best = min(arm.y * arm.y, (reach + 1.0) * (reach + 1.0));
    if (abs(arm.y) > reach + 1.0) arm = vec2(0, 1e6);
    for (int side = 0; side < 2; side++) {
        int last = side == 0 ? size.x - 1 - here.x : here.x;
        for (int at = 1; at <= last && float(at * at) < best; at += 16) {
            ivec2 first = here + ivec2(side == 0 ? at : -at - 15, 0);
            float low = of_kind(texelFetch(least, max(first, ivec2(0))), second);
            if (float(at * at) + low * low >= best) continue;
            for (int i = at; i < at + 16 && i <= last && float(i * i) < best; i++) {
                int to = side == 0 ? i : -i;
                float down = of_kind(texelFetch(columns, here + ivec2(to, 0)), second);
                float away = float(i * i) + down * down;
                if (away < best) {
                    best = away;
                    arm = vec2(float(to), down);
                }
            }
        }
    }
    return arm;
}
// Of both kinds, the first in xy and the second in zw.
vec4 nearest_of_both(float reach) {
    return vec4(nearest_of(false, reach), nearest_of(true, reach));
}
