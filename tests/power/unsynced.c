/* Writes down what a program does to the files in one folder, so that a test can work out what a power cut at any
   moment would leave of it. Loaded before the C library (LD_PRELOAD); the folder is LACQUER_UNSYNCED_FOLDER, the list
   LACQUER_UNSYNCED_LIST. One line an event:

     open FILE NEW PATH     FILE is the number that the system knows it by, NEW 1 where this made it, 2 where it cut it
     write FILE BYTES-IN-HEX
     sync FILE              its bytes are on disk
     folder PATH            the names in the folder are
     mkdir PATH | rename FROM TO | remove PATH */
#include <dlfcn.h>
#include <fcntl.h>
#include <pthread.h>
#include <stdarg.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <sys/uio.h>
#include <unistd.h>

static pthread_mutex_t lock = PTHREAD_MUTEX_INITIALIZER;

/* Past the functions below. */
static void put(const char* text, size_t size) {
    static int list = -1;
    if (list < 0) {
        const char* path = getenv("LACQUER_UNSYNCED_LIST");
        if (path == NULL) return;
        list = (int)syscall(SYS_openat, AT_FDCWD, path, O_WRONLY | O_CREAT | O_APPEND | O_CLOEXEC, 0600);
    }
    (void)!syscall(SYS_write, list, text, size);
}

static void say(const char* words, ...) {
    char line[8400];
    va_list rest;
    va_start(rest, words);
    const int size = vsnprintf(line, sizeof line, words, rest);
    va_end(rest);
    if (size > 0 && (size_t)size < sizeof line) put(line, (size_t)size);
}

static int is_ours(const char* path) {
    const char* folder = getenv("LACQUER_UNSYNCED_FOLDER");
    return folder != NULL && path != NULL && strncmp(path, folder, strlen(folder)) == 0;
}

/* The path behind a descriptor, if it lies in the folder. */
static int path_of(int fd, char* path, size_t room) {
    char link[64];
    snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
    const ssize_t size = readlink(link, path, room - 1);
    if (size <= 0) return 0;
    path[size] = 0;
    return is_ours(path);
}

static unsigned long number_of(int fd) {
    struct stat is;
    return fstat(fd, &is) == 0 ? (unsigned long)is.st_ino : 0;
}

#define REAL(type, name, ...)         \
    static type (*real)(__VA_ARGS__); \
    if (real == NULL) *(void**)&real = dlsym(RTLD_NEXT, name)

static int opened(int fd, const char* path, int flags, int was_there) {
    if (fd >= 0 && is_ours(path) && (flags & (O_WRONLY | O_RDWR)) != 0) {
        pthread_mutex_lock(&lock);
        say("open %lu %d %s\n", number_of(fd), !was_there ? 1 : (flags & O_TRUNC) != 0 ? 2 : 0, path);
        pthread_mutex_unlock(&lock);
    }
    return fd;
}

#define OPEN(name)                                                             \
    int name(const char* path, int flags, ...) {                               \
        REAL(int, #name, const char*, int, ...);                               \
        va_list rest;                                                          \
        va_start(rest, flags);                                                 \
        const mode_t mode = (flags & O_CREAT) != 0 ? va_arg(rest, mode_t) : 0; \
        va_end(rest);                                                          \
        const int was_there = access(path, F_OK) == 0;                         \
        return opened(real(path, flags, mode), path, flags, was_there);        \
    }
OPEN(open)
OPEN(open64)

#define FOPEN(name)                                                                       \
    FILE* name(const char* path, const char* mode) {                                      \
        REAL(FILE*, #name, const char*, const char*);                                     \
        const int was_there = access(path, F_OK) == 0;                                    \
        FILE* file = real(path, mode);                                                    \
        const int flags = mode[0] == 'r' ? 0 : O_WRONLY | (mode[0] == 'w' ? O_TRUNC : 0); \
        if (file != NULL) opened(fileno(file), path, flags, was_there);                   \
        return file;                                                                      \
    }
FOPEN(fopen)
FOPEN(fopen64)

static void written(int fd, const void* bytes, ssize_t count) {
    char path[4200];
    if (count <= 0 || !path_of(fd, path, sizeof path)) return;
    pthread_mutex_lock(&lock);
    say("write %lu ", number_of(fd));
    char hex[4096];
    const unsigned char* from = bytes;
    for (ssize_t at = 0; at < count;) {
        size_t used = 0;
        for (; at < count && used + 2 < sizeof hex; ++at, used += 2)
            snprintf(hex + used, 3, "%02x", (unsigned)from[at]);
        put(hex, used);
    }
    put("\n", 1);
    pthread_mutex_unlock(&lock);
}

ssize_t write(int fd, const void* bytes, size_t count) {
    REAL(ssize_t, "write", int, const void*, size_t);
    const ssize_t done = real(fd, bytes, count);
    written(fd, bytes, done);
    return done;
}

ssize_t writev(int fd, const struct iovec* parts, int count) {
    ssize_t all = 0;
    for (int i = 0; i < count; ++i) {
        const ssize_t done = write(fd, parts[i].iov_base, parts[i].iov_len);
        if (done < 0) return all > 0 ? all : done;
        all += done;
        if ((size_t)done < parts[i].iov_len) break;
    }
    return all;
}

static void synced(int fd) {
    char path[4200];
    struct stat is;
    if (!path_of(fd, path, sizeof path) || fstat(fd, &is) != 0) return;
    pthread_mutex_lock(&lock);
    if (S_ISDIR(is.st_mode)) {
        say("folder %s\n", path);
    } else {
        say("sync %lu\n", number_of(fd));
    }
    pthread_mutex_unlock(&lock);
}

#define SYNC(name)                 \
    int name(int fd) {             \
        REAL(int, #name, int);     \
        const int done = real(fd); \
        if (done == 0) synced(fd); \
        return done;               \
    }
SYNC(fsync)
SYNC(fdatasync)

static void changed(int done, const char* what, const char* path, const char* to) {
    if (done != 0 || !is_ours(path)) return;
    pthread_mutex_lock(&lock);
    if (to != NULL) {
        say("%s %s %s\n", what, path, to);
    } else {
        say("%s %s\n", what, path);
    }
    pthread_mutex_unlock(&lock);
}

int rename(const char* from, const char* to) {
    REAL(int, "rename", const char*, const char*);
    const int done = real(from, to);
    changed(done, "rename", from, to);
    return done;
}

int unlink(const char* path) {
    REAL(int, "unlink", const char*);
    const int done = real(path);
    changed(done, "remove", path, NULL);
    return done;
}

int remove(const char* path) {
    REAL(int, "remove", const char*);
    const int done = real(path);
    changed(done, "remove", path, NULL);
    return done;
}

int mkdir(const char* path, mode_t mode) {
    REAL(int, "mkdir", const char*, mode_t);
    const int done = real(path, mode);
    changed(done, "mkdir", path, NULL);
    return done;
}
