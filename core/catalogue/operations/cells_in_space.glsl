//! title Cells in space
//! group Noise
//! about Cellular noise in space: it neither stretches nor slides on any surface.
//! says cells of {place}, {size} large by {what}, seed {seed}
//! shown cells_in_space(vec3(centred() * 3, hill * 1.2), 0.4)
//! value place 3 coordinate = vec3(uv, 0) : the places it is drawn at, such as a position in the world
//! value size 1 number = 0.2 in 0.001..10 : of a cell, in the unit of the places
//! value what 1 choice = 0 of nearest, second, border, cell value : distance to the nearest or second nearest point, 0 where cells meet, or a random value for each
//! value seed 1 number = 0 in 0..100 : another seed is another noise
// Distances are Worley's F1, F2 and F2 - F1 (Worley 1996), in cells, held to 1: what is nearer lies in 3 x 3 x 3 cells.
float cells_in_space(vec3 place, float size, float what, float seed) {
    vec3 at = place / max(size, 0.0001) + floor(hash(seed) * 4096);
    // The built-in noise has other points, but is many times as fast: it is the one to use where only this is wanted.
    if (what < 0.5) return cellular_noise(at);
    vec3 cell = floor(at);
    float nearest = 9;
    float second = 9;
    float value = 0;
    for (int k = -1; k <= 1; k++) {
        for (int j = -1; j <= 1; j++) {
            for (int i = -1; i <= 1; i++) {
                vec3 here = cell + vec3(i, j, k);
                vec3 away = here + hash3(here) - at;
                float squared = dot(away, away);
                value = squared < nearest ? hash(here) : value;
                second = min(second, max(nearest, squared));
                nearest = min(nearest, squared);
            }
        }
    }
    if (what >= 2.5) return value;
    second = sqrt(min(second, 1));
    return what < 1.5 ? second : second - sqrt(min(nearest, 1));
}
