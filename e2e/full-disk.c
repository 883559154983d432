/* A disk that is full while the file named by DISK_FULL is there: put before the C library, it writes nothing then and says why, as the system does. */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <stdlib.h>
#include <sys/types.h>
#include <unistd.h>

typedef ssize_t writes(int, const void *, size_t, off_t);

static ssize_t unless_full(const char *name, int file, const void *bytes, size_t count, off_t at) {
    const char *told = getenv("DISK_FULL");
    if (told && access(told, F_OK) == 0) {
        errno = ENOSPC;
        return -1;
    }
    return ((writes *)dlsym(RTLD_NEXT, name))(file, bytes, count, at);
}

ssize_t pwrite(int file, const void *bytes, size_t count, off_t at) { return unless_full("pwrite", file, bytes, count, at); }
ssize_t pwrite64(int file, const void *bytes, size_t count, off_t at) { return unless_full("pwrite64", file, bytes, count, at); }
