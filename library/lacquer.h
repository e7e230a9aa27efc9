/* Lacquer as a library: finishes opened, played and drawn by another program.
 *
 *   lacquer_finish *finish = lacquer_open("strike.lacquer", &fault);
 *   lacquer_cue(finish, "hit", 0.5, 0.8, &fault);
 *   lacquer_draw(finish, NULL, 0.7, 1280, 720, LACQUER_RGBA8, memory, 1280 * 4, &fault);
 *   lacquer_close(finish);
 *
 * Every function may be called from any thread. Calls on different finishes run at once, calls on one finish wait for
 * one another; a finish must not be closed while another call on it runs. Nothing is thrown. Where a function gives 0
 * or NULL, `fault` says why, unless it is NULL. Text is UTF-8. Symbols are versioned: LACQUER_0 stays what it is. */
#ifndef LACQUER_H
#define LACQUER_H

#include <stddef.h>

#ifdef __cplusplus
extern "C" {
#endif

/* What went wrong: its id, what happened, and what would mend it. Longer texts are cut. */
typedef struct lacquer_fault {
    char id[64];
    char message[512];
    char mend[256];
} lacquer_fault;

typedef struct lacquer_finish lacquer_finish;

/* "0.1.0". */
const char* lacquer_version(void);

/* Opens a finish with the operations that come along and those of the user's folder. Faults of single steps are no
 * faults of opening: they come where such a step is drawn. */
lacquer_finish* lacquer_open(const char* path, lacquer_fault* fault);
/* The same of a finish's text; relative paths in it go by `path`, which need not be there. */
lacquer_finish* lacquer_open_text(const char* text, size_t length, const char* path, lacquer_fault* fault);
void lacquer_close(lacquer_finish* finish);

/* The frame that the finish is made for, in pixels, and how long its tape plays, in seconds. */
void lacquer_frame(lacquer_finish* finish, int* width, int* height, double* length);

/* A dial: its name, kind ("number", "integer", "switch", "colour"), how many numbers it has (1 or
 * 3), its working value, ends and unit. Texts live until the finish is closed. */
typedef struct lacquer_dial_info {
    const char* name;
    const char* kind;
    int numbers;
    double value[3];
    double least;
    double most;
    const char* unit;
    int driven; /* 1 where a formula gives its value, until it is held */
} lacquer_dial_info;
int lacquer_dial_count(lacquer_finish* finish);
/* 1, or 0 for an index that there is not. */
int lacquer_dial(lacquer_finish* finish, int index, lacquer_dial_info* info);

/* The names of cues, signals, steps and variants; NULL for an index that there is not. They live until the finish is
 * closed. */
const char* lacquer_cue_name(lacquer_finish* finish, int index);
const char* lacquer_signal_name(lacquer_finish* finish, int index);
const char* lacquer_step_name(lacquer_finish* finish, int index);
const char* lacquer_variant_name(lacquer_finish* finish, int index);

/* Switches a variant on, or with "" all off. */
int lacquer_use_variant(lacquer_finish* finish, const char* name, lacquer_fault* fault);

/* Holds a dial at a value of `count` numbers, and lets it go again. */
int lacquer_hold(lacquer_finish* finish, const char* dial, const double* value, int count, lacquer_fault* fault);
int lacquer_let_go(lacquer_finish* finish, const char* dial, lacquer_fault* fault);

/* Play: in place of the finish's own tape, an empty one, that of a file, or what follows. Times in seconds, strengths
 * 0..1, directions in degrees clockwise from the right, places 0..1 from the top left. */
int lacquer_clear_tape(lacquer_finish* finish);
int lacquer_use_tape(lacquer_finish* finish, const char* path, lacquer_fault* fault);
int lacquer_cue(lacquer_finish* finish, const char* name, double at, double strength, lacquer_fault* fault);
int lacquer_cue_at(lacquer_finish* finish, const char* name, double at, double strength, double direction, double x,
                   double y, int object, lacquer_fault* fault);
/* A signal, or a dial on the tape, set to up to three numbers. */
int lacquer_set(lacquer_finish* finish, const char* name, double at, const double* value, int count,
                lacquer_fault* fault);

/* What a dial, response or signal, or one of their outputs ("blow.presence"), is worth at a time: how many numbers were
 * written into `value`, which has room for three; 0 for a fault. */
int lacquer_value(lacquer_finish* finish, const char* name, double seconds, double* value, lacquer_fault* fault);

/* How a picture lies in memory: four numbers a pixel, rows from the top, straight opacity. */
typedef enum lacquer_format {
    LACQUER_RGBA8 = 0,     /* display values, as the stage shows them */
    LACQUER_RGBA_FLOAT = 1 /* linear light; a step of fewer numbers fills the rest with 0, 0 and 1 */
} lacquer_format;

/* Draws a step, or with NULL the finished picture, at a moment in a frame of this size into the caller's memory, whose
 * rows begin `stride` bytes apart. */
int lacquer_draw(lacquer_finish* finish, const char* step, double seconds, int width, int height, lacquer_format format,
                 void* memory, size_t stride, lacquer_fault* fault);

#ifdef __cplusplus
}
#endif

#endif
