/* A small host of a shipped set: OpenGL 3.3 without a window, plain C. It reads a set by its manifest, drives it by the
   header of play, and writes one frame. What a renderer of its own needs is the same: see docs/shipping.md.

       lacquer-cli ship demo/finishes/squall-strike.lacquer -o set
       cc -std=c99 -Iset/play host.c -o host $(pkg-config --cflags --libs egl epoxy libcjson spng) -lm
       ./host set 0.9 frame.pfm

   It plays the Squall strike; for another set, change the three lines that begin with PLAY. */
#include <cjson/cJSON.h>
#include <epoxy/egl.h>
#include <epoxy/gl.h>
#include <math.h>
#include <spng.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

#include "squall_strike_play.h" /* PLAY: the set's header */
#define PLAY(name) squall_strike_##name /* PLAY: what its functions begin with */
#define PLAY_HIT(state) squall_strike_cue_hit(state, 0.5, 0.8, 20, 0.5, 0.5, 0) /* PLAY: at 0.5 s the game says so */

enum { most_pictures = 256, most_passes = 128 };

typedef struct {
    char name[64];
    GLuint texture;
} picture;

typedef struct {
    cJSON *manifest;
    const char *folder;
    picture pictures[most_pictures]; /* grounds, tables, and what passes have drawn, by their names */
    int picture_count;
    GLuint programs[most_passes];
    int width, height;
    double rate; /* ticks a second; 0 for a set without */
} host;

static void fail(const char *what, const char *which) {
    fprintf(stderr, "host: %s %s\n", what, which);
    exit(1);
}

static char *read_file(const char *folder, const char *name, size_t *size) {
    char path[1024];
    snprintf(path, sizeof path, "%s/%s", folder, name);
    FILE *file = fopen(path, "rb");
    if (!file) fail("cannot read", path);
    fseek(file, 0, SEEK_END);
    *size = (size_t)ftell(file);
    rewind(file);
    char *bytes = malloc(*size + 1);
    if (!bytes || fread(bytes, 1, *size, file) != *size) fail("cannot read", path);
    bytes[*size] = 0;
    fclose(file);
    return bytes;
}

static const char *text_of(const cJSON *object, const char *key) {
    const cJSON *value = cJSON_GetObjectItem(object, key);
    return cJSON_IsString(value) ? value->valuestring : "";
}

static double number_of(const cJSON *object, const char *key) {
    const cJSON *value = cJSON_GetObjectItem(object, key);
    return cJSON_IsNumber(value) ? value->valuedouble : 0;
}

static GLuint *slot_of(host *h, const char *name) {
    for (int i = 0; i < h->picture_count; ++i) {
        if (strcmp(h->pictures[i].name, name) == 0) return &h->pictures[i].texture;
    }
    if (h->picture_count == most_pictures) fail("too many pictures at", name);
    picture *made = &h->pictures[h->picture_count++];
    snprintf(made->name, sizeof made->name, "%s", name);
    return &made->texture;
}

/* Floats, the first row being the top: what is drawn and read here is never upside down. */
static GLuint texture_of(int width, int height, int channels, const float *values) {
    const GLint inside[] = {0, GL_R32F, GL_RG32F, GL_RGB32F, GL_RGBA32F};
    const GLenum outside[] = {0, GL_RED, GL_RG, GL_RGB, GL_RGBA};
    GLuint texture = 0;
    glGenTextures(1, &texture);
    glBindTexture(GL_TEXTURE_2D, texture);
    glTexImage2D(GL_TEXTURE_2D, 0, inside[channels], width, height, 0, outside[channels], GL_FLOAT, values);
    glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAX_LEVEL, 0);
    glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MIN_FILTER, GL_NEAREST);
    glTexParameteri(GL_TEXTURE_2D, GL_TEXTURE_MAG_FILTER, GL_NEAREST);
    return texture;
}

static float linear_of(unsigned char display) { /* IEC 61966-2-1 */
    const double x = display / 255.0;
    return (float)(x <= 0.04045 ? x / 12.92 : pow((x + 0.055) / 1.055, 2.4));
}

/* A game has these pictures itself; the set brings those that the artist worked on. */
static void load_ground(host *h, const cJSON *ground) {
    const char *file = text_of(ground, "file");
    if (!*file) fail("no file for the ground", text_of(ground, "name"));
    size_t size = 0;
    char *bytes = read_file(h->folder, file, &size);
    int width = (int)number_of(ground, "width"), height = (int)number_of(ground, "height");
    if (!strstr(file, ".png")) {
        *slot_of(h, text_of(ground, "name")) =
            texture_of(width, height, (int)number_of(ground, "channels"), (const float *)(const void *)bytes);
        free(bytes);
        return;
    }
    spng_ctx *png = spng_ctx_new(0);
    size_t count = 0;
    spng_set_png_buffer(png, bytes, size);
    if (spng_decoded_image_size(png, SPNG_FMT_RGBA8, &count)) fail("not a PNG:", file);
    unsigned char *display = malloc(count);
    float *values = malloc(count * sizeof(float));
    if (!display || !values || spng_decode_image(png, display, count, SPNG_FMT_RGBA8, 0)) fail("not a PNG:", file);
    for (size_t i = 0; i < count; ++i) values[i] = i % 4 == 3 ? (float)display[i] / 255.0f : linear_of(display[i]);
    *slot_of(h, text_of(ground, "name")) = texture_of(width, height, 4, values);
    spng_ctx_free(png);
    free(display);
    free(values);
    free(bytes);
}

static GLuint shader_of(const host *h, GLenum kind, const char *path) {
    size_t size = 0;
    char *text = read_file(h->folder, path, &size);
    const char *source = text;
    const GLuint shader = glCreateShader(kind);
    glShaderSource(shader, 1, &source, NULL);
    glCompileShader(shader);
    GLint good = 0;
    glGetShaderiv(shader, GL_COMPILE_STATUS, &good);
    if (!good) fail("does not compile:", path);
    free(text);
    return shader;
}

static void load_set(host *h) {
    size_t size = 0;
    char *text = read_file(h->folder, "manifest.json", &size);
    h->manifest = cJSON_Parse(text);
    free(text);
    if (!h->manifest || number_of(h->manifest, "lacquer_set") != 1) fail("no set in", h->folder);
    const cJSON *frame = cJSON_GetObjectItem(h->manifest, "frame");
    h->width = (int)number_of(frame, "width");
    h->height = (int)number_of(frame, "height");
    h->rate = number_of(cJSON_GetObjectItem(h->manifest, "ticks"), "rate");
    const cJSON *each = NULL;
    cJSON_ArrayForEach(each, cJSON_GetObjectItem(h->manifest, "grounds")) load_ground(h, each);
    const GLuint vertex = shader_of(h, GL_VERTEX_SHADER, "shaders/glsl330/whole_frame.vert");
    int number = 0;
    cJSON_ArrayForEach(each, cJSON_GetObjectItem(h->manifest, "passes")) {
        if (number == most_passes) fail("too many passes in", h->folder);
        const GLuint program = glCreateProgram();
        glAttachShader(program, vertex);
        glAttachShader(program,
                       shader_of(h, GL_FRAGMENT_SHADER, text_of(cJSON_GetObjectItem(each, "shaders"), "glsl330")));
        glLinkProgram(program);
        h->programs[number++] = program;
    }
}

/* Values of play lie in a row of doubles; the manifest says where each is. */
static void set_uniform(const host *h, GLuint program, const cJSON *uniform, const double *values, double seconds,
                        double tick, int width, int height) {
    const char *source = text_of(uniform, "source"), *type = text_of(uniform, "type");
    const GLint place = glGetUniformLocation(program, text_of(uniform, "name"));
    const cJSON *at = cJSON_GetObjectItem(uniform, "value_at");
    double v[4] = {0, 0, 0, 0};
    if (cJSON_IsNumber(at)) memcpy(v, values + at->valueint, sizeof(double) * (size_t)number_of(uniform, "parts"));
    if (!strcmp(source, "time")) v[0] = seconds;
    if (!strcmp(source, "frame_size")) v[0] = h->width, v[1] = h->height;
    if (!strcmp(source, "pixel_size")) v[0] = 1.0 / h->width, v[1] = 1.0 / h->height;
    if (!strcmp(source, "aspect")) v[0] = (double)h->width / h->height;
    if (!strcmp(source, "lq_drawn_size")) v[0] = width, v[1] = height;
    if (!strcmp(source, "tick")) v[0] = tick;
    if (!strcmp(source, "tick_length")) v[0] = h->rate > 0 ? 1 / h->rate : 0;
    if (!strcmp(source, "tick_part")) v[0] = fmod(seconds * h->rate, 1);
    if (!strcmp(type, "float")) glUniform1f(place, (float)v[0]);
    if (!strcmp(type, "vec2")) glUniform2f(place, (float)v[0], (float)v[1]);
    if (!strcmp(type, "vec3")) glUniform3f(place, (float)v[0], (float)v[1], (float)v[2]);
    if (!strcmp(type, "vec4")) glUniform4f(place, (float)v[0], (float)v[1], (float)v[2], (float)v[3]);
    if (!strcmp(type, "bool")) glUniform1i(place, v[0] != 0);
}

/* All passes that are drawn "at_each" start, tick or frame; gives what the last one drew. */
static GLuint draw_passes(host *h, const char *at_each, const double *values, double seconds, double tick) {
    GLuint drawn = 0;
    int number = -1;
    const cJSON *pass = NULL, *each = NULL;
    cJSON_ArrayForEach(pass, cJSON_GetObjectItem(h->manifest, "passes")) {
        ++number;
        if (strcmp(text_of(pass, "at_each"), at_each) != 0) continue;
        const int width = (int)lround(h->width * number_of(pass, "scale"));
        const int height = (int)lround(h->height * number_of(pass, "scale"));
        const cJSON *write = cJSON_GetArrayItem(cJSON_GetObjectItem(pass, "writes"), 0);
        const char *format = text_of(write, "format");
        drawn = texture_of(width, height, !strcmp(format, "r32f") ? 1 : !strcmp(format, "rg32f") ? 2 : 4, NULL);
        glFramebufferTexture2D(GL_FRAMEBUFFER, GL_COLOR_ATTACHMENT0, GL_TEXTURE_2D, drawn, 0);
        glViewport(0, 0, width, height);
        glUseProgram(h->programs[number]);
        int unit = 0;
        cJSON_ArrayForEach(each, cJSON_GetObjectItem(pass, "pictures")) {
            glActiveTexture(GL_TEXTURE0 + (GLenum)unit);
            glBindTexture(GL_TEXTURE_2D, *slot_of(h, text_of(each, "source")));
            glUniform1i(glGetUniformLocation(h->programs[number], text_of(each, "name")), unit++);
        }
        cJSON_ArrayForEach(each, cJSON_GetObjectItem(pass, "uniforms"))
            set_uniform(h, h->programs[number], each, values, seconds, tick, width, height);
        glActiveTexture(GL_TEXTURE0);
        glDrawArrays(GL_TRIANGLES, 0, 3);
        GLuint *slot = slot_of(h, text_of(write, "name"));
        /* What a frame's pass drew before is not needed any more; what ticks leave is let go of by draw_tick. */
        if (*slot && !strcmp(at_each, "frame")) glDeleteTextures(1, slot);
        *slot = drawn;
    }
    return drawn;
}

/* What goes on from tick to tick: the last tick's picture is read while the next is drawn, then they change places. */
static void draw_tick(host *h, const double *values, double seconds, int tick) {
    const float clear[4] = {0, 0, 0, 0};
    const cJSON *step = NULL, *keeps = cJSON_GetObjectItem(cJSON_GetObjectItem(h->manifest, "ticks"), "keeps");
    if (tick == 0) draw_passes(h, "start", values, seconds, 0);
    cJSON_ArrayForEach(step, keeps) {
        GLuint *previous = slot_of(h, text_of(step, "previous"));
        const char *starts = text_of(step, "starts_by");
        if (tick > 0) {
            if (*previous) glDeleteTextures(1, previous);
            *previous = *slot_of(h, text_of(step, "present"));
        } else {
            *previous = *starts ? *slot_of(h, starts) : texture_of(1, 1, 4, clear);
        }
    }
    draw_passes(h, "tick", values, seconds, tick);
    cJSON_ArrayForEach(step, keeps) *slot_of(h, text_of(step, "present")) = *slot_of(h, text_of(step, "step"));
}

static void open_gl(void) {
    EGLDisplay display = eglGetPlatformDisplayEXT(EGL_PLATFORM_SURFACELESS_MESA, EGL_DEFAULT_DISPLAY, NULL);
    const EGLint wanted[] = {EGL_CONTEXT_MAJOR_VERSION, 3, EGL_CONTEXT_MINOR_VERSION, 3, EGL_NONE};
    if (!eglInitialize(display, NULL, NULL) || !eglBindAPI(EGL_OPENGL_API)) fail("no", "EGL");
    EGLContext context = eglCreateContext(display, EGL_NO_CONFIG_KHR, EGL_NO_CONTEXT, wanted);
    if (!eglMakeCurrent(display, EGL_NO_SURFACE, EGL_NO_SURFACE, context)) fail("no", "OpenGL 3.3");
    GLuint corners = 0, frame = 0;
    glGenVertexArrays(1, &corners);
    glBindVertexArray(corners);
    glGenFramebuffers(1, &frame);
    glBindFramebuffer(GL_FRAMEBUFFER, frame);
}

/* Floats of red, green and blue, the last row first, as the format has it. */
static void write_frame(const host *h, const char *path) {
    const size_t row = (size_t)h->width * 3;
    float *values = malloc(row * (size_t)h->height * sizeof(float));
    FILE *file = fopen(path, "wb");
    if (!values || !file) fail("cannot write", path);
    glPixelStorei(GL_PACK_ALIGNMENT, 4);
    glReadPixels(0, 0, h->width, h->height, GL_RGB, GL_FLOAT, values);
    fprintf(file, "PF\n%d %d\n-1.0\n", h->width, h->height);
    for (int y = h->height; y-- > 0;) fwrite(values + row * (size_t)y, sizeof(float), row, file);
    fclose(file);
    free(values);
}

int main(int count, char **words) {
    if (count != 4) fail("usage:", "host SET SECONDS FRAME.pfm");
    static host h;
    h.folder = words[1];
    const double until = atof(words[2]);
    open_gl();
    load_set(&h);
    static PLAY(state) state;
    static PLAY(values) values;
    PLAY(init)(&state);
    int hit = 0;
    /* Sixty frames a second, as a game would; ticks come as often as the manifest says. */
    int ticks = 0;
    for (int frame = 0;; ++frame) {
        const double seconds = frame / 60.0 < until ? frame / 60.0 : until;
        if (!hit && seconds >= 0.5) {
            hit = 1;
            PLAY_HIT(&state);
        }
        while (h.rate > 0 && ticks <= (int)floor(seconds * h.rate + 1e-6)) {
            PLAY(at)(&state, ticks / h.rate, &values);
            draw_tick(&h, (const double *)(const void *)&values, ticks / h.rate, ticks);
            ++ticks;
        }
        PLAY(at)(&state, seconds, &values);
        draw_passes(&h, "frame", (const double *)(const void *)&values, seconds, ticks - 1);
        if (seconds >= until) break;
    }
    write_frame(&h, words[3]);
    cJSON_Delete(h.manifest);
    return 0;
}
