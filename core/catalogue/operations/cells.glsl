//! title Cells
//! group Noise
//! about Cellular noise: how near the random points of a frame full of cells are, or where cells meet.
//! says cells {size} large by {what}, seed {seed}
//! shown cells(0.2, 2)
//! value size 1 number = 0.15 in 0.01..1 : of a cell, in frame heights
//! value what 1 choice = 0 of nearest, second, border, cell value : distance to the nearest or second nearest point, 0 where cells meet, or a random value for each
//! value change 1 number = 0 in 0..10 : how far the points have wandered; drive it with time
//! value seed 1 number = 0 in 0..100 : another seed is another noise
//! value where 2 coordinate = uv : the places it is drawn at
// Distances are Worley's F1, F2 and F2 - F1 (Worley 1996), in cells, held to 1: what is nearer lies in 3 x 3 cells.
float cells(float size, float what, float change, float seed, vec2 where) {
    vec2 at = where * vec2(aspect, 1) / max(size, 0.0001) + floor(hash(seed) * 4096);
    vec2 cell = floor(at);
    float nearest = 9;
    float second = 9;
    float value = 0;
    for (int j = -1; j <= 1; j++) {
        for (int i = -1; i <= 1; i++) {
            vec2 here = cell + vec2(i, j);
            vec3 random = hash3(vec3(here, 0));
            // To and fro along each side of the cell, so that points are spread evenly at every moment.
            vec2 away = here + abs(fract(random.xy + change * 0.5) * 2 - 1) - at;
            float squared = dot(away, away);
            value = squared < nearest ? random.z : value;
            second = min(second, max(nearest, squared));
            nearest = min(nearest, squared);
        }
    }
    if (what >= 2.5) return value;
    nearest = sqrt(min(nearest, 1));
    second = sqrt(min(second, 1));
    return what < 0.5 ? nearest : what < 1.5 ? second : second - nearest;
}
