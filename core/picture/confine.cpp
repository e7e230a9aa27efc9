#include "core/picture/confine.h"

#include <fcntl.h>
#include <linux/landlock.h>
#include <sched.h>
#include <seccomp.h>
#include <sys/mman.h>
#include <sys/prctl.h>
#include <sys/resource.h>
#include <sys/stat.h>
#include <sys/syscall.h>
#include <unistd.h>

#include <cerrno>

#include "core/base/descriptor.h"

namespace lacquer {

namespace {

// Clang tells of them in a way of its own.
#ifndef __has_feature
#define __has_feature(feature) 0
#endif
#if defined(__SANITIZE_ADDRESS__) || defined(__SANITIZE_THREAD__) || __has_feature(address_sanitizer) || \
    __has_feature(thread_sanitizer)
constexpr bool has_sanitizer = true;
#else
constexpr bool has_sanitizer = false;
#endif

// What reading, computing and answering take. All else fails as if it were not permitted.
constexpr int allowed_calls[] = {SCMP_SYS(read),
                                 SCMP_SYS(write),
                                 SCMP_SYS(readv),
                                 SCMP_SYS(writev),
                                 SCMP_SYS(pread64),
                                 SCMP_SYS(lseek),
                                 SCMP_SYS(close),
                                 SCMP_SYS(fstat),
                                 SCMP_SYS(newfstatat),
                                 SCMP_SYS(stat),
                                 SCMP_SYS(lstat),
                                 SCMP_SYS(statx),
                                 SCMP_SYS(fstatfs),
                                 SCMP_SYS(statfs),
                                 SCMP_SYS(open),
                                 SCMP_SYS(openat),
                                 SCMP_SYS(access),
                                 SCMP_SYS(faccessat),
                                 SCMP_SYS(faccessat2),
                                 SCMP_SYS(readlink),
                                 SCMP_SYS(readlinkat),
                                 SCMP_SYS(getdents64),
                                 SCMP_SYS(fcntl),
                                 SCMP_SYS(fadvise64),
                                 SCMP_SYS(dup),
                                 SCMP_SYS(munmap),
                                 SCMP_SYS(mremap),
                                 SCMP_SYS(madvise),
                                 SCMP_SYS(brk),
                                 SCMP_SYS(futex),
                                 SCMP_SYS(sched_yield),
                                 SCMP_SYS(sched_getaffinity),
                                 SCMP_SYS(getpid),
                                 SCMP_SYS(gettid),
                                 SCMP_SYS(getuid),
                                 SCMP_SYS(geteuid),
                                 SCMP_SYS(getgid),
                                 SCMP_SYS(getegid),
                                 SCMP_SYS(exit),
                                 SCMP_SYS(exit_group),
                                 SCMP_SYS(rt_sigreturn),
                                 SCMP_SYS(rt_sigprocmask),
                                 SCMP_SYS(rt_sigaction),
                                 SCMP_SYS(tgkill),
                                 SCMP_SYS(clock_gettime),
                                 SCMP_SYS(clock_nanosleep),
                                 SCMP_SYS(nanosleep),
                                 SCMP_SYS(gettimeofday),
                                 SCMP_SYS(getrandom),
                                 SCMP_SYS(sysinfo),
                                 SCMP_SYS(getrusage),
                                 SCMP_SYS(uname),
                                 SCMP_SYS(getcwd),
                                 SCMP_SYS(poll),
                                 SCMP_SYS(ppoll),
                                 SCMP_SYS(set_robust_list),
                                 SCMP_SYS(rseq),
                                 SCMP_SYS(membarrier),
                                 SCMP_SYS(restart_syscall)};

using Filter = std::shared_ptr<void>;

Filter make_filter(bool may_load_code) {
    Filter filter(seccomp_init(SCMP_ACT_ERRNO(EPERM)), [](void* made) {
        if (made != nullptr) seccomp_release(made);
    });
    if (filter == nullptr) return filter;
    // Where these bits of an argument are so.
    const auto allow_masked = [&](int call, unsigned argument, scmp_datum_t mask, scmp_datum_t bits) {
        const scmp_arg_cmp compared{argument, SCMP_CMP_MASKED_EQ, mask, bits};
        (void)seccomp_rule_add_array(filter.get(), SCMP_ACT_ALLOW, call, 1, &compared);
    };
    // A call that this kind of processor does not have is no loss.
    for (const int call : allowed_calls) (void)seccomp_rule_add(filter.get(), SCMP_ACT_ALLOW, call, 0);
    for (const int call : {SCMP_SYS(mmap), SCMP_SYS(mprotect)}) {
        if (may_load_code) {
            (void)seccomp_rule_add(filter.get(), SCMP_ACT_ALLOW, call, 0);
        } else {
            allow_masked(call, 2, PROT_EXEC, 0);
        }
    }
    // Threads, but no processes. The newer call hides what it is asked for; without it the C library takes the older.
    allow_masked(SCMP_SYS(clone), 0, CLONE_THREAD, CLONE_THREAD);
    (void)seccomp_rule_add(filter.get(), SCMP_ACT_ERRNO(ENOSYS), SCMP_SYS(clone3), 0);
    return filter;
}

constexpr std::uint64_t all_of_files =
    LANDLOCK_ACCESS_FS_EXECUTE | LANDLOCK_ACCESS_FS_WRITE_FILE | LANDLOCK_ACCESS_FS_READ_FILE |
    LANDLOCK_ACCESS_FS_READ_DIR | LANDLOCK_ACCESS_FS_REMOVE_DIR | LANDLOCK_ACCESS_FS_REMOVE_FILE |
    LANDLOCK_ACCESS_FS_MAKE_CHAR | LANDLOCK_ACCESS_FS_MAKE_DIR | LANDLOCK_ACCESS_FS_MAKE_REG |
    LANDLOCK_ACCESS_FS_MAKE_SOCK | LANDLOCK_ACCESS_FS_MAKE_FIFO | LANDLOCK_ACCESS_FS_MAKE_BLOCK |
    LANDLOCK_ACCESS_FS_MAKE_SYM;

void let_read(int ruleset, const std::string& path) {
    const Descriptor at(::open(path.c_str(), O_PATH | O_CLOEXEC));
    struct stat is {};
    if (at.get() < 0 || ::fstat(at.get(), &is) != 0) return;
    landlock_path_beneath_attr rule{};
    rule.parent_fd = at.get();
    rule.allowed_access = LANDLOCK_ACCESS_FS_READ_FILE;
    if (S_ISDIR(is.st_mode)) rule.allowed_access |= LANDLOCK_ACCESS_FS_READ_DIR;
    (void)::syscall(SYS_landlock_add_rule, ruleset, LANDLOCK_RULE_PATH_BENEATH, &rule, 0);
}

bool shut_off_files(const std::vector<std::string>& readable) {
    landlock_ruleset_attr asked{};
    asked.handled_access_fs = all_of_files;
    const Descriptor ruleset(
        static_cast<int>(::syscall(SYS_landlock_create_ruleset, &asked, sizeof(asked.handled_access_fs), 0)));
    if (ruleset.get() < 0) return false;
    for (const std::string& path : readable) let_read(ruleset.get(), path);
    return ::syscall(SYS_landlock_restrict_self, ruleset.get(), 0) == 0;
}

bool hold(int what, rlim_t most) {
    const rlimit limit{most, most};
    return setrlimit(static_cast<__rlimit_resource_t>(what), &limit) == 0;
}

}  // namespace

Confinement::Confinement(bool may_load_code) : filter_(make_filter(may_load_code)) {}

Walls Confinement::put_around_this(const Allowed& allowed) const {
    Walls walls;
    (void)hold(RLIMIT_CORE, 0);
    (void)hold(RLIMIT_CPU, allowed.processor_seconds);
    if (has_sanitizer) return walls;
    walls.memory = hold(RLIMIT_AS, allowed.memory);
    if (prctl(PR_SET_NO_NEW_PRIVS, 1, 0, 0, 0) != 0) return walls;
    walls.files = shut_off_files(allowed.readable);
    // Last, as what puts up the other wall is not on its list.
    walls.calls = filter_ != nullptr && seccomp_load(filter_.get()) == 0;
    return walls;
}

}  // namespace lacquer
