/* Draws a finish by the library, as a program of another house would: every cue that it listens to is played once, then
 * a frame is drawn into memory and written as a portable pixmap (PPM: netpbm's format).
 *
 *   cc -std=c99 draw.c -llacquer -o draw && ./draw strike.lacquer 0.7 640 360 strike.ppm
 */
#include <stdio.h>
#include <stdlib.h>

#include "library/lacquer.h"

static int failed(const char *what, const lacquer_fault *fault) {
    fprintf(stderr, "%s: %s (%s)\n", what, fault->message, fault->mend);
    return 1;
}

static int write_ppm(const char *path, const unsigned char *pixels, int width, int height) {
    FILE *file = fopen(path, "wb");
    long i;
    if (file == NULL) return 0;
    fprintf(file, "P6\n%d %d\n255\n", width, height);
    for (i = 0; i < (long)width * height; ++i) fwrite(pixels + 4 * i, 1, 3, file);
    return fclose(file) == 0;
}

int main(int argc, char **argv) {
    lacquer_fault fault = {{0}, {0}, {0}};
    lacquer_finish *finish;
    unsigned char *pixels;
    const char *cue;
    double seconds;
    double value[3];
    int width, height, i, done;
    if (argc != 6) {
        fprintf(stderr, "draw FINISH SECONDS WIDTH HEIGHT OUT.ppm\n");
        return 2;
    }
    seconds = atof(argv[2]);
    width = atoi(argv[3]);
    height = atoi(argv[4]);
    finish = lacquer_open(argv[1], &fault);
    if (finish == NULL) return failed(argv[1], &fault);
    lacquer_clear_tape(finish);
    for (i = 0; (cue = lacquer_cue_name(finish, i)) != NULL; ++i) {
        if (!lacquer_cue(finish, cue, 0.1, 0.8, &fault)) return failed(cue, &fault);
    }
    for (i = 0; i < lacquer_dial_count(finish); ++i) {
        lacquer_dial_info dial;
        if (!lacquer_dial(finish, i, &dial)) continue;
        if (lacquer_value(finish, dial.name, seconds, value, &fault) > 0) printf("%s %.6f\n", dial.name, value[0]);
    }
    pixels = width > 0 && height > 0 ? malloc((size_t)width * (size_t)height * 4) : NULL;
    done = lacquer_draw(finish, NULL, seconds, width, height, LACQUER_RGBA8, pixels, (size_t)width * 4, &fault);
    if (done && !write_ppm(argv[5], pixels, width, height)) done = 0;
    free(pixels);
    lacquer_close(finish);
    return done ? 0 : failed(argv[5], &fault);
}
