// An open file descriptor that closes itself.
#pragma once

#include <unistd.h>

#include <utility>

namespace lacquer {

class Descriptor {
public:
    explicit Descriptor(int fd = -1) : fd_(fd) {}
    Descriptor(Descriptor&& other) noexcept : fd_(std::exchange(other.fd_, -1)) {}
    Descriptor& operator=(Descriptor&& other) noexcept {
        std::swap(fd_, other.fd_);
        return *this;
    }
    ~Descriptor() { (void)close_now(); }

    /// -1 if there is none.
    int get() const { return fd_; }

    /// False if the last of what was written could not be kept.
    bool close_now() {
        const int fd = std::exchange(fd_, -1);
        return fd < 0 || ::close(fd) == 0;
    }

private:
    int fd_;
};

}  // namespace lacquer
