// Walls around a process that reads what strangers have made: no network, no other files, no other programs, and so
// much memory and time at the most. By Linux's seccomp, through libseccomp, and Landlock (Linux's own documentation,
// userspace-api/landlock).
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

namespace lacquer {

/// Which walls stand.
struct Walls {
    bool files = false;  ///< only the files that were named can be read, none written
    bool calls = false;  ///< no network, no other programs
    bool memory = false;
};

/// What the process may still do.
struct Allowed {
    std::vector<std::string> readable;                             ///< files, and folders with all that is in them
    std::uint64_t memory = std::uint64_t{4} * 1024 * 1024 * 1024;  ///< bytes of addresses
    unsigned processor_seconds = 60;
};

/// Made once, put around any number of forked processes.
class Confinement {
public:
    /// `may_load_code` where it loads libraries as it goes.
    explicit Confinement(bool may_load_code = false);

    /// Puts the walls around this process, for good. Those that this system does not have are left out; under
    /// sanitizers, which need more than they leave, all are.
    Walls put_around_this(const Allowed& allowed) const;

private:
    std::shared_ptr<void> filter_;  ///< of libseccomp
};

}  // namespace lacquer
